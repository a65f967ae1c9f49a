import { batchEvent, closedAlready } from "./event-type";

/** The record was closed, with a list of what was missing from it then. */
export const closed = batchEvent({
  kind: "closed",
  version: 1,
  payload: ({ z }) => z.object({ missing: z.array(z.string().max(200)).max(200) }),
  validate: (state) => closedAlready(state),
  apply: (state, { id, happenedAt, payload }) => {
    state.closed = { at: happenedAt, missing: payload.missing, eventId: id };
  },
  describe: (payload) => ({ what: payload.missing.length ? `closed, without: ${payload.missing.join(", ")}` : "closed, complete" }),
  columns: (payload) => ({ what: payload.missing.join(", ") }),
});
