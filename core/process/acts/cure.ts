import { actKind, oneStep } from "../kind";

/** Cures on the shelf, dated. Tested before the least, a candle misleads; sold after the recommended. */
export const cure = actKind({
  kind: "cure",
  verb: "cure",
  params: ({ z, seconds }) => z.object({ least: seconds, recommended: seconds }),
  fields: [
    { key: "least", label: "Minimum cure", is: "duration", unit: "d" },
    { key: "recommended", label: "Recommended cure", is: "duration", unit: "d" },
  ],
  first: { least: 345_600, recommended: 1_209_600 },
  steps: (act) => oneStep(act, "cure", null, { least: act.least }),
  why: "Wax firms up as it cures, and the oil spreads evenly. A wick that floods the pool on day one may be right, or tunnel, in week two.",
  takes: () => ({ minutes: 0, needs: [] }),
});
