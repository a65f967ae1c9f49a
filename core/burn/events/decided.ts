import { variantsOf, variantWords } from "../plan";
import { DECISIONS } from "../state";
import { closedTrial, trialEvent } from "./event-type";

/** What the maker makes of a variant: it passed, it failed, or it is left open. */
export const decided = trialEvent({
  kind: "decided",
  version: 2,
  payload: ({ z }) => z.object({ variant: z.string().min(1).max(6), verdict: z.enum(DECISIONS), why: z.string().trim().max(500).default("") }),
  upcast: ({ option, ...old }) => ({ variant: option, ...old }),
  validate: (state, one, plan) =>
    closedTrial(state) ?? (variantsOf(plan).includes(one.variant) ? null : { field: "variant", message: "This trial has no such variant." }),
  apply: (state, { id, happenedAt, payload: one }) => {
    if (one.verdict === "open") delete state.decided[one.variant];
    else state.decided[one.variant] = { at: happenedAt, verdict: one.verdict, why: one.why, id };
  },
  describe: (one, plan) => ({
    what: `${variantWords(plan, one.variant)}: ${one.verdict === "open" ? "left open" : one.verdict}`,
    ...(one.why ? { figure: one.why } : {}),
  }),
  columns: (one) => ({ what: [one.variant, one.verdict, one.why].filter(Boolean).join("; ") }),
});
