import { addDays, dayAt, minutesAt, timeOn, weekdayOf } from "../units/calendar";
import type { PlanningSettings } from "./schema";

/** Returns the hours of a day; null if nobody works. */
export const hoursOn = (day: string, { hours, daysOff }: Pick<PlanningSettings, "hours" | "daysOff">): { from: number; to: number } | null =>
  daysOff.includes(day) ? null : (hours[weekdayOf(day) - 1] ?? null);

/** The last day on which somebody works whose hours are over by a moment, in ms; null if there is none within a year before. */
export function lastDayBefore(moment: number, settings: Pick<PlanningSettings, "hours" | "daysOff">, zone: string): string | null {
  let day = dayAt(moment, zone);
  const there = hoursOn(day, settings);
  if (!there || there.to > minutesAt(moment, zone)) day = addDays(day, -1);
  for (let back = 0; back < 366; back++, day = addDays(day, -1)) if (hoursOn(day, settings)) return day;
  return null;
}

/** The moment by which something has to be ready that is wanted on a day, in ms: its beginning, so many days ahead. */
export const readyBy = (wantedOn: string, aheadDays: number, zone: string): number => timeOn(addDays(wantedOn, -aheadDays), 0, zone);
