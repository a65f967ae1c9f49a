import { burningIn } from "../state";
import { notThere, trialEvent, upcastTestCandleKey } from "./event-type";

export const STOPPED_WHY = ["the glass is cracked", "the wax is used up", "it broke", "no more is needed"] as const;

/** A test candle is not burned any more. */
export const stopped = trialEvent({
  kind: "stopped",
  version: 2,
  payload: ({ z, testCandleKey }) => z.object({ testCandle: testCandleKey, why: z.enum(STOPPED_WHY) }),
  upcast: upcastTestCandleKey,
  validate: (state, payload) => {
    const missing = notThere(state, payload.testCandle);
    if (missing) return missing;
    if (burningIn(state.testCandles[payload.testCandle])) return { field: "testCandle", message: "It is still burning: put it out first." };
    return state.testCandles[payload.testCandle]?.stopped ? { field: "testCandle", message: "It was stopped already." } : null;
  },
  apply: (state, { id, happenedAt, payload }) => {
    const testCandle = state.testCandles[payload.testCandle];
    if (testCandle) testCandle.stopped = { at: happenedAt, why: payload.why, id };
  },
  describe: (payload) => ({
    what: `${payload.testCandle} is stopped`,
    figure: payload.why,
    tone: payload.why === "the glass is cracked" || payload.why === "it broke" ? "safety" : "ink",
  }),
  columns: (payload) => ({ what: `${payload.testCandle}; ${payload.why}` }),
});
