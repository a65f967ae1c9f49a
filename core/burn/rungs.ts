import { mixed } from "../statistics/mixed";
import { tQuantile } from "../statistics/tails";
import type { Room } from "./rooms";
import { nextForThrow, targetScore } from "./scent-throw";

/** A hot throw score of one candle, with what it was made of. */
export interface ScoredCandle {
  at: string;
  scorer: string | null;
  room: string;
  score: number;
  wax: string;
  scent: string;
  loadPpm: number;
  vessel: string;
  wick: string;
  /** Days from the pour to the score; null where that is not known. */
  ageDays: number | null;
}

/** What of a candle can be changed for a stronger throw, one at a time. */
const DIMENSIONS = ["wax", "scent", "loadPpm", "vessel", "wick"] as const;
type Dimension = (typeof DIMENSIONS)[number];
export type CandleMade = Pick<ScoredCandle, Dimension>;

/** One way that the candle was made, with its scores and what the step to it brought. */
export interface Rung extends CandleMade {
  since: string;
  scores: number;
  /** The mean score, each person's own level taken out where several scored. */
  mean: number;
  /** The earlier rung that differs in one thing only, and by how much this one is scored above it; null where there is none. */
  after: { from: number; changed: Dimension; by: number; low: number | null; high: number | null } | null;
}

const keyOf = (made: CandleMade) => JSON.stringify([made.wax, made.scent, Math.round(made.loadPpm / 1_000), made.vessel, made.wick]);
const differences = (a: CandleMade, b: CandleMade): Dimension[] =>
  DIMENSIONS.filter((dimension) => (dimension === "loadPpm" ? Math.abs(a.loadPpm - b.loadPpm) >= 1_000 : a[dimension] !== b[dimension]));

/** Returns whether two candles are made alike in all that bears on throw. */
export const isSameCandle = (a: CandleMade, b: CandleMade): boolean => differences(a, b).length === 0;

/**
 * Returns the ways that a candle was made, in the order of their first scores, each with its mean and what its one change brought. People's own levels and rooms
 * are taken out by a mixed model where several people scored; else the means are plain.
 */
export function rungsOf(scores: readonly ScoredCandle[]): Rung[] {
  const ordered = [...scores].sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
  const keys = [...new Set(ordered.map(keyOf))];
  const rooms = [...new Set(ordered.map((score) => score.room))];
  const scorers = new Set(ordered.map((score) => score.scorer ?? ""));
  // Rooms are taken out around their mean, so that a rung's mean is that of a usual room.
  const share = (room: string) => ordered.filter((score) => score.room === room).length / Math.max(1, ordered.length);
  const fit =
    scorers.size > 1
      ? mixed(
          ordered.map((score) => ({
            y: score.score,
            group: score.scorer ?? "",
            x: [...keys.map((key) => Number(key === keyOf(score))), ...rooms.slice(1).map((room) => Number(room === score.room) - share(room))],
          })),
        )
      : null;
  const t = fit ? tQuantile(0.975, fit.df) : 0;
  const rungs: Rung[] = [];
  for (const [index, key] of keys.entries()) {
    const mine = ordered.filter((score) => keyOf(score) === key);
    const [first] = mine;
    if (!first) continue;
    const mean = fit ? (fit.coefficients[index] as number) : mine.reduce((sum, score) => sum + score.score, 0) / mine.length;
    // The newest earlier way that differs in one thing tells what that thing brought.
    const from = rungs.findLastIndex((rung) => differences(rung, first).length === 1);
    const [changed] = from >= 0 ? differences(rungs[from] as Rung, first) : [];
    const by = from >= 0 ? mean - (rungs[from] as Rung).mean : 0;
    const variance =
      fit && from >= 0 ? (fit.covariance[index]?.[index] ?? 0) + (fit.covariance[from]?.[from] ?? 0) - 2 * (fit.covariance[index]?.[from] ?? 0) : null;
    const half = variance === null ? null : t * Math.sqrt(Math.max(0, variance));
    rungs.push({
      ...{ wax: first.wax, scent: first.scent, loadPpm: first.loadPpm, vessel: first.vessel, wick: first.wick },
      ...{ since: first.at, scores: mine.length, mean: Math.max(0, Math.min(10, mean)) },
      after: changed ? { from, changed, by, low: half === null ? null : by - half, high: half === null ? null : by + half } : null,
    });
  }
  return rungs;
}

/** Returns the rooms that a candle fills: those in which its mean score is as high as the size of the room wants. */
export function roomsFilled(scores: readonly ScoredCandle[], rooms: readonly Room[]): string[] {
  return rooms.flatMap((room) => {
    const mine = scores.filter((score) => score.room.toLowerCase() === room.name.toLowerCase());
    const mean = mine.reduce((sum, score) => sum + score.score, 0) / Math.max(1, mine.length);
    return mine.length > 0 && mean >= targetScore(room.size) ? [room.name] : [];
  });
}

/** What of a candle decides which rung comes next. */
export interface RungInput {
  scores: readonly ScoredCandle[];
  /** As it is made now. */
  made: CandleMade;
  /** The most that wax and oil take, in millionths of the wax; null if it is not known. */
  maxLoadPpm: number | null;
  fillMg: number;
  strongOil: boolean | null;
  sooty: boolean;
  /** The age from which a score counts, in days. */
  minCureDays: number;
  /** Rungs that nothing on the shelf does for. */
  without?: readonly string[];
}

/** Returns the next single rung by the order of the trade; null if all were tried. The things that were varied already count as tried. */
export function nextRung({ scores, made, maxLoadPpm, fillMg, strongOil, sooty, minCureDays, without = [] }: RungInput): { id: string; says: string } | null {
  const rungs = rungsOf(scores);
  const varied = (dimension: Dimension) => rungs.some((rung) => rung.after?.changed === dimension);
  const ofNow = scores.filter((score) => isSameCandle(score, made));
  const cured = ofNow.length === 0 || ofNow.some((score) => score.ageDays === null || score.ageDays >= minCureDays);
  const tried = [
    ...without,
    ...(varied("scent") ? ["oil"] : []),
    ...(varied("wax") ? ["wax"] : []),
    ...(varied("vessel") ? ["vessel"] : []),
    ...(varied("wick") ? ["wick"] : []),
  ];
  return nextForThrow({ loadPpm: made.loadPpm, tried, sooty, cured, maxLoadPpm, fillMg, strongOil });
}
