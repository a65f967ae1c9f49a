import type { Milligrams } from "../units/mass";

export const sum = (list: readonly number[]): number => {
  let all = 0;
  for (const value of list) all += value;
  return all;
};

/** The weight that so many steps of a scale show, in whole milligrams: a step in ounces is no whole number of them. */
export const incrementMg = (steps: number, resolutionUg: number): Milligrams => Math.round((steps * resolutionUg) / 1_000);

/** Returns the step nearest to a weight. */
export const nearestIncrement = (mg: number, resolutionUg: number): number => Math.floor((mg * 1_000) / resolutionUg + 0.5);
/** Returns the number of the lowest increment that is at least the weight. */
export function incrementUp(mg: number, resolutionUg: number): number {
  const steps = Math.ceil((mg * 1_000) / resolutionUg - 1e-9);
  return incrementMg(steps, resolutionUg) < mg ? steps + 1 : steps;
}
/** The last step that is at most the weight. */
export function incrementDown(mg: number, resolutionUg: number): number {
  const steps = Math.floor((mg * 1_000) / resolutionUg + 1e-9);
  return incrementMg(steps, resolutionUg) > mg ? steps - 1 : steps;
}
/** Returns whether a weight is one that the scale can show, to the milligram. */
export const isOnIncrement = (mg: Milligrams, resolutionUg: number): boolean => incrementMg(nearestIncrement(mg, resolutionUg), resolutionUg) === mg;

/** The nearest mass the scale can show; `up` takes the next one above instead. */
export const onScale = (mg: number, resolutionUg: number, up = false): Milligrams =>
  incrementMg(up ? Math.ceil((mg * 1_000) / resolutionUg - 1e-9) : nearestIncrement(mg, resolutionUg), resolutionUg);

/**
 * Shares whole steps out: each part gets its whole ones, and those left over go to the largest remainders (the method of
 * Hamilton, as used to apportion seats). They sum to `steps`. Shares are relative and above zero.
 */
export function shareSteps(steps: number, shares: readonly number[]): number[] {
  if (shares.length === 1) return [steps];
  const all = sum(shares);
  const whole: number[] = [];
  const rests: number[] = [];
  let left = steps;
  for (const share of shares) {
    const exact = (steps * share) / all;
    const floor = Math.floor(exact + 1e-9);
    whole.push(floor);
    rests.push(exact - floor);
    left -= floor;
  }
  // Fewer are left over than there are parts: each goes to the largest remainder that has got none yet, the first of like ones.
  for (; left > 0; left--) {
    let to = 0;
    for (let at = 1; at < rests.length; at++) if ((rests[at] as number) > (rests[to] as number)) to = at;
    whole[to] = (whole[to] as number) + 1;
    rests[to] = -1;
  }
  return whole;
}

/** Shares a weight that lies on no mark: by largest remainder in steps, what is less than a step goes to the largest share. */
export function shareMg(mg: Milligrams, shares: readonly number[], resolutionUg: number): Milligrams[] {
  if (shares.length === 1) return [mg];
  const parts = shareSteps(incrementDown(mg, resolutionUg), shares).map((n) => incrementMg(n, resolutionUg));
  let largest = 0;
  for (let i = 1; i < shares.length; i++) if ((shares[i] as number) > (shares[largest] as number)) largest = i;
  parts[largest] = (parts[largest] as number) + mg - sum(parts);
  return parts;
}
