import {
  addDays,
  cureTimes,
  type DayRow,
  type DayWork,
  dayAt,
  dayRecord,
  firstTimetable,
  hoursOn,
  jobOfPot,
  type PlacedStep,
  type PlannedPot,
  planDemand,
  requestOfDay,
  rowsOf,
  timeOn,
} from "@hearth/core";
import ical, { ICalCalendarMethod } from "ical-generator";
import type { Database } from "@/data/client";
import type { workshops } from "@/data/tables/workshop";
import { readDemandPlan } from "@/server/planning/planning";
import { openBatches } from "./batches";

type Workshop = Pick<typeof workshops.$inferSelect, "id" | "name" | "timeZone">;

/**
 * Returns the calendar of a workshop as iCalendar (RFC 5545): pours and later pours that are planned, and of what was poured the ends of set
 * and cure and the test. Moments in UTC, what lasts a day as a day; each event keeps its UID, so that a program that reads it again moves it.
 */
export async function calendarOf(db: Database, workshop: Workshop, now: string, origin: string): Promise<string> {
  const { lines, products, settings } = await readDemandPlan(db, workshop);
  const demandPlan = planDemand(lines, products, settings, { now, zone: workshop.timeZone });
  const calendar = ical({
    name: workshop.name,
    prodId: { company: "Hearth Jar", product: "Workshop calendar", language: "EN" },
    ttl: 3_600,
    method: ICalCalendarMethod.PUBLISH,
  });
  const put = (id: string, summary: string, start: Date, end: Date | null, more: { allDay?: boolean; description?: string; path: string }) =>
    calendar.createEvent({
      id: `${id}@hearth-jar`,
      summary,
      start,
      stamp: new Date(now),
      ...(end ? { end } : {}),
      ...(more.allDay ? { allDay: true } : {}),
      ...(more.description ? { description: more.description } : {}),
      url: `${origin}${more.path}`,
    });
  /** What lasts a day is a date, whatever the zone. */
  const onDay = (id: string, summary: string, day: string, path: string) =>
    put(id, summary, new Date(`${day}T00:00:00Z`), new Date(`${addDays(day, 1)}T00:00:00Z`), { allDay: true, path });
  const minute = 60_000;
  /** The pots of each day with their own times: hands, burners and pitchers are shared, so that they follow one another. */
  const days = new Map<string, DayWork[]>();
  const pots = demandPlan.pots.filter((pot): pot is PlannedPot & { day: string } => pot.day !== null);
  const jobs = new Map(pots.map((pot) => [pot.key, jobOfPot(pot)]));
  for (const pot of pots) {
    const work = days.get(pot.day) ?? [];
    work.push({ pot: { ...pot, number: work.length + 1 }, ...(jobs.get(pot.key) as ReturnType<typeof jobOfPot>) });
    days.set(pot.day, work);
  }
  const rows = new Map<string, DayRow>();
  for (const work of days.values()) {
    const { hands, burners, pitchers, pitcherMg, sparePpm } = settings;
    const record = dayRecord.parse({ hands, burners, pitchers, pitcherMg, sparePpm, counts: {} });
    for (const row of rowsOf(work, firstTimetable(requestOfDay(record, work, 1)))) rows.set(row.key, row);
  }
  const timetable = (pot: PlannedPot): { row: PlacedStep[]; setMinutes: number } => {
    const { job, steps, setMinutes } = jobs.get(pot.key) as ReturnType<typeof jobOfPot>;
    // One that no day has room for by itself is told as if it were alone.
    let at = 0;
    const alone = job.steps.map((step, n) => {
      const start = at;
      at += step.minutes + (n < job.steps.length - 1 ? step.wait.min : 0);
      return { ...(steps[n] as PlacedStep), start, end: start + step.minutes };
    });
    return { row: rows.get(pot.key)?.steps ?? alone, setMinutes };
  };
  for (const pot of pots) {
    const { row, setMinutes } = timetable(pot);
    const begin = timeOn(pot.day, hoursOn(pot.day, settings)?.from ?? 540, workshop.timeZone);
    const path = `/plan/day?on=${pot.day}`;
    const what = pot.lines.map((line) => `${line.count} × ${line.name}`).join(", ");
    let at = begin;
    let from = begin + (row[0]?.start ?? 0) * minute;
    let pours = 0;
    for (const step of row) {
      const end = begin + step.end * minute;
      if (step.pours) {
        pours += 1;
        put(`${pot.key}-pour-${pours}`, pours === 1 ? `Pour ${pot.formulaName}` : `Pour again: ${pot.formulaName}`, new Date(from), new Date(end), {
          description: what,
          path,
        });
      }
      at = end;
      // A later pour is an event of its own.
      if (step.pours) from = end;
    }
    const poured = new Date(at).toISOString();
    const { testFrom, sellFrom } = cureTimes(poured, pot.process);
    if (setMinutes > 0) put(`${pot.key}-set`, `Set: ${pot.formulaName} may be moved`, new Date(at + setMinutes * minute), null, { path });
    onDay(`${pot.key}-test`, `Test ${pot.formulaName}`, dayAt(testFrom, workshop.timeZone), path);
    onDay(`${pot.key}-cured`, `Cured: ${pot.formulaName}`, dayAt(sellFrom, workshop.timeZone), path);
  }
  for (const batch of await openBatches(db, workshop.id)) {
    const name = `${batch.number} ${batch.title}`;
    const path = `/bench/${batch.id}`;
    if (batch.next?.from && batch.next.from > now)
      put(`${batch.id}-next`, `${batch.next.name}: ${name}`, new Date(batch.next.from), batch.next.until ? new Date(batch.next.until) : null, { path });
    if (!batch.times) continue;
    put(`${batch.id}-set`, `Set: ${name} may be moved`, new Date(batch.times.setAt), null, { path });
    onDay(`${batch.id}-test`, `Test ${name}`, dayAt(batch.times.testFrom, workshop.timeZone), path);
    onDay(`${batch.id}-cured`, `Cured: ${name}`, dayAt(batch.times.sellFrom, workshop.timeZone), path);
  }
  for (const line of lines)
    if (line.wantedOn)
      onDay(`${line.id}-wanted`, `Wanted: ${line.count} × ${line.productName}${line.note ? `, ${line.note}` : ""}`, line.wantedOn, "/plan/wanted");
  return calendar.toString();
}
