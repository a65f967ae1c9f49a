import { oneStep, stepType } from "../step-type";

/** Puts a mold into a refrigerator for some minutes, so that the candle lets go of it. Five to ten minutes: common practice, no source. */
export const refrigerate = stepType({
  kind: "refrigerate",
  verb: "refrigerate",
  params: ({ z, seconds }) => z.object({ least: seconds, most: seconds.optional() }),
  fields: [
    { key: "least", label: "Refrigerate for", is: "duration", unit: "min" },
    { key: "most", label: "at most", is: "duration", unit: "min", optional: true },
  ],
  first: { least: 300, most: 600 },
  prompts: (step) => oneStep(step, "refrigerate", "stepDone", { least: step.least, ...(step.most === undefined ? {} : { most: step.most }) }),
  why: "Only for what sticks: some minutes in the cold, then knead the walls and the base of a soft mold. Too long in the cold cracks the wax.",
  isIdle: true,
  longest: (step) => step.most,
  fault: (step) => (step.most !== undefined && step.most < step.least ? { at: "most", says: "The longest time cannot be shorter than the least." } : null),
  takes: (step) => ({ minutes: Math.ceil(step.least / 60), needs: [] }),
});
