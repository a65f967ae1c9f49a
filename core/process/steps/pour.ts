import { oneStep, piecesOf, stepType } from "../step-type";

/** Pours a share of each fill. Of which product, where a process says so; of all otherwise. */
export const pour = stepType({
  kind: "pour",
  verb: "pour",
  params: ({ z, share, whichProduct, filledProducts }) =>
    z.object({
      share,
      /** "weight": that share of the fill's weight. "height": that share of its height, which weighs less low in a narrowing jar. */
      by: z.enum(["weight", "height"]).default("weight"),
      product: whichProduct,
      products: filledProducts,
    }),
  fields: [
    { key: "share", label: "Pour", is: "percent", hint: "Of each fill." },
    { key: "product", label: "Only product", is: "product", optional: true, hint: "Its name, or its place in the plan, like 1; empty for all." },
  ],
  first: { share: 1_000_000, by: "weight" },
  prompts: (step, plan) =>
    oneStep(step, step.share < 1_000_000 ? `pour ${Math.round(step.share / 10_000)} %` : "pour", "poured", {
      share: step.share,
      ...(plan.products.every((product) => product.container === "mold") ? { molds: true } : {}),
    }),
  why: "Slowly and without a splash; tap for bubbles. Stop a jar at the shoulder, a mold at the line. Keep some back for the top-up.",
  pours: "first",
  takes: (_act, plan) => ({ minutes: Math.ceil(2 + piecesOf(plan) / 3), needs: ["hands", "pitcher", "table"] }),
});
