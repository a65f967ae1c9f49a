import { actKind, oneStep } from "../kind";

/** Sets the pot aside until the bubbles have risen. */
export const rest = actKind({
  kind: "rest",
  verb: "rest",
  params: ({ z, seconds }) => z.object({ seconds }),
  fields: [{ key: "seconds", label: "Rest for", is: "duration", unit: "min" }],
  first: { seconds: 300 },
  steps: (act) => oneStep(act, "set aside", "did", { least: act.seconds }),
  why: "Set aside, the bubbles of stirring rise. A lid keeps the heat.",
  takes: (act) => ({ minutes: Math.ceil(act.seconds / 60), needs: ["pitcher"] }),
});
