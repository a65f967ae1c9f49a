import type { Milligrams } from "../quantity/mass";

/**
 * Shares a weight out on the marks of a scale: each part gets its whole steps, the steps left over go to the largest
 * remainders (the method of Hamilton, as used to apportion seats), and what is less than a step goes to the largest
 * share. The parts sum to the whole exactly, and none is off its exact share by a whole step but the largest.
 * Shares are relative; they must be above zero. `resolutionUg` is one step, in micrograms.
 */
export function shareOut(totalMg: Milligrams, shares: readonly number[], resolutionUg: number): Milligrams[] {
  if (shares.length === 1) return [totalMg];
  let sum = 0;
  let largest = 0;
  for (let i = 0; i < shares.length; i++) {
    sum += shares[i] as number;
    if ((shares[i] as number) > (shares[largest] as number)) largest = i;
  }
  const steps = (totalMg * 1_000) / resolutionUg;
  let left = Math.floor(steps + 1e-9);
  const whole: number[] = [];
  const rest: number[] = [];
  for (const share of shares) {
    const exact = (steps * share) / sum;
    const floor = Math.floor(exact + 1e-9);
    whole.push(floor);
    rest.push(exact - floor);
    left -= floor;
  }
  for (; left > 0; left--) {
    let next = 0;
    for (let i = 1; i < rest.length; i++) if ((rest[i] as number) > (rest[next] as number) + 1e-12) next = i;
    whole[next] = (whole[next] as number) + 1;
    rest[next] = (rest[next] as number) - 1;
  }
  let given = 0;
  const parts = whole.map((count) => {
    const mg = Math.round((count * resolutionUg) / 1_000);
    given += mg;
    return mg;
  });
  parts[largest] = (parts[largest] as number) + totalMg - given;
  return parts;
}
