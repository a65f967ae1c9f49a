import { actKind, oneStep } from "../kind";

/** Leaves the candles unmoved until they have set. The clock does it. */
export const set = actKind({
  kind: "set",
  verb: "set",
  params: ({ z, seconds }) => z.object({ seconds }),
  fields: [{ key: "seconds", label: "Set for", is: "duration", unit: "h" }],
  first: { seconds: 86_400 },
  steps: (act) => oneStep(act, "set", null, { least: act.seconds }),
  why: "Unmoved, out of sun and draught, spaced evenly: what matters is the same cooling all round each jar.",
  takes: (act) => ({ minutes: Math.ceil(act.seconds / 60), needs: ["table"] }),
});
