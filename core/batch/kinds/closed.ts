import { batchKind, closedAlready } from "./kind";

/** The record closed, with what it lacked then. */
export const closed = batchKind({
  kind: "closed",
  version: 1,
  payload: ({ z }) => z.object({ missing: z.array(z.string().max(200)).max(200) }),
  refuse: (facts) => closedAlready(facts),
  apply: (facts, { id, happenedAt, payload }) => {
    facts.closed = { at: happenedAt, missing: payload.missing, eventId: id };
  },
  told: (payload) => ({ what: payload.missing.length ? `closed, without: ${payload.missing.join(", ")}` : "closed, complete" }),
  columns: (payload) => ({ what: payload.missing.join(", ") }),
});
