import { cholesky } from "../statistics/linear";
import { fTail } from "../statistics/tails";
import { type BatchSums, clusteredShare, squaredResiduals } from "./batch-sums";
import { holm, type Share } from "./proportion";

/** Batches at one level of a factor. */
export interface Level extends BatchSums {
  level: string;
}
export interface Factor {
  name: string;
  levels: readonly Level[];
}

/** What is said of a factor. */
export type Finding = "differs" | "no difference seen" | "too little to tell" | "never varied";

export interface FoundFactor {
  name: string;
  finding: Finding;
  levels: (Level & Share)[];
  /** Chance of such a difference by itself, and after Holm's adjustment for all factors that were compared; null if none was. */
  p: number | null;
  adjusted: number | null;
  /** Between the highest and the lowest share of the levels that were compared, 0 to 1; null if none was. */
  difference: number | null;
}

/** Fewer batches on either side tell nothing of a difference. */
export const MIN_BATCHES = 3;
export const MIN_PIECES = 12;
const LEVEL = 0.05;

/** Levels that are compared: those with batches enough. */
const compared = <L extends Level>(levels: readonly L[]): L[] => levels.filter((level) => level.batches >= MIN_BATCHES && level.n >= MIN_PIECES);

/**
 * Returns how likely so large a difference between levels is by chance: the score test of equal shares with a cluster-robust variance, the
 * residual of a batch being k − p·n at the common share p (White 1980 and Liang & Zeger 1986, from memory). The statistic is at most as
 * large as the number of batches, so it is held as an F in the manner of Hotelling's T²; of a rare flaw there are no more independent
 * observations than pieces with it (or without).
 */
function chanceOf(levels: readonly Level[]): number {
  const total = (of: (level: Level) => number) => levels.reduce((sum, level) => sum + of(level), 0);
  const [n, k, batches] = [total((level) => level.n), total((level) => level.k), total((level) => level.batches)];
  const share = k / n;
  const df = levels.length - 1;
  const observations = Math.min(batches, k, n - k);
  const rest = observations - 1 - df;
  if (rest < 1) return 1;
  const apart = levels.map((level) => squaredResiduals(level, share));
  const all = apart.reduce((sum, value) => sum + value, 0);
  const part = levels.map((level) => level.n / n);
  const scores = levels.slice(0, df).map((level) => level.k - share * level.n);
  const variance = scores.map((_, a) =>
    scores.map((_, b) => {
      const [fa, fb] = [part[a] as number, part[b] as number];
      return (a === b ? (apart[a] as number) : 0) - fb * (apart[a] as number) - fa * (apart[b] as number) + fa * fb * all;
    }),
  );
  const lower = cholesky(variance);
  if (!lower) return 1;
  // scores' · variance⁻¹ · scores, by forward substitution.
  const unlike: number[] = [];
  for (const [index, row] of lower.entries())
    unlike.push(((scores[index] as number) - unlike.reduce((sum, value, before) => sum + (row[before] as number) * value, 0)) / (row[index] as number));
  const statistic = unlike.reduce((sum, value) => sum + value * value, 0);
  return fTail(((rest / df) * (statistic / observations)) / Math.max(1 - statistic / batches, 1e-9), df, rest);
}

/** Returns what each factor says of a flaw; all comparisons are allowed for together, by Holm's method. */
export function findFactors(factors: readonly Factor[]): FoundFactor[] {
  const found = factors.map((factor): FoundFactor => {
    const levels = factor.levels.filter((level) => level.n > 0).map((level) => ({ ...level, ...clusteredShare(level) }));
    const enough = compared(levels);
    const plain = { name: factor.name, levels, p: null, adjusted: null, difference: null };
    if (levels.length < 2) return { ...plain, finding: "never varied" };
    if (enough.length < 2) return { ...plain, finding: "too little to tell" };
    const shares = enough.map((level) => level.share);
    return { ...plain, finding: "no difference seen", p: chanceOf(enough), difference: Math.max(...shares) - Math.min(...shares) };
  });
  const asked = found.flatMap((factor) => (factor.p === null ? [] : [factor.p]));
  const adjusted = holm(asked);
  let next = 0;
  return found.map((factor) => {
    if (factor.p === null) return factor;
    const q = adjusted[next++] as number;
    return { ...factor, adjusted: q, finding: q < LEVEL ? "differs" : "no difference seen" };
  });
}
