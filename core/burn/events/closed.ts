import { burningIn } from "../state";
import { closedTrial, trialEvent } from "./event-type";

/** A trial is closed: nothing of it burns any more. */
export const closed = trialEvent({
  kind: "closed",
  version: 1,
  payload: ({ z }) => z.object({}),
  validate: (state) =>
    closedTrial(state) ??
    (Object.values(state.testCandles).some((testCandle) => burningIn(testCandle))
      ? { field: "kind", message: "A candle is still burning. Put it out first." }
      : null),
  apply: (state, { id, happenedAt }) => {
    state.closed = { at: happenedAt, id };
  },
  describe: () => ({ what: "trial closed" }),
  columns: () => ({ what: "closed" }),
});
