import { oneStep, piecesOf, stepType } from "../step-type";

/** Makes the hole for the wick while the candle is firm but still warm: with a needle, from the base. Common practice, no source. */
export const wickHole = stepType({
  kind: "wick-hole",
  verb: "make the wick hole",
  params: ({ z }) => z.object({}),
  fields: [],
  first: {},
  prompts: (step) => oneStep(step, "make the wick hole", "stepDone"),
  why: "Push a needle straight through the middle while the wax is firm and still warm, about two hours after the pour. Turn it as you draw it out.",
  takes: (_step, plan) => ({ minutes: Math.ceil(1 + piecesOf(plan) / 2), needs: ["hands", "table"] }),
});
