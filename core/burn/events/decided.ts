import { variantsOf, variantWords } from "../plan";
import { DECISIONS } from "../state";
import { closedTrial, trialEvent } from "./event-type";

/** What the maker makes of an option: it passed, it failed, or it is left open. */
export const decided = trialEvent({
  kind: "decided",
  version: 1,
  payload: ({ z }) => z.object({ option: z.string().min(1).max(6), verdict: z.enum(DECISIONS), why: z.string().trim().max(500).default("") }),
  validate: (state, one, plan) =>
    closedTrial(state) ?? (variantsOf(plan).includes(one.option) ? null : { field: "option", message: "This trial has no such option." }),
  apply: (state, { id, happenedAt, payload: one }) => {
    if (one.verdict === "open") delete state.decided[one.option];
    else state.decided[one.option] = { at: happenedAt, verdict: one.verdict, why: one.why, id };
  },
  describe: (one, plan) => ({
    what: `${variantWords(plan, one.option)}: ${one.verdict === "open" ? "left open" : one.verdict}`,
    ...(one.why ? { figure: one.why } : {}),
  }),
  columns: (one) => ({ what: [one.option, one.verdict, one.why].filter(Boolean).join("; ") }),
});
