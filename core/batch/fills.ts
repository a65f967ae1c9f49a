import { type Process, potsOf, poursOf } from "../process/process";
import { USUAL_WAX_DENSITY } from "../product/parts";
import { type Inner, levelFor, volumeTo } from "../product/section";
import { cubicMmOf } from "../units/density";
import type { Milligrams } from "../units/mass";

/** Inner measures in millimetres. */
export const innerOf = (body: { innerTopUm: number; innerBottomUm: number; heightUm: number; shape?: "straight" | "bowl" | undefined }): Inner => ({
  top: body.innerTopUm / 1_000,
  bottom: body.innerBottomUm / 1_000,
  height: body.heightUm / 1_000,
  shape: body.shape ?? ("straight" as const),
});

/**
 * What of one piece each pour fills, by the act's id: in their order, by weight or by height. They sum to the fill. In a
 * narrowing jar a lower layer of equal height weighs less.
 */
export function fillsByPour(process: Pick<Process, "acts">, inner: Inner, fillMg: Milligrams, product: number): Map<string, Milligrams> {
  const pours = poursOf(process.acts).filter((act) => act.product === undefined || act.product === product);
  const level = levelFor(inner, cubicMmOf(fillMg, USUAL_WAX_DENSITY));
  const whole = volumeTo(inner, level);
  const out = new Map<string, Milligrams>();
  let share = 0;
  let given = 0;
  pours.forEach((act, at) => {
    share = Math.min(1, share + act.share / 1_000_000);
    // The last pour fills it up, so that thirds written in percent leave nothing open.
    const last = at === pours.length - 1 && share > 0.998;
    const upTo = last ? fillMg : act.by === "height" ? Math.round((fillMg * volumeTo(inner, level * share)) / whole) : Math.round(fillMg * share);
    out.set(act.id, Math.max(0, upTo - given));
    given = Math.max(given, upTo);
  });
  return out;
}

/** What of one piece comes from each pot: the sums of its pours. */
export function fillsByPot(process: Pick<Process, "acts">, inner: Inner, fillMg: Milligrams, product: number): Milligrams[] {
  const pots = new Array<number>(potsOf(process.acts)).fill(0);
  const by = fillsByPour(process, inner, fillMg, product);
  for (const act of poursOf(process.acts)) pots[act.pot ?? 0] = (pots[act.pot ?? 0] as number) + (by.get(act.id) ?? 0);
  return pots;
}
