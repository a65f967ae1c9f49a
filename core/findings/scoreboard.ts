import { type Room, roomsOf } from "../burn/rooms";
import { meanInterval } from "../statistics/mean";
import { mixed } from "../statistics/mixed";
import { tQuantile } from "../statistics/tails";
import { levelOf, type ThrowScore } from "./throw-levels";

/** A mean score with its likely range; null where there are too few batches for one. */
export interface ScoredMean {
  mean: number;
  low: number | null;
  high: number | null;
  batches: number;
  scores: number;
}

/** Returns one value for each batch and scorer, since what one person scores of one batch hangs together. */
function onePerBatch(scores: readonly ThrowScore[]): { wax: string; scorer: string; batch: string; y: number }[] {
  const groups = new Map<string, { wax: string; scorer: string; batch: string; all: number[] }>();
  for (const [index, score] of scores.entries()) {
    const [scorer, batch] = [score.scorer ?? "", score.batch ?? `alone ${index}`];
    const key = `${batch}\n${scorer}\n${score.wax}`;
    const found = groups.get(key);
    if (found) found.all.push(score.score);
    else groups.set(key, { wax: score.wax, scorer, batch, all: [score.score] });
  }
  return [...groups.values()].map(({ all, ...rest }) => ({ ...rest, y: meanInterval(all).mean }));
}

const within10 = (value: number) => Math.max(0, Math.min(10, value));

/**
 * Returns the mean score of each wax. Where several people scored, each person's own level is taken out by a mixed model: a mean for each wax, and a level for
 * each scorer. Where one did, or the model cannot tell the waxes from the people, it is the plain mean of the batches.
 */
export function scoresByWax(scores: readonly ThrowScore[]): Map<string, ScoredMean> {
  const rows = onePerBatch(scores);
  const waxes = [...new Set(rows.map((row) => row.wax))].sort();
  const scorers = new Set(rows.map((row) => row.scorer));
  const fit = scorers.size > 1 ? mixed(rows.map((row) => ({ y: row.y, group: row.scorer, x: waxes.map((wax) => Number(wax === row.wax)) }))) : null;
  const t = fit ? tQuantile(0.975, fit.df) : 0;
  return new Map(
    waxes.map((wax, index): [string, ScoredMean] => {
      const mine = rows.filter((row) => row.wax === wax);
      const batches = new Set(mine.map((row) => row.batch)).size;
      const many = { batches, scores: scores.filter((score) => score.wax === wax).length };
      if (fit) {
        const mean = fit.coefficients[index] as number;
        const half = t * Math.sqrt(fit.covariance[index]?.[index] ?? 0);
        return [wax, { ...many, mean: within10(mean), low: batches > 1 ? within10(mean - half) : null, high: batches > 1 ? within10(mean + half) : null }];
      }
      const { mean, half } = meanInterval(mine.map((row) => row.y));
      return [wax, { ...many, mean, low: half === null ? null : within10(mean - half), high: half === null ? null : within10(mean + half) }];
    }),
  );
}

/**
 * Returns by how much the second wax is scored above the first, with its likely range: each person's own level taken out where several scored. Null where there is
 * too little to tell.
 */
export function scoreDifference(scores: readonly ThrowScore[], first: string, second: string): { by: number; low: number; high: number } | null {
  const rows = onePerBatch(scores.filter((score) => score.wax === first || score.wax === second));
  const isSecond = (wax: string) => Number(wax === second);
  if (new Set(rows.map((row) => row.scorer)).size > 1) {
    const fit = mixed(rows.map((row) => ({ y: row.y, group: row.scorer, x: [1, isSecond(row.wax)] })));
    if (!fit) return null;
    const by = fit.coefficients[1] as number;
    const half = tQuantile(0.975, fit.df) * Math.sqrt(fit.covariance[1]?.[1] ?? 0);
    return { by, low: by - half, high: by + half };
  }
  const [a, b] = [first, second].map((wax) => rows.filter((row) => row.wax === wax).map((row) => row.y)) as [number[], number[]];
  const df = a.length + b.length - 2;
  if (a.length < 1 || b.length < 1 || df < 1) return null;
  const mean = (values: number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
  const squares = (values: number[]) => values.reduce((sum, value) => sum + (value - mean(values)) ** 2, 0);
  // Student's t of two means with one spread (Student 1908; any handbook).
  const half = tQuantile(0.975, df) * Math.sqrt(((squares(a) + squares(b)) / df) * (1 / a.length + 1 / b.length));
  const by = mean(b) - mean(a);
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

const roomSizes = (rooms: string): ReadonlyMap<string, Room["size"]> => new Map(roomsOf(rooms).map((room) => [room.name.toLowerCase(), room.size]));
function columnOf(score: ThrowScore, sizes: ReadonlyMap<string, Room["size"]>): ThrowColumn | null {
  if (score.throw === "cold") {
    const age = levelOf(score, "age");
    return age === null ? null : age === "a week or more" ? "coldOld" : "coldYoung";
  }
  const size = score.room === null ? undefined : sizes.get(score.room.toLowerCase());
  return size === undefined ? null : size === "large" ? "hotLarge" : "hotSmall";
}

/** Returns the scores of one column of throw: cold by age, hot by the size of the room. @param rooms the workshop's rooms as text */
export function scoresOfColumn(scores: readonly ThrowScore[], column: ThrowColumn, rooms: string): ThrowScore[] {
  const sizes = roomSizes(rooms);
  return scores.filter((score) => columnOf(score, sizes) === column);
}

/** Returns the mean scores of each wax in each column of throw. */
export function throwColumns(scores: readonly ThrowScore[], rooms: string): Record<ThrowColumn, Map<string, ScoredMean>> {
  const sizes = roomSizes(rooms);
  const byColumn: Record<ThrowColumn, ThrowScore[]> = { coldYoung: [], coldOld: [], hotSmall: [], hotLarge: [] };
  for (const score of scores) {
    const column = score.wax === "" ? null : columnOf(score, sizes);
    if (column) byColumn[column].push(score);
  }
  return Object.fromEntries(THROW_COLUMNS.map(({ key }) => [key, scoresByWax(byColumn[key])])) as Record<ThrowColumn, Map<string, ScoredMean>>;
}
