import { closedTrial, trialKind } from "./kind";

/** The codes on the jars are told: from now on everybody knows which is which. */
export const unmasked = trialKind({
  kind: "unmasked",
  version: 1,
  payload: ({ z }) => z.object({}),
  refuse: (facts) => closedTrial(facts) ?? (facts.unmasked ? { field: "kind", message: "The codes were told already." } : null),
  apply: (facts, { happenedAt }) => {
    facts.unmasked = happenedAt;
  },
  told: () => ({ what: "the codes on the jars were told" }),
  columns: () => ({ what: "unmasked" }),
});
