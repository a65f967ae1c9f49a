import { closedOrder, orderEvent } from "./event-type";

/** An order was changed: its name, its day, and all of its lines as they are now. */
export const asked = orderEvent({
  kind: "asked",
  version: 1,
  payload: ({ orderPlan }) => orderPlan.pick({ name: true, whom: true, wantedOn: true, lines: true }),
  validate: (state) => closedOrder(state),
  apply: (state, { payload }) => {
    state.name = payload.name;
    state.whom = payload.whom;
    state.wantedOn = payload.wantedOn;
    state.lines = payload.lines;
  },
  describe: (payload) => ({ what: "ordered", figure: payload.lines.map((line) => `${line.packs} × ${line.name}`).join(", ") }),
  columns: (payload) => ({ what: payload.lines.map((line) => `${line.packs} × ${line.name}`).join(", ") }),
});
