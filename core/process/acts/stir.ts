import { actKind, oneStep } from "../kind";

/** Stirs by the clock. Twenty seconds to two minutes, by school; longer does no harm: common practice, no source. */
export const stir = actKind({
  kind: "stir",
  verb: "stir",
  params: ({ z, seconds }) => z.object({ seconds }),
  fields: [{ key: "seconds", label: "Stir for", is: "duration", unit: "min" }],
  first: { seconds: 120 },
  steps: (act) => oneStep(act, "stir", "stirred", { seconds: act.seconds }),
  why: "Oil that is not stirred in sinks and sweats out later. Two halves with a rest between will do. Cool oil lowers the pot: read again after.",
  takes: (act) => ({ minutes: Math.max(1, Math.ceil(act.seconds / 60)), needs: ["hands", "pitcher"] }),
});
