import { batchEvent, notPoured } from "./event-type";

/** How warm the room was where the jars stand: read by hand, or what a logger's file says of it. */
export const room = batchEvent({
  kind: "room",
  version: 1,
  payload: ({ z }) => {
    const centi = z.number().int().min(-5_000).max(10_000);
    return z
      .object({ mean: centi, low: centi, high: centi, readings: z.number().int().min(1).max(10_000_000) })
      .refine((one) => one.low <= one.mean && one.mean <= one.high, { path: ["mean"], message: "The mean lies between the least and the most." });
  },
  validate: (state) => notPoured(state, "set in a room"),
  apply: (state, { happenedAt, payload: one }) => {
    state.rooms = [...state.rooms, { at: happenedAt, ...one }].slice(-60);
  },
  describe: (one, _plan, say) => ({
    what: one.readings > 1 ? `room, ${one.readings} readings of a logger` : "room",
    figure: one.readings > 1 ? `${say.t(one.mean)} (${say.t(one.low)} to ${say.t(one.high)})` : say.t(one.mean),
  }),
  columns: (one) => ({ what: `room ${one.low / 100} to ${one.high / 100} °C, mean ${one.mean / 100} °C` }),
});
