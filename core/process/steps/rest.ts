import { oneStep, stepType } from "../step-type";

/** Sets the pot aside until the bubbles have risen. */
export const rest = stepType({
  kind: "rest",
  verb: "rest",
  params: ({ z, seconds }) => z.object({ seconds }),
  fields: [{ key: "seconds", label: "Rest for", is: "duration", unit: "min" }],
  first: { seconds: 300 },
  prompts: (step) => oneStep(step, "set aside", "stepDone", { least: step.seconds }),
  why: "Set aside, the bubbles of stirring rise. A lid keeps the heat.",
  isIdle: true,
  takes: (step) => ({ minutes: Math.ceil(step.seconds / 60), needs: ["pitcher"] }),
});
