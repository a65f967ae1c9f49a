import { meanInterval } from "../statistics/mean";

/** One score with what the candle was made of and how old it was. */
export interface ThrowScore {
  score: number;
  throw: "cold" | "hot";
  wax: string;
  oil: string;
  /** Percent of the wax. */
  load: number | null;
  wick: string;
  /** Days from the pour to the moment it was smelled. */
  ageDays: number | null;
  scorer: string | null;
  batch: string | null;
  /** Where it was smelled; null if nobody said. */
  room: string | null;
}

/** The factors by which scores are compared, each with its name on screen. */
export const THROW_FACTORS = {
  wax: "wax",
  oil: "fragrance",
  load: "fragrance load",
  wick: "wick",
  age: "age when smelled",
} as const;
export type ThrowFactor = keyof typeof THROW_FACTORS;
export const THROW_FACTOR_NAMES = Object.keys(THROW_FACTORS) as readonly ThrowFactor[];

const AGES: [below: number, words: string][] = [
  [2, "within 2 days"],
  [7, "2 to 7 days"],
  [Number.POSITIVE_INFINITY, "a week or more"],
];

/** The level of a score at a factor; null if it is not known. */
export function levelOf(throwScore: ThrowScore, factor: ThrowFactor): string | null {
  switch (factor) {
    case "load":
      return throwScore.load === null ? null : `${Math.floor(throwScore.load / 2) * 2} to ${Math.floor(throwScore.load / 2) * 2 + 2} %`;
    case "age":
      return throwScore.ageDays === null ? null : (AGES.find(([below]) => (throwScore.ageDays as number) < below)?.[1] ?? null);
    default:
      return throwScore[factor] || null;
  }
}

export interface ThrowLevel {
  level: string;
  n: number;
  /** How many candles or batches, and how many people, the scores are of. */
  batches: number;
  scorers: number;
  mean: number;
  /** 95 %, from the means of batches, since scores of one batch hang together; null of fewer than two batches. */
  low: number | null;
  high: number | null;
}

/** Returns the mean score at each level of a factor, the highest first. Each batch counts once, by the mean of its scores: Student's t over those. */
export function throwLevels(scores: readonly ThrowScore[], factor: ThrowFactor): ThrowLevel[] {
  const levels = new Map<string, ThrowScore[]>();
  for (const score of scores) {
    const level = levelOf(score, factor);
    const mine = level === null ? undefined : levels.get(level);
    if (mine) mine.push(score);
    else if (level !== null) levels.set(level, [score]);
  }
  return [...levels]
    .map(([level, mine]): ThrowLevel => {
      const byBatch = new Map<string, number[]>();
      mine.forEach((throwScore, index) => {
        const key = throwScore.batch ?? `alone ${index}`;
        byBatch.set(key, [...(byBatch.get(key) ?? []), throwScore.score]);
      });
      const means = [...byBatch.values()].map((values) => meanInterval(values).mean);
      const { mean, half } = meanInterval(means);
      return {
        level,
        n: mine.length,
        batches: means.length,
        scorers: new Set(mine.map((throwScore) => throwScore.scorer)).size,
        mean,
        low: half === null ? null : Math.max(0, mean - half),
        high: half === null ? null : Math.min(10, mean + half),
      };
    })
    .sort((a, b) => b.mean - a.mean || (a.level < b.level ? -1 : 1));
}
