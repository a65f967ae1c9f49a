import { oneStep, stepType } from "../step-type";

/**
 * Holds the pot inside a range for a time, so that wax that is poured cool sets evenly. How hot and how long differs from wax to
 * wax: the supplier's sheet comes first. Common practice, no source.
 */
export const temper = stepType({
  kind: "temper",
  verb: "temper",
  params: ({ z, seconds, temperatureRange }) => z.object({ range: temperatureRange, seconds }),
  fields: [
    { key: "range", label: "Hold at", is: "range" },
    { key: "seconds", label: "for", is: "duration", unit: "min" },
  ],
  first: { range: { low: 4_500, high: 5_000 }, seconds: 600 },
  prompts: (step) => [
    ...oneStep(step, "bring to the temper range", "read", { range: step.range }),
    ...oneStep(step, "hold in the temper range", "stepDone", { key: `${step.id}:hold`, range: step.range, least: step.seconds }),
  ],
  why: "Stir slowly and read often. The time counts from the first reading inside the range; a pot that leaves it begins anew.",
  caution: "Warm it gently, over hot water, and never leave it. Follow the supplier's sheet.",
  heat: { range: "temper", isForPour: true, isHeld: true },
  records: "pour_c",
  joins: ["pour", "pour-again"],
  takes: (step) => ({ minutes: 1 + Math.ceil(step.seconds / 60), needs: ["hands", "burner", "pitcher"] }),
});
