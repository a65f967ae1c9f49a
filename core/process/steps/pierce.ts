import { oneStep, piecesOf, stepType } from "../step-type";

/** Pokes relief holes round the wick, so that the shrinking wax does not hollow out below a closed top. */
export const pierce = stepType({
  kind: "pierce",
  verb: "pierce",
  params: ({ z }) => z.object({}),
  fields: [],
  first: {},
  prompts: (step) => oneStep(step, "pierce relief holes", "stepDone"),
  why: "Round the wick, through the film, nearly to the bottom: the second pour runs into them.",
  records: "pierced",
  takes: (_act, plan) => ({ minutes: Math.ceil(1 + piecesOf(plan) / 4), needs: ["hands", "table"] }),
});
