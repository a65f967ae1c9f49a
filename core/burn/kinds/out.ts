import { burningIn, OUT_WHY } from "../facts";
import { notThere, trialKind } from "./kind";

/** A tester is put out, or went out by itself. */
export const out = trialKind({
  kind: "out",
  version: 1,
  payload: ({ z, testerKey }) =>
    z.object({
      tester: testerKey,
      why: z.enum(OUT_WHY),
      sign: z.string().trim().max(300).default("").describe("what was seen, where it was for safety"),
    }),
  refuse: (facts, one, _plan, at) => {
    const there = notThere(facts, one.tester);
    if (there) return there;
    const session = burningIn(facts.testers[one.tester]);
    if (!session) return { field: "tester", message: "It does not burn." };
    return at && Date.parse(at) < Date.parse(session.litAt) ? { field: "at", message: "It was not lit yet then." } : null;
  },
  apply: (facts, { happenedAt, payload: one }) => {
    const session = burningIn(facts.testers[one.tester]);
    if (session) session.out = { at: happenedAt, why: one.why, sign: one.sign };
    facts.presentAt = happenedAt;
  },
  told: (one) => ({
    what: one.why === "by itself" ? `${one.tester} went out by itself` : `${one.tester} put out`,
    ...(one.why === "safety" ? { standing: one.sign || "for safety", tone: "safety" as const } : {}),
  }),
  columns: (one) => ({ what: [one.tester, one.why, one.sign].filter(Boolean).join("; ") }),
});
