import { closedOrder, orderKind } from "./kind";

/** What is asked for, said anew: name, day, and all lines. */
export const asked = orderKind({
  kind: "asked",
  version: 1,
  payload: ({ orderPlan }) => orderPlan.pick({ name: true, whom: true, wantedOn: true, lines: true }),
  refuse: (facts) => closedOrder(facts),
  apply: (facts, { payload }) => {
    facts.name = payload.name;
    facts.whom = payload.whom;
    facts.wantedOn = payload.wantedOn;
    facts.lines = payload.lines;
  },
  told: (one) => ({ what: "asked for", figure: one.lines.map((line) => `${line.packs} × ${line.name}`).join(", ") }),
  columns: (one) => ({ what: one.lines.map((line) => `${line.packs} × ${line.name}`).join(", ") }),
});
