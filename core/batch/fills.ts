import { fillsProduct, potsOf, poursOf } from "../process/process";
import type { Process } from "../process/schema";
import { DEFAULT_WAX_DENSITY } from "../product/parts";
import { type Inner, levelFor, volumeTo } from "../product/section";
import { cubicMmOf } from "../units/density";
import type { Milligrams } from "../units/mass";

/**
 * Returns what of one piece each pour fills, by the step's id: in their order, by weight or by height. They sum to the fill. In a
 * narrowing jar a lower layer of equal height weighs less.
 */
export function fillsByPour(process: Pick<Process, "steps">, inner: Inner, fillMg: Milligrams, product: number): Map<string, Milligrams> {
  const pours = poursOf(process.steps).filter((step) => fillsProduct(step, product));
  const level = levelFor(inner, cubicMmOf(fillMg, DEFAULT_WAX_DENSITY));
  const whole = volumeTo(inner, level);
  const out = new Map<string, Milligrams>();
  let share = 0;
  let given = 0;
  pours.forEach((step, index) => {
    share = Math.min(1, share + step.share / 1_000_000);
    // The last pour fills it up, so that thirds written in percent leave nothing open.
    const last = index === pours.length - 1 && share > 0.998;
    const upTo = last ? fillMg : step.by === "height" ? Math.round((fillMg * volumeTo(inner, level * share)) / whole) : Math.round(fillMg * share);
    out.set(step.id, Math.max(0, upTo - given));
    given = Math.max(given, upTo);
  });
  return out;
}

/** Returns what of one piece comes from each pot: the sums of its pours. */
export function fillsByPot(process: Pick<Process, "steps">, inner: Inner, fillMg: Milligrams, product: number): Milligrams[] {
  const pots = new Array<number>(potsOf(process.steps)).fill(0);
  const by = fillsByPour(process, inner, fillMg, product);
  for (const step of poursOf(process.steps)) pots[step.pot ?? 0] = (pots[step.pot ?? 0] as number) + (by.get(step.id) ?? 0);
  return pots;
}
