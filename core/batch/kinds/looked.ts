import { batchKind, closedAlready, MAX_JARS } from "./kind";

/** Looked over, so many pieces. */
export const looked = batchKind({
  kind: "looked",
  version: 1,
  payload: ({ z }) => z.object({ jars: z.number().int().min(1).max(MAX_JARS) }),
  refuse: (facts) =>
    Object.keys(facts.pours).length === 0 ? { field: "kind", message: "Nothing is poured yet, so there is nothing to look over." } : closedAlready(facts),
  apply: (facts, { happenedAt }) => {
    facts.lookedAt = happenedAt;
    facts.rounds += 1;
  },
  told: (payload) => ({ what: "looked over", figure: `${payload.jars} jars` }),
  columns: (payload) => ({ what: `${payload.jars} jars` }),
});
