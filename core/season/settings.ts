import { z } from "zod";
import { addDays, dayAt, minutesAt, timeOn, weekdayOf } from "../units/calendar";
import { isoDay } from "../units/day";

const minuteOfDay = z.number().int().min(0).max(1_440);
const span = z.object({ from: minuteOfDay, to: minuteOfDay }).refine((value) => value.from < value.to, { path: ["to"], error: "It ends before it begins." });

/** What a workshop works with, and when: what planning rests on. Minutes of the day by the wall of its own zone. */
export const planningSettings = z.object({
  hands: z.number().int().min(1).max(9).default(1),
  burners: z.number().int().min(1).max(20).default(2),
  pitchers: z.number().int().min(1).max(40).default(4),
  /** What one pitcher, or the melter, takes at once, in mg. */
  pitcherMg: z.number().int().min(10_000).max(100_000_000).default(1_500_000),
  sparePpm: z.number().int().min(0).max(500_000).default(50_000),
  /** So many pieces can stand and set at once. */
  table: z.number().int().min(1).max(20_000).default(60),
  /** Monday to Sunday; null where nobody works. */
  hours: z
    .array(span.nullable())
    .length(7)
    .default(() => Array.from({ length: 7 }, (_, at) => (at < 5 ? { from: 540, to: 1_020 } : null))),
  daysOff: z.array(isoDay()).max(400).default([]),
  /** Days between the end of the cure and the day it is wanted: looking over, labels, the way. */
  aheadDays: z.number().int().min(0).max(60).default(1),
  /** What is wanted within so many days of one another is made together. */
  gatherDays: z.number().int().min(0).max(120).default(14),
  /** When the sun comes onto the table. */
  sun: span.nullable().default(null),
});
export type PlanningSettings = z.output<typeof planningSettings>;

/** The hours of a day; null where nobody works. */
export const hoursOn = (day: string, { hours, daysOff }: Pick<PlanningSettings, "hours" | "daysOff">): { from: number; to: number } | null =>
  daysOff.includes(day) ? null : (hours[weekdayOf(day) - 1] ?? null);

/** The last day on which somebody works whose hours are over by a moment, in ms; null where there is none within a year before. */
export function lastDayBefore(moment: number, settings: Pick<PlanningSettings, "hours" | "daysOff">, zone: string): string | null {
  let day = dayAt(moment, zone);
  const there = hoursOn(day, settings);
  if (!there || there.to > minutesAt(moment, zone)) day = addDays(day, -1);
  for (let back = 0; back < 366; back++, day = addDays(day, -1)) if (hoursOn(day, settings)) return day;
  return null;
}

/** The moment by which something has to be ready that is wanted on a day, in ms: its beginning, so many days ahead. */
export const readyBy = (wantedOn: string, aheadDays: number, zone: string): number => timeOn(addDays(wantedOn, -aheadDays), 0, zone);
