import { burningIn } from "../facts";
import { notThere, trialKind } from "./kind";

export const STOPPED_WHY = ["the glass is cracked", "the wax is used up", "it broke", "no more is needed"] as const;

/** A tester is not burned any more. */
export const stopped = trialKind({
  kind: "stopped",
  version: 1,
  payload: ({ z, testerKey }) => z.object({ tester: testerKey, why: z.enum(STOPPED_WHY) }),
  refuse: (facts, one) => {
    const there = notThere(facts, one.tester);
    if (there) return there;
    if (burningIn(facts.testers[one.tester])) return { field: "tester", message: "It still burns: put it out first." };
    return facts.testers[one.tester]?.stopped ? { field: "tester", message: "It was stopped already." } : null;
  },
  apply: (facts, { id, happenedAt, payload: one }) => {
    const tester = facts.testers[one.tester];
    if (tester) tester.stopped = { at: happenedAt, why: one.why, id };
  },
  told: (one) => ({
    what: `${one.tester} is not burned any more`,
    figure: one.why,
    tone: one.why === "the glass is cracked" || one.why === "it broke" ? "safety" : "ink",
  }),
  columns: (one) => ({ what: `${one.tester}; ${one.why}` }),
});
