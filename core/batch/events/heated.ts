import { atWork, batchEvent } from "./event-type";

/** A pot put back on the heat, since it fell below its range. */
export const heated = batchEvent({
  kind: "heated",
  version: 1,
  payload: ({ z }) => z.object({ pot: z.number().int().min(0).max(7).default(0) }),
  validate: (state) => atWork(state),
  apply: (state, { happenedAt }) => {
    state.onHeat = happenedAt;
  },
  correctableField: null,
  describe: () => ({ what: "reheated" }),
  columns: () => ({}),
});
