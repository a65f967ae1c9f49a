import { burningIn, OUT_WHY } from "../state";
import { notThere, trialEvent, upcastTestCandleKey } from "./event-type";

/** A test candle is put out, or went out by itself. */
export const extinguished = trialEvent({
  kind: "extinguished",
  formerName: "out",
  version: 2,
  payload: ({ z, testCandleKey }) =>
    z.object({
      testCandle: testCandleKey,
      why: z.enum(OUT_WHY),
      sign: z.string().trim().max(300).default("").describe("what was seen, where it was for safety"),
    }),
  upcast: upcastTestCandleKey,
  validate: (state, payload, _plan, at) => {
    const missing = notThere(state, payload.testCandle);
    if (missing) return missing;
    const session = burningIn(state.testCandles[payload.testCandle]);
    if (!session) return { field: "testCandle", message: "It is not burning." };
    return at && Date.parse(at) < Date.parse(session.litAt) ? { field: "at", message: "It was not lit yet at that time." } : null;
  },
  apply: (state, { happenedAt, payload }) => {
    const session = burningIn(state.testCandles[payload.testCandle]);
    if (session) session.out = { at: happenedAt, why: payload.why, sign: payload.sign };
    state.presentAt = happenedAt;
  },
  correctableField: null,
  describe: (payload) => ({
    what: payload.why === "by itself" ? `${payload.testCandle} went out by itself` : `${payload.testCandle} put out`,
    ...(payload.why === "safety" ? { remark: payload.sign || "for safety", tone: "safety" as const } : {}),
  }),
  columns: (payload) => ({ what: [payload.testCandle, payload.why, payload.sign].filter(Boolean).join("; ") }),
});
