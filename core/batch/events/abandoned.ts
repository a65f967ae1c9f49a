import { LARGEST_MASS_MG } from "../../units/mass";
import { atWork, batchEvent } from "./event-type";

/**
 * A batch was abandoned: the reason, and where its wax went. What was weighed stays drawn from stock; wax that is kept is recorded by its
 * weight.
 */
export const abandoned = batchEvent({
  kind: "abandoned",
  version: 1,
  payload: ({ z }) =>
    z.object({
      why: z.string().trim().max(500),
      wax: z.enum(["kept", "thrown away"], { error: "Say what became of the wax." }),
      mg: z.number().int().min(1).max(LARGEST_MASS_MG).nullable(),
    }),
  validate: (state) => atWork(state),
  apply: (state, { id, happenedAt, payload }) => {
    state.abandoned = { at: happenedAt, ...payload, eventId: id };
  },
  describe: (payload, _plan, say) => ({
    what: `abandoned${payload.why ? `: ${payload.why}` : ""}; the wax was ${payload.wax}`,
    figure: payload.mg === null ? "" : say.g(payload.mg),
  }),
  columns: (payload) => ({ what: `${payload.wax}${payload.why ? `: ${payload.why}` : ""}`, ...(payload.mg === null ? {} : { grams: payload.mg / 1_000 }) }),
});
