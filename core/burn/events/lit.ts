import { TRIM_MM } from "../limits";
import { AIR, burningIn } from "../state";
import { notThere, trialEvent, upcastTestCandleKey } from "./event-type";

/** A test candle is lit: how long its wick was, and what the air did. Lengths in micrometers. */
export const lit = trialEvent({
  kind: "lit",
  version: 2,
  payload: ({ z, testCandleKey }) =>
    z.object({
      testCandle: testCandleKey,
      trimUm: z.number().int().min(0).max(100_000, "This wick length is out of range.").nullable(),
      air: z.array(z.enum(AIR)).max(AIR.length),
      early: z.string().trim().max(300).default("").describe("why it was lit before its minimum cure"),
    }),
  upcast: upcastTestCandleKey,
  validate: (state, payload, plan, at) => {
    const missing = notThere(state, payload.testCandle);
    if (missing) return missing;
    if (!plan.testCandles.find((each) => each.key === payload.testCandle)?.wick)
      return {
        field: "testCandle",
        message: "Its wick is not known, so it cannot be tested. Start a trial that names the wick.",
      };
    const now = state.testCandles[payload.testCandle];
    if (now?.stopped) return { field: "testCandle", message: `It is stopped: ${now.stopped.why}.` };
    if (burningIn(now)) return { field: "testCandle", message: "It is burning already. Put it out before you light it again." };
    const last = now?.sessions.at(-1);
    if (at && last?.out && Date.parse(at) < Date.parse(last.out.at))
      return { field: "at", message: "It was still burning at that time, in the session before." };
    return null;
  },
  apply: (state, { id, happenedAt, payload }) => {
    state.testCandles[payload.testCandle]?.sessions.push({
      id,
      litAt: happenedAt,
      out: null,
      trimUm: payload.trimUm,
      air: payload.air,
      early: payload.early,
      beforeMg: null,
      afterMg: null,
      checks: [],
    });
    state.presentAt = happenedAt;
  },
  correctableField: null,
  describe: (payload, _plan, say) => {
    const mm = payload.trimUm === null ? null : payload.trimUm / 1_000;
    const wrong = mm !== null && (mm < TRIM_MM.low || mm > TRIM_MM.high);
    return {
      what: `${payload.testCandle} lit${payload.air.length > 0 ? `, ${payload.air.join(", ")}` : ""}`,
      figure: payload.trimUm === null ? "" : `wick ${say.len(payload.trimUm)}`,
      ...(wrong
        ? { remark: mm < TRIM_MM.low ? "trimmed too short" : "not trimmed enough", tone: "hot" as const }
        : payload.early
          ? { remark: `before its minimum cure: ${payload.early}` }
          : {}),
    };
  },
  columns: (payload) => ({
    what: [payload.testCandle, payload.trimUm === null ? "" : `wick ${payload.trimUm / 1_000} mm`, ...payload.air, payload.early].filter(Boolean).join("; "),
  }),
});
