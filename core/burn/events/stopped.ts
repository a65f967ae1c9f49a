import { burningIn } from "../state";
import { notThere, trialEvent, upcastTestCandle } from "./event-type";

export const STOPPED_WHY = ["the glass is cracked", "the wax is used up", "it broke", "no more is needed"] as const;

/** A test candle is not burned any more. */
export const stopped = trialEvent({
  kind: "stopped",
  version: 2,
  payload: ({ z, testCandleKey }) => z.object({ testCandle: testCandleKey, why: z.enum(STOPPED_WHY) }),
  upcast: upcastTestCandle,
  validate: (state, one) => {
    const there = notThere(state, one.testCandle);
    if (there) return there;
    if (burningIn(state.testCandles[one.testCandle])) return { field: "testCandle", message: "It still burns: put it out first." };
    return state.testCandles[one.testCandle]?.stopped ? { field: "testCandle", message: "It was stopped already." } : null;
  },
  apply: (state, { id, happenedAt, payload: one }) => {
    const testCandle = state.testCandles[one.testCandle];
    if (testCandle) testCandle.stopped = { at: happenedAt, why: one.why, id };
  },
  describe: (one) => ({
    what: `${one.testCandle} is not burned any more`,
    figure: one.why,
    tone: one.why === "the glass is cracked" || one.why === "it broke" ? "safety" : "ink",
  }),
  columns: (one) => ({ what: `${one.testCandle}; ${one.why}` }),
});
