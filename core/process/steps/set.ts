import { oneStep, stepType } from "../step-type";

/** Leaves the candles unmoved until they have set. The clock does it. */
export const set = stepType({
  kind: "set",
  verb: "set",
  params: ({ z, seconds }) => z.object({ seconds }),
  fields: [{ key: "seconds", label: "Set for", is: "duration", unit: "h" }],
  first: { seconds: 86_400 },
  prompts: (step) => oneStep(step, "set", null, { least: step.seconds }),
  why: "Unmoved, out of sun and draft, spaced evenly: what matters is the same cooling all round each jar.",
  isIdle: true,
  afterPour: (step) => ({ set: step.seconds }),
  takes: (step) => ({ minutes: Math.ceil(step.seconds / 60), needs: ["table"] }),
});
