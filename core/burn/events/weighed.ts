import { notThere, trialEvent, upcastTestCandleKey } from "./event-type";

/** A test candle on the scale, before or after a session; vessel and all. Milligrams. */
export const weighed = trialEvent({
  kind: "weighed",
  version: 2,
  payload: ({ z, testCandleKey }) =>
    z.object({
      testCandle: testCandleKey,
      session: z.number().int().min(1).describe("counted from 1"),
      when: z.enum(["before", "after"]),
      mg: z.number().int().min(1, "Enter a weight above zero.").max(100_000_000),
    }),
  upcast: upcastTestCandleKey,
  validate: (state, payload) => {
    const missing = notThere(state, payload.testCandle);
    if (missing) return missing;
    const sessions = state.testCandles[payload.testCandle]?.sessions ?? [];
    const session = sessions[payload.session - 1];
    if (!session) return { field: "testCandle", message: "This session does not exist." };
    if (payload.when === "after" && session.out === null) return { field: "mg", message: "It is still burning. Weigh it when it is out and has set." };
    if (payload.when === "after" && session.beforeMg !== null && payload.mg > session.beforeMg)
      return { field: "mg", message: "It cannot weigh more after burning than before." };
    if (payload.when === "before" && session.afterMg !== null && payload.mg < session.afterMg)
      return { field: "mg", message: "It cannot weigh less before burning than after." };
    return null;
  },
  apply: (state, { payload }) => {
    const session = state.testCandles[payload.testCandle]?.sessions[payload.session - 1];
    if (!session) return;
    if (payload.when === "before") session.beforeMg = payload.mg;
    else session.afterMg = payload.mg;
  },
  correctableField: { field: "mg", label: "What it weighed", is: "mass" },
  describe: (payload, _plan, say) => ({ what: `${payload.testCandle} weighed ${payload.when} session ${payload.session}`, figure: say.g(payload.mg) }),
  columns: (payload) => ({ what: `${payload.testCandle} ${payload.when} session ${payload.session}`, grams: payload.mg / 1_000 }),
});
