import { batchEvent, notPoured } from "./event-type";

/** Cold throw: how strong the candle smells unlit, by the nose of the person who enters it. One person's 9 is another's 7. */
export const smelled = batchEvent({
  kind: "smelled",
  version: 1,
  payload: ({ z }) =>
    z.object({ score: z.number().min(0, "From 0 to 10.").max(10, "From 0 to 10.").multipleOf(0.5, "In halves, like 7.5."), room: z.string().trim().max(60) }),
  validate: (state) => notPoured(state, "smelled"),
  apply: (state, { id, happenedAt, personId, payload: one }) => {
    state.smells = [...state.smells, { eventId: id, at: happenedAt, personId, ...one }].slice(-60);
  },
  describe: (one) => ({ what: one.room ? `cold throw, in the ${one.room}` : "cold throw", figure: `${one.score} of 10` }),
  columns: (one) => ({ what: `cold throw ${one.score} of 10${one.room ? `, ${one.room}` : ""}` }),
});
