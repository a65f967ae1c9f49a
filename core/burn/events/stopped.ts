import { burningIn } from "../state";
import { notThere, trialEvent } from "./event-type";

export const STOPPED_WHY = ["the glass is cracked", "the wax is used up", "it broke", "no more is needed"] as const;

/** A tester is not burned any more. */
export const stopped = trialEvent({
  kind: "stopped",
  version: 1,
  payload: ({ z, testCandleKey }) => z.object({ tester: testCandleKey, why: z.enum(STOPPED_WHY) }),
  validate: (state, one) => {
    const there = notThere(state, one.tester);
    if (there) return there;
    if (burningIn(state.testers[one.tester])) return { field: "tester", message: "It still burns: put it out first." };
    return state.testers[one.tester]?.stopped ? { field: "tester", message: "It was stopped already." } : null;
  },
  apply: (state, { id, happenedAt, payload: one }) => {
    const tester = state.testers[one.tester];
    if (tester) tester.stopped = { at: happenedAt, why: one.why, id };
  },
  describe: (one) => ({
    what: `${one.tester} is not burned any more`,
    figure: one.why,
    tone: one.why === "the glass is cracked" || one.why === "it broke" ? "safety" : "ink",
  }),
  columns: (one) => ({ what: `${one.tester}; ${one.why}` }),
});
