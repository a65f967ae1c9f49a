import { burningIn, OUT_WHY } from "../state";
import { notThere, trialEvent } from "./event-type";

/** A tester is put out, or went out by itself. */
export const extinguished = trialEvent({
  kind: "extinguished",
  formerName: "out",
  version: 1,
  payload: ({ z, testCandleKey }) =>
    z.object({
      tester: testCandleKey,
      why: z.enum(OUT_WHY),
      sign: z.string().trim().max(300).default("").describe("what was seen, where it was for safety"),
    }),
  validate: (state, one, _plan, at) => {
    const there = notThere(state, one.tester);
    if (there) return there;
    const session = burningIn(state.testers[one.tester]);
    if (!session) return { field: "tester", message: "It does not burn." };
    return at && Date.parse(at) < Date.parse(session.litAt) ? { field: "at", message: "It was not lit yet then." } : null;
  },
  apply: (state, { happenedAt, payload: one }) => {
    const session = burningIn(state.testers[one.tester]);
    if (session) session.out = { at: happenedAt, why: one.why, sign: one.sign };
    state.presentAt = happenedAt;
  },
  correctableField: null,
  describe: (one) => ({
    what: one.why === "by itself" ? `${one.tester} went out by itself` : `${one.tester} put out`,
    ...(one.why === "safety" ? { standing: one.sign || "for safety", tone: "safety" as const } : {}),
  }),
  columns: (one) => ({ what: [one.tester, one.why, one.sign].filter(Boolean).join("; ") }),
});
