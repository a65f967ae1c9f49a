import { burningIn, OUT_WHY } from "../state";
import { notThere, trialEvent, upcastTestCandle } from "./event-type";

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
  upcast: upcastTestCandle,
  validate: (state, one, _plan, at) => {
    const there = notThere(state, one.testCandle);
    if (there) return there;
    const session = burningIn(state.testCandles[one.testCandle]);
    if (!session) return { field: "testCandle", message: "It does not burn." };
    return at && Date.parse(at) < Date.parse(session.litAt) ? { field: "at", message: "It was not lit yet then." } : null;
  },
  apply: (state, { happenedAt, payload: one }) => {
    const session = burningIn(state.testCandles[one.testCandle]);
    if (session) session.out = { at: happenedAt, why: one.why, sign: one.sign };
    state.presentAt = happenedAt;
  },
  correctableField: null,
  describe: (one) => ({
    what: one.why === "by itself" ? `${one.testCandle} went out by itself` : `${one.testCandle} put out`,
    ...(one.why === "safety" ? { remark: one.sign || "for safety", tone: "safety" as const } : {}),
  }),
  columns: (one) => ({ what: [one.testCandle, one.why, one.sign].filter(Boolean).join("; ") }),
});
