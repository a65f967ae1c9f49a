import { renameKeys } from "../../log/stored";
import { variantsOf, variantWords } from "../plan";
import { DECISIONS } from "../state";
import { closedTrial, trialEvent } from "./event-type";

/** The maker's decision on a variant: passed, failed, or left open. */
export const decided = trialEvent({
  kind: "decided",
  version: 2,
  payload: ({ z }) => z.object({ variant: z.string().min(1).max(6), verdict: z.enum(DECISIONS), why: z.string().trim().max(500).default("") }),
  upcast: renameKeys({ option: "variant" }),
  validate: (state, payload, plan) =>
    closedTrial(state) ?? (variantsOf(plan).includes(payload.variant) ? null : { field: "variant", message: "This trial has no such variant." }),
  apply: (state, { id, happenedAt, payload }) => {
    if (payload.verdict === "open") delete state.decided[payload.variant];
    else state.decided[payload.variant] = { at: happenedAt, verdict: payload.verdict, why: payload.why, id };
  },
  describe: (payload, plan) => ({
    what: `${variantWords(plan, payload.variant)}: ${payload.verdict === "open" ? "left open" : payload.verdict}`,
    ...(payload.why ? { figure: payload.why } : {}),
  }),
  columns: (payload) => ({ what: [payload.variant, payload.verdict, payload.why].filter(Boolean).join("; ") }),
});
