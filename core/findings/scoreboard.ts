import { grouped } from "../grouped";
import { meanIntervalOfSums } from "../statistics/mean";
import { mixedOfCells } from "../statistics/mixed";
import { tQuantile } from "../statistics/tails";

/** What one person scored of a wax. A batch counts once, by the mean of that person's scores of it, since they hang together. */
export interface ScorerSums {
  /** Empty where nobody was named. */
  scorer: string;
  /** Batches, the sum of their means, and the sum of the squares of these. */
  n: number;
  sum: number;
  squares: number;
}

/** The scores of one wax. */
export interface WaxScores {
  wax: string;
  /** Batches, whoever scored them. */
  batches: number;
  scores: number;
  scorers: readonly ScorerSums[];
}

/** One score of a wax, and the batch it was of. */
export interface BatchScore {
  wax: string;
  batch: string;
  /** Null where nobody was named. */
  scorer: string | null;
  score: number;
}

/** Returns scores summed up by wax and scorer. */
export const sumScores = (scores: readonly BatchScore[]): WaxScores[] =>
  [...grouped(scores, (score) => score.wax)].map(([wax, mine]) => ({
    wax,
    batches: new Set(mine.map((score) => score.batch)).size,
    scores: mine.length,
    scorers: [...grouped(mine, (score) => score.scorer ?? "")].map(([scorer, own]) => {
      let [n, sum, squares] = [0, 0, 0];
      for (const ofBatch of grouped(own, (score) => score.batch).values()) {
        const mean = ofBatch.reduce((all, { score }) => all + score, 0) / ofBatch.length;
        n += 1;
        sum += mean;
        squares += mean * mean;
      }
      return { scorer, n, sum, squares };
    }),
  }));

/** A mean score with its likely range; null where there are too few batches for one. */
export interface ScoredMean {
  mean: number;
  low: number | null;
  high: number | null;
  batches: number;
  scores: number;
}

const within10 = (value: number) => Math.max(0, Math.min(10, value));
const total = (scorers: readonly ScorerSums[]) =>
  scorers.reduce((all, { n, sum, squares }) => ({ n: all.n + n, sum: all.sum + sum, squares: all.squares + squares }), { n: 0, sum: 0, squares: 0 });
/** Returns the cells of the mixed model: the columns of a wax, and each scorer as a group. */
const cellsOf = (waxes: readonly WaxScores[], columns: (index: number) => number[]) =>
  waxes.flatMap(({ scorers }, index) => scorers.map(({ scorer, ...sums }) => ({ ...sums, group: scorer, x: columns(index) })));
const manyScored = (waxes: readonly WaxScores[]) => new Set(waxes.flatMap(({ scorers }) => scorers.map(({ scorer }) => scorer))).size > 1;

/**
 * Returns the mean score of each wax. Where several people scored, each person's own level is taken out by a mixed model: a mean for each wax, and a level for
 * each scorer. Where one did, or the model cannot tell the waxes from the people, it is the plain mean of the batches.
 */
export function scoresByWax(waxes: readonly WaxScores[]): Map<string, ScoredMean> {
  const fit = manyScored(waxes) ? mixedOfCells(cellsOf(waxes, (index) => waxes.map((_, at) => Number(at === index)))) : null;
  const t = fit ? tQuantile(0.975, fit.df) : 0;
  return new Map(
    waxes.map(({ wax, batches, scores, scorers }, index): [string, ScoredMean] => {
      if (fit) {
        const mean = fit.coefficients[index] as number;
        const half = t * Math.sqrt(fit.covariance[index]?.[index] ?? 0);
        return [
          wax,
          { batches, scores, mean: within10(mean), low: batches > 1 ? within10(mean - half) : null, high: batches > 1 ? within10(mean + half) : null },
        ];
      }
      const { mean, half } = meanIntervalOfSums(total(scorers));
      return [wax, { batches, scores, mean, low: half === null ? null : within10(mean - half), high: half === null ? null : within10(mean + half) }];
    }),
  );
}

/**
 * Returns by how much the second wax is scored above the first, with its likely range: each person's own level taken out where several scored. Null where there is
 * too little to tell.
 */
export function scoreDifference(waxes: readonly WaxScores[], first: string, second: string): { by: number; low: number; high: number } | null {
  const pair = [first, second].flatMap((name) => waxes.filter(({ wax }) => wax === name));
  const [a, b] = pair;
  if (!a || !b) return null;
  if (manyScored(pair)) {
    const fit = mixedOfCells(cellsOf(pair, (index) => [1, index]));
    if (!fit) return null;
    const by = fit.coefficients[1] as number;
    const half = tQuantile(0.975, fit.df) * Math.sqrt(fit.covariance[1]?.[1] ?? 0);
    return { by, low: by - half, high: by + half };
  }
  const [one, other] = [total(a.scorers), total(b.scorers)];
  const df = one.n + other.n - 2;
  if (df < 1) return null;
  const squares = ({ n, sum, squares }: { n: number; sum: number; squares: number }) => Math.max(0, squares - (sum * sum) / n);
  // Student's t of two means with one spread (Student 1908; any handbook).
  const half = tQuantile(0.975, df) * Math.sqrt(((squares(one) + squares(other)) / df) * (1 / one.n + 1 / other.n));
  const by = other.sum / other.n - one.sum / one.n;
  return { by, low: by - half, high: by + half };
}

/** The columns of throw on a scoreboard: cold by age, hot by the size of the room. */
export const THROW_COLUMNS = [
  { key: "coldYoung", of: "cold", words: "cold, under a week" },
  { key: "coldOld", of: "cold", words: "cold, a week or more" },
  { key: "hotSmall", of: "hot", words: "hot, small room" },
  { key: "hotLarge", of: "hot", words: "hot, large room" },
] as const;
export type ThrowColumn = (typeof THROW_COLUMNS)[number]["key"];
