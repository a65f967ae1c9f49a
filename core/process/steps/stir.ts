import { oneStep, stepType } from "../step-type";

/** Stirs by the clock. Twenty seconds to two minutes, by school; longer does no harm: common practice, no source. */
export const stir = stepType({
  kind: "stir",
  verb: "stir",
  params: ({ z, seconds }) => z.object({ seconds }),
  fields: [{ key: "seconds", label: "Stir for", is: "duration", unit: "min" }],
  first: { seconds: 120 },
  prompts: (step) => oneStep(step, "stir", "stirred", { seconds: step.seconds }),
  why: "Oil that is not stirred in sinks and sweats out later. Two halves with a rest between will do. Cool oil lowers the pot: read again after.",
  records: "stir_minutes",
  withValue: (step, minutes) => ({ ...step, seconds: Math.round(minutes * 60) }),
  done: "stirred",
  takes: (step) => ({ minutes: Math.max(1, Math.ceil(step.seconds / 60)), needs: ["hands", "pitcher"] }),
});
