import { oneStep, stepType } from "../step-type";

/** Waits by the clock: at least so long, and where the wax says so no longer than that. */
export const wait = stepType({
  kind: "wait",
  verb: "wait",
  params: ({ z, seconds }) => z.object({ least: seconds, most: seconds.optional(), for: z.string().trim().max(120).optional() }),
  fields: [
    { key: "least", label: "Wait at least", is: "duration", unit: "h" },
    { key: "most", label: "at most", is: "duration", unit: "h", optional: true },
    { key: "for", label: "for", is: "words", optional: true, hint: "Like: until a film forms." },
  ],
  first: { least: 1_800 },
  prompts: (step) =>
    oneStep(step, step.for ? `wait ${step.for}` : "wait", "stepDone", { least: step.least, ...(step.most === undefined ? {} : { most: step.most }) }),
  why: "The time counts from the step before. Go on earlier only where the wax itself says so.",
  isIdle: true,
  longest: (step) => step.most,
  fault: (step) => (step.most !== undefined && step.most < step.least ? { at: "most", says: "The longest wait cannot be shorter than the least." } : null),
  takes: (step) => ({ minutes: Math.ceil(step.least / 60), needs: ["table"] }),
});
