import { temperatureInBoth } from "../../units/measured-text";
import { batchEvent, notPoured } from "./event-type";

/** The room temperature where the jars stand, read by hand or from a logger's file. */
export const room = batchEvent({
  kind: "room",
  version: 1,
  payload: ({ z }) => {
    const centi = z.number().int().min(-5_000).max(10_000);
    return z
      .object({ mean: centi, low: centi, high: centi, readings: z.number().int().min(1).max(10_000_000) })
      .refine((item) => item.low <= item.mean && item.mean <= item.high, { path: ["mean"], message: "The mean lies between the least and the most." });
  },
  validate: (state) => notPoured(state, "set in a room"),
  apply: (state, { happenedAt, payload }) => {
    state.rooms = [...state.rooms, { at: happenedAt, ...payload }].slice(-60);
  },
  describe: (payload, _plan, say) => ({
    what: payload.readings > 1 ? `room, ${payload.readings} readings of a logger` : "room",
    figure: payload.readings > 1 ? `${say.t(payload.mean)} (${say.t(payload.low)} to ${say.t(payload.high)})` : say.t(payload.mean),
  }),
  columns: (payload) => ({ what: `room ${temperatureInBoth(payload.low)} to ${temperatureInBoth(payload.high)}, mean ${temperatureInBoth(payload.mean)}` }),
});
