import { actKind, oneStep } from "../kind";

/** Waits by the clock: at least so long, and where the wax says so no longer than that. */
export const wait = actKind({
  kind: "wait",
  verb: "wait",
  params: ({ z, seconds }) => z.object({ least: seconds, most: seconds.optional(), for: z.string().trim().max(120).optional() }),
  fields: [
    { key: "least", label: "Wait at least", is: "duration", unit: "h" },
    { key: "most", label: "at most", is: "duration", unit: "h", optional: true },
    { key: "for", label: "for", is: "words", optional: true, hint: "Like: until a film forms." },
  ],
  first: { least: 1_800 },
  steps: (act) => oneStep(act, act.for ? `wait ${act.for}` : "wait", "did", { least: act.least, ...(act.most === undefined ? {} : { most: act.most }) }),
  why: "The time counts from the step before. Go on earlier only where the wax itself says so.",
  takes: (act) => ({ minutes: Math.ceil(act.least / 60), needs: ["table"] }),
});
