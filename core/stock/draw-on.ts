import { type ChosenProduct, type PlanOrder, workOut } from "../batch/planning";
import { isPouring } from "../process/process";
import type { Materials } from "../recipe/materials";
import type { FormulaSpec } from "../recipe/schema";

/** A formula in a container with its spare: what one piece of a product is made of. */
export interface PieceOf {
  spec: FormulaSpec;
  vessel: Omit<ChosenProduct, "count">;
  sparePpm: number;
}

/** A scale of a milligram, where exact shares are wanted and nothing is weighed. */
const EXACT = { id: null, name: "", resolutionUg: 1_000 };

/**
 * Returns what one piece draws from the shelf, by material: milligrams rounded up to the whole milligram, dye by the weight of its
 * drops, its vessel as one piece, its wicks and what is laid in. Weighing on marks can ask for a mark more in a batch. @throws WeighOutError as `weighOut`.
 */
export function drawOfPiece({ spec, vessel, sparePpm }: PieceOf, shelf: Materials): Map<string, number> {
  // A hundred at once on a fine scale, so that a piece's share is exact to the hundredth of a milligram.
  const count = 100;
  const steps = spec.process.steps.filter((step) => (step.pot ?? 0) === 0 && !isPouring(step));
  const process = { ...spec.process, steps: [...steps, { id: "all", kind: "pour" as const, share: 1_000_000, by: "weight" as const }] };
  const order: PlanOrder = { process, pots: [{ name: "", number: 1, spec }], products: [{ ...vessel, count }], sparePpm, scales: { wax: EXACT, oil: EXACT } };
  const draws = new Map<string, number>();
  const add = (id: string, amount: number) => draws.set(id, (draws.get(id) ?? 0) + amount);
  for (const part of workOut(order, shelf).pots[0]?.components ?? []) {
    const mg = part.count ? (part.count.eachMg ?? 0) * part.count.n : part.mg;
    if (mg > 0) add(part.id, Math.ceil(mg / count));
  }
  if (vessel.container !== "mold") add(vessel.id, 1);
  if (vessel.chosenWicks) add(vessel.chosenWicks.wickId, vessel.chosenWicks.count);
  for (const embed of vessel.embeds ?? []) add(embed.embedId, embed.count);
  return draws;
}
