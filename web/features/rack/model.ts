import type { BatchState, LoggedReading } from "@hearth/core";

/** Returns days from one moment to another. */
export const daysAfter = (from: string, to: string): number => (Date.parse(to) - Date.parse(from)) / 86_400_000;

/** Returns the cold throw scores over the cure, by scorer, in order of time. */
export function throwPoints(state: Pick<BatchState, "smells">, pouredAt: string, people: readonly { id: string; name: string }[]) {
  const names = new Map(people.map((item) => [item.id, item.name]));
  const noses = new Map<string, { at: string; days: number; score: number; room: string }[]>();
  for (const smell of [...state.smells].sort((a, b) => Date.parse(a.at) - Date.parse(b.at))) {
    const nose = names.get(smell.personId ?? "") ?? "somebody";
    noses.set(nose, [...(noses.get(nose) ?? []), { at: smell.at, days: daysAfter(pouredAt, smell.at), score: smell.score, room: smell.room }]);
  }
  return [...noses].map(([nose, scores]) => ({ nose, scores }));
}

/** Returns what a logger says of a room between two moments: mean, least, most; null if it has nothing of that time. */
export function roomOf(readings: readonly LoggedReading[], from: string, to: string) {
  const inside = readings
    .filter((reading) => Date.parse(reading.at) >= Date.parse(from) && Date.parse(reading.at) <= Date.parse(to))
    .map((reading) => reading.celsius);
  if (inside.length === 0) return null;
  // Not spread: a file can hold a reading a second for weeks.
  let [low, high, sum] = [inside[0] as number, inside[0] as number, 0];
  for (const value of inside) {
    low = Math.min(low, value);
    high = Math.max(high, value);
    sum += value;
  }
  return { mean: Math.round(sum / inside.length), low, high, readings: inside.length };
}

/** At which ages, in days, cold throw is smelled, so that batches can be compared with each other. Common practice, no source. */
export const AGES = [1, 2, 4, 7, 14] as const;

/** The next age at which it is to be smelled; null once all are behind. An age counts as smelled within half a day of it. */
export function nextAge(state: Pick<BatchState, "smells">, pouredAt: string, now: string): { days: number; at: string } | null {
  const smelled = state.smells.map((smell) => daysAfter(pouredAt, smell.at));
  const age = daysAfter(pouredAt, now);
  const days = AGES.find((item) => age < item + 0.5 && !smelled.some((at) => Math.abs(at - item) <= 0.5));
  return days === undefined ? null : { days, at: new Date(Date.parse(pouredAt) + days * 86_400_000).toISOString() };
}
