import { type Mixed, mixed } from "../statistics/mixed";
import { tQuantile } from "../statistics/tails";
import { type TrialPlan, variantsOf } from "./plan";
import type { Room } from "./rooms";
import type { Rating } from "./state";

export interface ThrowVariant {
  variant: string;
  /** The mean as it was given, and how many scores. */
  mean: number;
  n: number;
  /** Against the first variant, scorers' own levels and rooms taken out, with 95 %; null for that one itself. */
  against: { value: number; low: number; high: number } | null;
}
export interface ThrowComparison {
  variants: ThrowVariant[];
  /** How much scorers differ in level, and one nose with itself: standard deviations of the score. */
  scorers: { name: string | null; level: number; n: number }[];
  between: number;
  within: number;
  /** What can be said. */
  says: string;
  told: boolean;
}

const round = (value: number) => Math.round(value * 100) / 100;

/**
 * Variants compared with one another by their scores, each scorer by its own level: a mixed model with the variant and the room as
 * they are, and a level for each scorer. Says “too little to tell” where the intervals hold no difference at all, or nothing is left to judge by.
 */
export function compareThrow(plan: Pick<TrialPlan, "testCandles">, ratings: readonly Rating[], words: (variant: string) => string): ThrowComparison | null {
  const variantOf = new Map(plan.testCandles.map((testCandle) => [testCandle.key, testCandle.variant]));
  const rows = ratings.flatMap((rating) => {
    const variant = variantOf.get(rating.testCandle);
    return variant === undefined ? [] : [{ variant, room: rating.room, nose: rating.scorer, y: rating.score }];
  });
  const variants = variantsOf(plan).filter((variant) => rows.some((row) => row.variant === variant));
  if (variants.length === 0) return null;
  const plain = variants.map((variant): ThrowVariant => {
    const mine = rows.filter((row) => row.variant === variant);
    return { variant, n: mine.length, mean: round(mine.reduce((sum, row) => sum + row.y, 0) / mine.length), against: null };
  });
  const little = (says: string): ThrowComparison => ({ variants: plain, scorers: [], between: 0, within: 0, says, told: false });
  if (variants.length < 2) return little("Only one was smelled: nothing to hold it against.");
  const rooms = [...new Set(rows.map((row) => row.room))];
  const scorers = [...new Set(rows.map((row) => row.nose))];
  const fit: Mixed | null = mixed(
    rows.map((row) => ({
      y: row.y,
      group: row.nose ?? "",
      x: [1, ...variants.slice(1).map((variant) => Number(row.variant === variant)), ...rooms.slice(1).map((room) => Number(row.room === room))],
    })),
  );
  if (!fit) return little("Too few scores to tell: have every person score every candle, in the same rooms.");
  const t = tQuantile(0.975, fit.df);
  const compared = plain.map((variant, index): ThrowVariant => {
    if (index === 0) return variant;
    const value = fit.coefficients[index] as number;
    const half = t * Math.sqrt(fit.covariance[index]?.[index] ?? 0);
    return { ...variant, against: { value: round(value), low: round(value - half), high: round(value + half) } };
  });
  const apart = compared.filter((variant) => variant.against && (variant.against.low > 0 || variant.against.high < 0));
  const first = words(variants[0] as string);
  return {
    variants: compared,
    scorers: scorers.map((name) => ({ name, level: round(fit.levels.get(name ?? "") ?? 0), n: rows.filter((row) => row.nose === name).length })),
    between: round(Math.sqrt(fit.between)),
    within: round(Math.sqrt(fit.residual)),
    told: apart.length > 0,
    says:
      apart.length === 0
        ? "Too few scores to tell: the differences are as large as those of one person at different times."
        : apart
            .map(
              (variant) =>
                `${words(variant.variant)} is ${Math.abs(variant.against?.value ?? 0)} ${(variant.against?.value ?? 0) > 0 ? "stronger" : "weaker"} than ${first} (${variant.against?.low} to ${variant.against?.high})`,
            )
            .join("; "),
  };
}

/** What to try next for a weak throw, in order. Common practice, no source. */
export const THROW_ORDER = [
  { id: "load_8", says: "load at 8 %" },
  { id: "oil", says: "a strong oil that is known to carry" },
  { id: "wax", says: "another wax" },
  { id: "vessel", says: "a larger vessel: one with little wax fills a small room only" },
  { id: "wick", says: "another wick: the series before the size" },
  { id: "load_10", says: "two points more load, up to what the wax takes" },
] as const;
/** A vessel with so much wax fills more than a small room. Common practice, no source: about 6 oz. */
export const LARGE_VESSEL_MG = 170_000;
/** So strong a throw does for a room. Common practice, no source: 7 of 10 for a small one, 8 to 9 for a large one. */
export const targetScore = (size: Room["size"]): number => (size === "large" ? 8 : 7);

/** The next of that order that was not tried yet; null if nothing is left. `sooty`: a strong oil may have to go down several steps before the soot stops. */
export function nextForThrow(record: {
  loadPpm: number;
  tried: readonly string[];
  sooty: boolean;
  cured: boolean;
  /** The most that wax and oil take, in millionths of the wax; null if it is not known. */
  maxLoadPpm?: number | null;
  /** Wax in a jar. */
  fillMg?: number;
  /** Whether the oil is strong out of the bottle; null if nobody said. */
  strongOil?: boolean | null;
}): { id: string; says: string } | null {
  if (!record.cured) return { id: "cure", says: "a longer cure first: it may only be too early" };
  if (record.sooty) return { id: "load_down", says: "less load: a strong oil may have to go down several steps before the soot stops" };
  const done = new Set<string>(record.tried);
  if (record.loadPpm >= 78_000) done.add("load_8");
  if (record.loadPpm >= 98_000 || (record.maxLoadPpm != null && record.loadPpm >= record.maxLoadPpm - 1_000)) done.add("load_10");
  if (record.maxLoadPpm != null && record.maxLoadPpm < 78_000) done.add("load_8");
  if ((record.fillMg ?? 0) > LARGE_VESSEL_MG) done.add("vessel");
  if (record.strongOil) done.add("oil");
  return THROW_ORDER.find((item) => !done.has(item.id)) ?? null;
}
