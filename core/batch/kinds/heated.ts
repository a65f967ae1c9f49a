import { atWork, batchKind } from "./kind";

/** A pot put back on the heat, since it fell below its range. */
export const heated = batchKind({
  kind: "heated",
  version: 1,
  payload: ({ z }) => z.object({ pot: z.number().int().min(0).max(7).default(0) }),
  refuse: (facts) => atWork(facts),
  apply: (facts, { happenedAt }) => {
    facts.onHeat = happenedAt;
  },
  told: () => ({ what: "put back on the heat" }),
  columns: () => ({}),
});
