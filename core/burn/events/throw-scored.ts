import { type Rating, THROWS } from "../state";
import { notThere, trialEvent, upcastTestCandleKey } from "./event-type";

/** How strong one candle smells, alone in its room, by the score of the person who enters it. One person's 9 is another's 7. */
export const throwScored = trialEvent({
  kind: "throwScored",
  formerName: "rated",
  version: 2,
  payload: ({ z, testCandleKey }) =>
    z.object({
      testCandle: testCandleKey,
      throw: z.enum(THROWS),
      room: z.string().trim().min(1, "Enter the room.").max(60),
      score: z.number().min(0, "From 0 to 10.").max(10, "From 0 to 10.").multipleOf(0.5, "In halves, like 7.5."),
      reachUm: z.number().int().min(0).max(50_000_000, "This distance is out of range.").optional(),
      window: z.boolean().optional().describe("whether one was open"),
    }),
  upcast: upcastTestCandleKey,
  validate: (state, payload) => notThere(state, payload.testCandle),
  apply: (state, { id, happenedAt, personId, payload }) => {
    const rating: Rating = { id, at: happenedAt, scorer: personId, blind: state.codesRevealedAt === null, ...payload };
    state.ratings = [...state.ratings, rating].slice(-400);
  },
  describe: (payload) => ({ what: `${payload.testCandle}: ${payload.throw} throw in the ${payload.room}`, figure: `${payload.score} of 10` }),
  columns: (payload) => ({
    what: `${payload.testCandle}; ${payload.throw}; ${payload.room}; ${payload.score} of 10${payload.window === undefined ? "" : payload.window ? "; window open" : "; window shut"}`,
  }),
});
