import type { Milligrams } from "../units/mass";

export const sum = (list: readonly number[]): number => {
  let all = 0;
  for (const one of list) all += one;
  return all;
};

/** The weight that so many steps of a scale show, in whole milligrams: a step in ounces is no whole number of them. */
export const markMg = (steps: number, resolutionUg: number): Milligrams => Math.round((steps * resolutionUg) / 1_000);

/** The step nearest to a weight. */
export const nearestMark = (mg: number, resolutionUg: number): number => Math.floor((mg * 1_000) / resolutionUg + 0.5);
/** The first step that is at least the weight. */
export function markUp(mg: number, resolutionUg: number): number {
  const steps = Math.ceil((mg * 1_000) / resolutionUg - 1e-9);
  return markMg(steps, resolutionUg) < mg ? steps + 1 : steps;
}
/** The last step that is at most the weight. */
export function markDown(mg: number, resolutionUg: number): number {
  const steps = Math.floor((mg * 1_000) / resolutionUg + 1e-9);
  return markMg(steps, resolutionUg) > mg ? steps - 1 : steps;
}
/** Whether a weight is one that the scale can show, to the milligram. */
export const isOnMark = (mg: Milligrams, resolutionUg: number): boolean => markMg(nearestMark(mg, resolutionUg), resolutionUg) === mg;

/** The nearest mass the scale can show; `up` takes the next one above instead. */
export const onScale = (mg: number, resolutionUg: number, up = false): Milligrams =>
  markMg(up ? Math.ceil((mg * 1_000) / resolutionUg - 1e-9) : nearestMark(mg, resolutionUg), resolutionUg);

/**
 * Shares whole steps out: each part gets its whole ones, and those left over go to the largest remainders (the method of
 * Hamilton, as used to apportion seats). They sum to `steps`. Shares are relative and above zero.
 */
export function shareSteps(steps: number, shares: readonly number[]): number[] {
  if (shares.length === 1) return [steps];
  let sum = 0;
  for (const share of shares) sum += share;
  const whole: number[] = [];
  const order: { at: number; rest: number }[] = [];
  let left = steps;
  for (let at = 0; at < shares.length; at++) {
    const exact = (steps * (shares[at] as number)) / sum;
    const floor = Math.floor(exact + 1e-9);
    whole.push(floor);
    order.push({ at, rest: exact - floor });
    left -= floor;
  }
  if (left > 0) {
    order.sort((a, b) => b.rest - a.rest || a.at - b.at);
    for (let i = 0; i < left; i++) {
      const { at } = order[i % order.length] as { at: number };
      whole[at] = (whole[at] as number) + 1;
    }
  }
  return whole;
}
