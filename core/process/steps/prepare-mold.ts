import { oneStep, piecesOf, stepType } from "../step-type";

/** Prepares the molds before anything is poured into them: wick threaded, hole sealed, a plate under each, tried with water. Common practice, no source. */
export const prepareMold = stepType({
  kind: "prepare-mold",
  verb: "prepare the molds",
  params: ({ z }) => z.object({}),
  fields: [],
  first: {},
  prompts: (step) => oneStep(step, "prepare the molds", "stepDone"),
  why: "Thread the wick and pull it straight, not tight. Seal its hole with putty and tape. Set each mold on a plate. Fill it with water, wait a few minutes, look for leaks, and dry it completely.",
  caution: "A mold that leaks spills hot wax: never pour into one that you have not tried. No water may be left in it.",
  takes: (_step, plan) => ({ minutes: Math.ceil(2 + 3 * piecesOf(plan)), needs: ["hands", "table"] }),
});
