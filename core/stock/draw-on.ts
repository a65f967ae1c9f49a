import { amountsFor, type ChosenVessel } from "../batch/plan";
import type { Materials } from "../formula/materials";
import type { FormulaSpec } from "../formula/spec";

/** One way of making one jar: a formula in a vessel, with the spare that goes with it. */
export interface JarOf {
  spec: Pick<FormulaSpec, "basis" | "loadPpm" | "waxes" | "fragrances" | "additives" | "dyes">;
  vessel: Omit<ChosenVessel, "count">;
  sparePpm: number;
}

/**
 * What one jar draws from the shelf, by material: milligrams rounded up to the whole milligram, dye by the weight of its
 * drops, and the vessel as one piece. Weighing in whole grams can ask for a gram more in a batch. @throws ScaleError as `scaleFormula`.
 */
export function drawOfJar({ spec, vessel, sparePpm }: JarOf, shelf: Materials): Map<string, number> {
  // A hundred at once on a fine scale, so that a jar's share is exact to the hundredth of a milligram.
  const count = 100;
  const { components } = amountsFor(spec, shelf, { vessels: [{ ...vessel, count }], sparePpm, resolutionUg: 1_000 });
  const draws = new Map<string, number>();
  for (const part of components) {
    const mg = part.count ? (part.count.eachMg ?? 0) * part.count.n : part.mg;
    if (mg > 0) draws.set(part.id, (draws.get(part.id) ?? 0) + Math.ceil(mg / count));
  }
  draws.set(vessel.id, 1);
  return draws;
}
