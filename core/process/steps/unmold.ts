import { oneStep, piecesOf, stepType } from "../step-type";

/** Takes the candles out of their molds, which are then free again. */
export const unmold = stepType({
  kind: "unmold",
  verb: "unmold",
  unmolds: true,
  params: ({ z }) => z.object({}),
  fields: [],
  first: {},
  prompts: (step) => oneStep(step, "unmold", "stepDone"),
  why: "It pulls away from the wall when it is ready. What sticks goes five to ten minutes into a refrigerator; knead a soft mold.",
  takes: (_act, plan) => ({ minutes: Math.ceil(1 + piecesOf(plan) / 4), needs: ["hands", "table"] }),
});
