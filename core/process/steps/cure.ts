import { SECONDS } from "../../units/duration";
import { oneStep, stepType } from "../step-type";

/** Cures on the shelf, dated. Tested before the least, a candle misleads; sold after the recommended. */
export const cure = stepType({
  kind: "cure",
  verb: "cure",
  params: ({ z, seconds }) => z.object({ least: seconds, recommended: seconds }),
  fields: [
    { key: "least", label: "Minimum cure", is: "duration", unit: "d" },
    { key: "recommended", label: "Recommended cure", is: "duration", unit: "d" },
  ],
  first: { least: 345_600, recommended: 1_209_600 },
  prompts: (step) => oneStep(step, "cure", null, { least: step.least }),
  why: "Wax firms up as it cures, and the oil spreads evenly. A wick that floods the pool on day one may be right, or tunnel, in week two.",
  isIdle: true,
  afterPour: (step) => ({ leastCure: step.least, recommendedCure: step.recommended }),
  records: "cure_days",
  withValue: (step, days) => ({ ...step, recommended: Math.round(days * SECONDS.d) }),
  fault: (step) => (step.least > step.recommended ? { at: "recommended", says: "The recommended cure cannot be shorter than the minimum cure." } : null),
  takes: () => ({ minutes: 0, needs: [] }),
});
