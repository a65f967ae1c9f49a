import { oneStep, piecesOf, stepType } from "../step-type";

/** The second pour, from what was kept back: tops up what shrank, up to the first line and not over. */
export const pourAgain = stepType({
  kind: "pour-again",
  verb: "pour again",
  params: ({ z, share, temperatureRange, whichProduct, filledProducts }) =>
    z.object({
      share,
      by: z.enum(["weight", "height"]).default("weight"),
      range: temperatureRange.optional(),
      product: whichProduct,
      products: filledProducts,
    }),
  fields: [
    { key: "share", label: "Pour again", is: "percent", hint: "Of each fill." },
    { key: "range", label: "at", is: "range", optional: true },
    { key: "product", label: "Only product", is: "product", optional: true, hint: "Its name, or its place in the plan, like 1; empty for all." },
  ],
  first: { share: 80_000, by: "weight" },
  prompts: (step) => [
    ...(step.range ? oneStep(step, "reheat what was kept", "read", { range: step.range, key: `${step.id}:range` }) : []),
    ...oneStep(step, `pour again, ${Math.round(step.share / 10_000)} %`, "poured", { share: step.share }),
  ],
  why: "Not as hot as the first pour; up to the first line and not over it.",
  heat: { range: "second pour", isForPour: true },
  pours: "again",
  takes: (_act, plan) => ({ minutes: Math.ceil(2 + piecesOf(plan) / 4), needs: ["hands", "pitcher", "table"] }),
});
