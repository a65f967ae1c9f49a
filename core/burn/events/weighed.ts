import { notThere, trialEvent, upcastTestCandle } from "./event-type";

/** A test candle on the scale, before or after a session; vessel and all. Milligrams. */
export const weighed = trialEvent({
  kind: "weighed",
  version: 2,
  payload: ({ z, testCandleKey }) =>
    z.object({
      testCandle: testCandleKey,
      session: z.number().int().min(1).describe("counted from 1"),
      when: z.enum(["before", "after"]),
      mg: z.number().int().min(1, "It weighs something.").max(100_000_000),
    }),
  upcast: upcastTestCandle,
  validate: (state, one) => {
    const there = notThere(state, one.testCandle);
    if (there) return there;
    const sessions = state.testCandles[one.testCandle]?.sessions ?? [];
    const session = sessions[one.session - 1];
    if (!session) return { field: "testCandle", message: "It has not burned so often." };
    if (one.when === "after" && session.out === null) return { field: "mg", message: "It still burns. Weigh it once it is out and has set." };
    if (one.when === "after" && session.beforeMg !== null && one.mg > session.beforeMg)
      return { field: "mg", message: "It cannot weigh more after burning than before." };
    if (one.when === "before" && session.afterMg !== null && one.mg < session.afterMg)
      return { field: "mg", message: "It cannot weigh less before burning than after." };
    return null;
  },
  apply: (state, { payload: one }) => {
    const session = state.testCandles[one.testCandle]?.sessions[one.session - 1];
    if (!session) return;
    if (one.when === "before") session.beforeMg = one.mg;
    else session.afterMg = one.mg;
  },
  correctableField: { field: "mg", label: "What it weighed", is: "mass" },
  describe: (one, _plan, say) => ({ what: `${one.testCandle} weighed ${one.when} session ${one.session}`, figure: say.g(one.mg) }),
  columns: (one) => ({ what: `${one.testCandle} ${one.when} session ${one.session}`, grams: one.mg / 1_000 }),
});
