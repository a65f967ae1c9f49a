import { tQuantile } from "../statistics/tails";
import { type Share, wilson, Z95 } from "./proportion";

/**
 * Sums over batches, of n pieces a batch of which k have a flaw. Pieces of one batch are alike, so that a share is judged by how batches
 * differ, not by how single pieces would. One pass over the batches gives them.
 */
export interface BatchSums {
  batches: number;
  /** Σn and Σk. */
  n: number;
  k: number;
  /** Σk², Σk·n, Σn² and Σn³. */
  kk: number;
  kn: number;
  nn: number;
  nnn: number;
}

export const NO_BATCHES: BatchSums = { batches: 0, n: 0, k: 0, kk: 0, kn: 0, nn: 0, nnn: 0 };

/** Returns the sums with one batch more. */
export const withBatch = (sums: BatchSums, n: number, k: number): BatchSums => ({
  batches: sums.batches + 1,
  n: sums.n + n,
  k: sums.k + k,
  kk: sums.kk + k * k,
  kn: sums.kn + k * n,
  nn: sums.nn + n * n,
  nnn: sums.nnn + n ** 3,
});

export const sumsOf = (batches: readonly { n: number; k: number }[]): BatchSums =>
  batches.reduce<BatchSums>((sums, item) => withBatch(sums, item.n, item.k), NO_BATCHES);

/** Σ(k − p·n)² over the batches: how far they lie from a share p, in pieces squared. */
export const squaredResiduals = (sums: Pick<BatchSums, "kk" | "kn" | "nn">, p: number): number => Math.max(0, sums.kk - 2 * p * sums.kn + p * p * sums.nn);

/** Of how many batches of one size a mean would be as sure: (Σn)² / Σn² (Kish 1965, Survey Sampling, 11.2; from memory). */
export const effectiveBatches = (sums: Pick<BatchSums, "n" | "nn">): number => (sums.nn > 0 ? (sums.n * sums.n) / sums.nn : 0);

/**
 * Returns a share with its 95 % interval, from batches of any sizes: Wilson's interval, widened by how much more the share of pieces varies than
 * it would if every piece were on its own. That variance is the ratio estimator's, Σ(k − p·n)² / (Σn)² (Cochran 1977, Sampling Techniques,
 * 6.3; from memory), corrected for the weight that each batch has in the share itself; Student's t with the effective batches less one
 * takes the place of the normal quantile. @throws RangeError if there are no pieces
 */
export function clusteredShare(sums: BatchSums): Share {
  const { n, k, nn, nnn } = sums;
  const p = k / n;
  const effective = effectiveBatches(sums);
  // One batch, or a flaw on none or on all, tells nothing of how batches differ.
  if (effective < 1.001 || k <= 0 || k >= n) return wilson(Math.min(k, n), n);
  const own = 1 - (2 * nnn) / (n * nn) + nn / (n * n);
  const ratio = squaredResiduals(sums, p) / own / (n * p * (1 - p));
  return wilson(k, n, Math.max(1, ratio * (tQuantile(0.975, Math.max(1, effective - 1)) / Z95) ** 2));
}
