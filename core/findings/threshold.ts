import { type BatchSums, NO_BATCHES } from "./batch-sums";
import { findFactors } from "./factors";
import type { Dose } from "./logistic";

/** Where a number divides batches with a flaw from those without. */
export interface Threshold {
  /** The largest value on the lower side. */
  at: number;
  worse: "above" | "below";
  /** Pieces with the flaw, and all of them, on the worse side and on the other. */
  flawed: number;
  of: number;
  otherFlawed: number;
  otherOf: number;
  /** The chance of such a difference by itself, allowing for all values that were tried. */
  p: number;
}

const added = (a: BatchSums, b: BatchSums): BatchSums => ({
  ...{ batches: a.batches + b.batches, n: a.n + b.n, k: a.k + b.k },
  ...{ kk: a.kk + b.kk, kn: a.kn + b.kn, nn: a.nn + b.nn, nnn: a.nnn + b.nnn },
});

/**
 * Returns the value above and below which a flaw's rate differs most clearly; null where no division is told from chance. Every value that divides the
 * batches is tried, and Holm's method allows for all of them; of those that differ, the one with the smallest chance is taken, then the larger difference.
 */
export function thresholdOf(doses: readonly Required<Dose>[]): Threshold | null {
  const sorted = [...doses].sort((a, b) => a.x - b.x);
  const divisions = sorted.slice(0, -1).map((dose, index) => ({
    at: dose.x,
    below: sorted.slice(0, index + 1).reduce<BatchSums>(added, NO_BATCHES),
    above: sorted.slice(index + 1).reduce<BatchSums>(added, NO_BATCHES),
  }));
  const factors = divisions.map(({ below, above }, index) => ({
    name: String(index),
    levels: [
      { level: "below", ...below },
      { level: "above", ...above },
    ],
  }));
  const [best] = findFactors(factors)
    .filter((factor) => factor.finding === "differs")
    .sort((a, b) => (a.p ?? 1) - (b.p ?? 1) || (b.difference ?? 0) - (a.difference ?? 0));
  const division = best && divisions[Number(best.name)];
  if (!best || !division) return null;
  const { at, below, above } = division;
  const isWorseAbove = above.k / above.n > below.k / below.n;
  const [worse, other] = isWorseAbove ? [above, below] : [below, above];
  return {
    ...{ at, worse: isWorseAbove ? "above" : "below", flawed: worse.k, of: worse.n, otherFlawed: other.k, otherOf: other.n },
    p: best.adjusted ?? best.p ?? 1,
  };
}
