import { fTail } from "../statistics/tails";
import { holm, type Share, wilson } from "./proportion";

/** Batches at one level of a factor: pieces, pieces with the flaw, and k² / n summed over the batches. */
export interface Level {
  level: string;
  batches: number;
  n: number;
  k: number;
  kk: number;
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
  /** Chance of such a difference by itself, and after Holm's adjustment for all factors that were compared; null where none was. */
  p: number | null;
  adjusted: number | null;
  spread: number;
}

/** Fewer batches on either side tell nothing of a difference. */
export const LEAST_BATCHES = 3;
export const LEAST_PIECES = 12;
const LEVEL = 0.05;

/** Levels that are compared: those with batches enough. */
const compared = (levels: readonly Level[]) => levels.filter((one) => one.batches >= LEAST_BATCHES && one.n >= LEAST_PIECES);

/**
 * By how much batches differ within a level more than single pieces would: Pearson's χ² over its degrees of freedom, at least 1
 * (McCullagh & Nelder 1989, overdispersion).
 */
export function spreadOf(levels: readonly Level[]): number {
  let [sum, df] = [0, 0];
  for (const one of levels) {
    const share = one.k / one.n;
    if (one.batches < 2) continue;
    df += one.batches - 1;
    if (share > 0 && share < 1) sum += (one.kk - 2 * share * one.k + share * share * one.n) / (share * (1 - share));
  }
  return df > 0 ? Math.max(1, sum / df) : 1;
}

/** Whether a share differs between levels: Pearson's χ² of homogeneity, held as an F against how batches differ within a level. */
function chanceOf(levels: readonly Level[], spread: number): number {
  const n = levels.reduce((sum, one) => sum + one.n, 0);
  const k = levels.reduce((sum, one) => sum + one.k, 0);
  const share = k / n;
  if (k === 0 || k === n) return 1;
  const x = levels.reduce((sum, one) => sum + (one.k - one.n * share) ** 2 / (one.n * share * (1 - share)), 0);
  const within = levels.reduce((sum, one) => sum + one.batches - 1, 0);
  return fTail(x / (levels.length - 1) / spread, levels.length - 1, Math.max(1, within));
}

/** What each factor says of a flaw; all comparisons are allowed for together, by Holm's method. */
export function findFactors(factors: readonly Factor[]): FoundFactor[] {
  const found = factors.map((one): FoundFactor & { raw: number | null } => {
    const levels = one.levels.filter((level) => level.n > 0);
    const spread = spreadOf(levels);
    const shares = levels.map((level) => ({ ...level, ...wilson(Math.min(level.k, level.n), level.n, spread) }));
    const enough = compared(levels);
    const plain = { name: one.name, levels: shares, spread, p: null, adjusted: null, raw: null };
    if (levels.length < 2) return { ...plain, finding: "never varied" };
    if (enough.length < 2) return { ...plain, finding: "too little to tell" };
    const p = chanceOf(enough, spreadOf(enough));
    return { ...plain, finding: "no difference seen", p, raw: p };
  });
  const asked = found.filter((one) => one.raw !== null);
  const adjusted = holm(asked.map((one) => one.raw as number));
  return found.map(({ raw, ...one }) => {
    if (raw === null) return one;
    const q = adjusted[asked.findIndex((other) => other.name === one.name)] as number;
    return { ...one, adjusted: q, finding: q < LEVEL ? "differs" : "no difference seen" };
  });
}
