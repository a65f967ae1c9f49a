import { actKind, oneStep } from "../kind";
import type { ActShapes } from "../shapes";

/** How far one pour fills: a share of the fill by weight, or up to a share of the fill's height (for layers of equal height). */
export const share = ({ z }: ActShapes) => z.number().int().min(1_000).max(1_000_000).default(1_000_000).describe("millionths of the fill");

/** Pours a share of each fill. Of which product, where a process says so; of all otherwise. */
export const pour = actKind({
  kind: "pour",
  verb: "pour",
  params: (shapes) =>
    shapes.z.object({
      share: share(shapes),
      /** "weight": that share of the fill's weight. "height": that share of its height, which weighs less low in a narrowing jar. */
      by: shapes.z.enum(["weight", "height"]).default("weight"),
      /** Only the product that stands here in the plan, counted from 0; all where nothing is said. */
      product: shapes.z.number().int().min(0).max(199).optional(),
    }),
  fields: [
    { key: "share", label: "Pour", is: "percent", hint: "Of each fill." },
    { key: "product", label: "Only product", is: "count", optional: true, hint: "By its place in the plan; empty for all." },
  ],
  first: { share: 1_000_000, by: "weight" },
  steps: (act) => oneStep(act, act.share < 1_000_000 ? `pour ${Math.round(act.share / 10_000)} %` : "pour", "poured", { share: act.share }),
  why: "Slowly and without a splash; tap the jar for bubbles; stop at the shoulder. Keep some back for the top-up.",
  takes: (_act, plan) => ({ minutes: Math.ceil(2 + plan.products.reduce((sum, one) => sum + one.count, 0) / 3), needs: ["hands", "pitcher", "table"] }),
});
