import { releaseBlocks } from "../jars";
import { abandonedAlready, batchKind, notPoured } from "./kind";

/** Released for sale: set, cured, looked over, and burned where the product asks for it. */
export const released = batchKind({
  kind: "released",
  version: 1,
  payload: ({ z }) => z.object({ note: z.string().trim().max(300) }),
  refuse: (facts, _one, plan, at) => {
    const early = notPoured(facts, "released") ?? abandonedAlready(facts);
    if (early) return early;
    const blocks = releaseBlocks(plan, facts, at ?? facts.lastAt);
    if (blocks.length === 0) return null;
    // What is found out about cure and jars afterwards does not take a release back; that it was never inspected does.
    return { field: "kind", message: `It cannot be released yet: ${blocks.join("; ")}.`, ...(facts.lookedAt ? { advisory: true as const } : {}) };
  },
  apply: (facts, { id, happenedAt, payload }) => {
    facts.released = { eventId: id, at: happenedAt, ...(payload.note ? { note: payload.note } : {}) };
  },
  told: (one) => ({ what: "released for sale", figure: one.note }),
  columns: (one) => ({ what: one.note }),
});
