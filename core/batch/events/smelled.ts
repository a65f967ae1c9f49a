import { batchEvent, notPoured } from "./event-type";

/** Cold throw: how strong the candle smells unlit, by the score of the person who enters it. One person's 9 is another's 7. */
export const smelled = batchEvent({
  kind: "smelled",
  version: 1,
  payload: ({ z }) =>
    z.object({ score: z.number().min(0, "From 0 to 10.").max(10, "From 0 to 10.").multipleOf(0.5, "In halves, like 7.5."), room: z.string().trim().max(60) }),
  validate: (state) => notPoured(state, "smelled"),
  apply: (state, { id, happenedAt, personId, payload }) => {
    state.smells = [...state.smells, { eventId: id, at: happenedAt, personId, ...payload }].slice(-60);
  },
  describe: (payload) => ({ what: payload.room ? `cold throw, in the ${payload.room}` : "cold throw", figure: `${payload.score} of 10` }),
  columns: (payload) => ({ what: `cold throw ${payload.score} of 10${payload.room ? `, ${payload.room}` : ""}` }),
});
