import { releaseBlocks } from "../jars";
import { abandonedAlready, batchEvent, notPoured } from "./event-type";

/** Released for sale: set, cured, inspected, and burned where the product asks for it. */
export const released = batchEvent({
  kind: "released",
  version: 1,
  payload: ({ z }) => z.object({ note: z.string().trim().max(300) }),
  validate: (state, _one, plan, at) => {
    const early = notPoured(state, "released") ?? abandonedAlready(state);
    if (early) return early;
    const blocks = releaseBlocks(plan, state, at ?? state.lastAt);
    if (blocks.length === 0) return null;
    // What is found out about cure and jars afterwards does not take a release back; that it was never inspected does.
    return { field: "kind", message: `It cannot be released yet: ${blocks.join("; ")}.`, ...(state.lookedAt ? { advisory: true as const } : {}) };
  },
  apply: (state, { id, happenedAt, payload }) => {
    state.released = { eventId: id, at: happenedAt, ...(payload.note ? { note: payload.note } : {}) };
  },
  describe: (payload) => ({ what: "released for sale", figure: payload.note }),
  columns: (payload) => ({ what: payload.note }),
});
