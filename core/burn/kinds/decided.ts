import { DECISIONS } from "../facts";
import { optionsOf, optionWords } from "../plan";
import { closedTrial, trialKind } from "./kind";

/** What the maker makes of an option: it passed, it failed, or it is left open. */
export const decided = trialKind({
  kind: "decided",
  version: 1,
  payload: ({ z }) => z.object({ option: z.string().min(1).max(6), verdict: z.enum(DECISIONS), why: z.string().trim().max(500).default("") }),
  refuse: (facts, one, plan) =>
    closedTrial(facts) ?? (optionsOf(plan).includes(one.option) ? null : { field: "option", message: "This trial has no such option." }),
  apply: (facts, { id, happenedAt, payload: one }) => {
    if (one.verdict === "open") delete facts.decided[one.option];
    else facts.decided[one.option] = { at: happenedAt, verdict: one.verdict, why: one.why, id };
  },
  told: (one, plan) => ({
    what: `${optionWords(plan, one.option)}: ${one.verdict === "open" ? "left open" : one.verdict}`,
    ...(one.why ? { figure: one.why } : {}),
  }),
  columns: (one) => ({ what: [one.option, one.verdict, one.why].filter(Boolean).join("; ") }),
});
