import { tQuantile } from "./tails";

/** Returns the mean of some values, and half of its 95 % interval by Student's t; null of fewer than two. Needs at least one value. */
export function meanInterval(values: readonly number[]): { mean: number; half: number | null } {
  const n = values.length;
  const mean = values.reduce((a, b) => a + b, 0) / n;
  if (n < 2) return { mean, half: null };
  const sd = Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (n - 1));
  return { mean, half: (tQuantile(0.975, n - 1) * sd) / Math.sqrt(n) };
}

/** Returns the mean of so many values by their sum and the sum of their squares, and half of its 95 % interval as `meanInterval` does. Needs at least one. */
export function meanIntervalOfSums({ n, sum, squares }: { n: number; sum: number; squares: number }): { mean: number; half: number | null } {
  const mean = sum / n;
  if (n < 2) return { mean, half: null };
  const variance = Math.max(0, squares - n * mean * mean) / (n - 1);
  return { mean, half: tQuantile(0.975, n - 1) * Math.sqrt(variance / n) };
}

/** Returns the middle one of some values, between the two middle ones of an even number. Needs at least one value. */
export function median(of: readonly number[]): number {
  const sorted = [...of].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length % 2 ? (sorted[middle] as number) : ((sorted[middle - 1] as number) + (sorted[middle] as number)) / 2;
}
