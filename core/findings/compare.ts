import type { DiagnosisRecord } from "../diagnosis/record";
import { keyOf, RECORD_KEY_NAMES, type RecordKeyName } from "../diagnosis/record";
import type { Share } from "./proportion";

/** Below this two readings count as the same, by unit. Common practice, no source: thermometers and scales differ by as much. */
const SAME: Partial<Record<string, number>> = { "°C": 1.5, percent: 0.3, minutes: 0.5, days: 1, hours: 0.5, mm: 0.5, g: 5, "drops a pound": 0.5 };
/** What follows from the rest, or is the same for every batch of a vessel, is no change of its own. */
const FOLLOWS: readonly RecordKeyName[] = ["minutes_hot_with_oil", "cure_days", "vessel_height_mm", "narrows", "minutes_above_ceiling"];

export interface Difference {
  key: RecordKeyName;
  a: number | boolean | null;
  b: number | boolean | null;
}

/** Returns what two records say otherwise; what only one of them recorded stands apart, since nobody knows. */
export function recordDifferences(a: DiagnosisRecord, b: DiagnosisRecord): { differ: Difference[]; unknown: Difference[] } {
  const differ: Difference[] = [];
  const unknown: Difference[] = [];
  for (const key of RECORD_KEY_NAMES) {
    if (FOLLOWS.includes(key)) continue;
    const [x, y] = [a[key] ?? null, b[key] ?? null];
    if (x === null && y === null) continue;
    if (x === null || y === null) unknown.push({ key, a: x, b: y });
    else if (typeof x === "number" && typeof y === "number" ? Math.abs(x - y) > (SAME[keyOf(key).unit] ?? 0) : x !== y) differ.push({ key, a: x, b: y });
  }
  return { differ, unknown };
}

/** What can be concluded from two batches side by side. */
export type Comparable = "one thing" | "several things" | "nothing";
export const comparable = (changed: number): Comparable => (changed === 0 ? "nothing" : changed === 1 ? "one thing" : "several things");

/** Returns the difference of two shares with its interval, from theirs: the hybrid score method (Newcombe 1998b, method 10). */
export function shareDifference(a: Share, b: Share): { by: number; low: number; high: number } {
  const by = b.share - a.share;
  return {
    by,
    low: by - Math.hypot(b.share - b.low, a.high - a.share),
    high: by + Math.hypot(b.high - b.share, a.share - a.low),
  };
}

/** Fewer batches without the flaw say nothing of what was different. */
export const MIN_FINE = 5;

export interface Unlike {
  key: RecordKeyName;
  here: number | boolean;
  /** What the batches without the flaw had: from, to, or the one choice that all made. */
  fine: { low: number; high: number } | boolean;
  batches: number;
}

/** Returns what a batch's record says that none of the batches without the flaw does: worked out from the records, not asked. */
export function unlikeFine(here: DiagnosisRecord, fine: readonly DiagnosisRecord[]): Unlike[] {
  return RECORD_KEY_NAMES.flatMap((key): Unlike[] => {
    const mine = here[key];
    if (mine === undefined || FOLLOWS.includes(key)) return [];
    const theirs = fine.flatMap((diagnosisRecord) => (diagnosisRecord[key] === undefined ? [] : [diagnosisRecord[key] as number | boolean]));
    if (theirs.length < MIN_FINE) return [];
    if (typeof mine === "boolean") return theirs.every((item) => item === !mine) ? [{ key, here: mine, fine: !mine, batches: theirs.length }] : [];
    const numbers = theirs.filter((item): item is number => typeof item === "number");
    const [low, high] = [Math.min(...numbers), Math.max(...numbers)];
    const same = SAME[keyOf(key).unit] ?? 0;
    return mine < low - same || mine > high + same ? [{ key, here: mine, fine: { low, high }, batches: theirs.length }] : [];
  });
}
