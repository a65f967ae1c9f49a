import { batchEvent, closedAlready, MAX_JARS } from "./event-type";

/** A number of pieces were inspected. */
export const inspected = batchEvent({
  kind: "inspected",
  formerName: "looked",
  version: 1,
  payload: ({ z }) => z.object({ jars: z.number().int().min(1).max(MAX_JARS) }),
  validate: (state) =>
    Object.keys(state.pours).length === 0 ? { field: "kind", message: "Nothing is poured yet, so there is nothing to inspect." } : closedAlready(state),
  apply: (state, { happenedAt }) => {
    state.lookedAt = happenedAt;
    state.rounds += 1;
  },
  describe: (payload) => ({ what: "inspected", figure: `${payload.jars} jars` }),
  columns: (payload) => ({ what: `${payload.jars} jars` }),
});
