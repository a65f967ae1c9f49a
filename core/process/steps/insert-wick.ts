import { oneStep, piecesOf, stepType } from "../step-type";

/** Puts the wick into the hole of an unmolded candle. */
export const insertWick = stepType({
  kind: "insert-wick",
  verb: "insert the wick",
  params: ({ z }) => z.object({}),
  fields: [],
  first: {},
  prompts: (step) => oneStep(step, "insert the wick", "stepDone"),
  why: "Draw the waxed wick through from the base, leave enough to trim, and close the hole with a few drops of the same wax.",
  takes: (_step, plan) => ({ minutes: Math.ceil(1 + piecesOf(plan)), needs: ["hands", "table"] }),
});
