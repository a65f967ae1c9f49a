import { oneStep, piecesOf, stepType } from "../step-type";

/** Looks over, smooths with a heat gun, trims wick and base, lids, labels. */
export const finish = stepType({
  kind: "finish",
  verb: "finish",
  params: ({ z }) => z.object({ how: z.string().trim().max(200).optional() }),
  fields: [{ key: "how", label: "Finish", is: "words", optional: true, hint: "Like: trim wick and base." }],
  first: {},
  prompts: (step) => oneStep(step, step.how ? `finish: ${step.how}` : "finish", "stepDone"),
  why: "Smooth with the heat gun, trim the wick to {6 mm|1/4 in}, lid, label with wax, wick, scent, load and date.",
  takes: (_act, plan) => ({ minutes: Math.ceil(piecesOf(plan) / 2), needs: ["hands", "table"] }),
});
