import { oneStep, stepType } from "../step-type";

/** Leans the vessels, for a slanted layer or for gel that runs down the wall. */
export const tilt = stepType({
  kind: "tilt",
  verb: "tilt",
  params: ({ z }) => z.object({ degrees: z.number().int().min(0).max(60) }),
  fields: [{ key: "degrees", label: "Tilt by", is: "degrees", hint: "0 sets them upright again." }],
  first: { degrees: 25 },
  prompts: (step) => oneStep(step, step.degrees === 0 ? "set upright" : "tilt the vessels", "stepDone", { figure: `${step.degrees}°` }),
  why: "Lean each vessel alike, and see that none can slide. A slanted layer must be cold before it is set upright.",
  takes: () => ({ minutes: 2, needs: ["hands", "table"] }),
});
