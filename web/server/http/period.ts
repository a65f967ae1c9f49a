import { addDays, type DaySpan, dayAt, parseSpan, timeOn } from "@hearth/core";
import { type SQL, sql } from "drizzle-orm";
import { z } from "zod";
import type { Database } from "@/data/client";

/** The time that findings are of: from (inclusive) to (exclusive), as instants; null is open. */
export interface Period {
  from: string | null;
  to: string | null;
}
export const ALL_TIME: Period = { from: null, to: null };

/** The days that a list is asked for, as they were typed; `days` is null where the text cannot be read as days. */
export interface AskedDays {
  text: string;
  days: DaySpan | null;
}
type Calendar = { timeZone: string; locale?: string };

/** Reads the days that a list is asked for, as the workshop writes them; null where nothing is asked. */
export function askedDays(text: string | undefined, { timeZone, locale }: Calendar, now: string): AskedDays | null {
  const typed = text?.trim() ?? "";
  return typed === "" ? null : { text: typed, days: parseSpan(typed, dayAt(now, timeZone), locale) };
}

/** Returns the moment at which a day begins in a zone, as ISO text. */
export const dayStart = (day: string, zone: string): string => new Date(timeOn(day, 0, zone)).toISOString();
/** Returns the period from the begin of the first of these days to the end of the last. */
export const periodOfDays = ({ from, until }: DaySpan, zone: string): Period => ({ from: dayStart(from, zone), to: dayStart(until, zone) });
/** Returns the period that a list is asked for; all time where no days are. */
export const periodOf = (asked: AskedDays | null, { timeZone }: Calendar): Period => (asked?.days ? periodOfDays(asked.days, timeZone) : ALL_TIME);

/** A change from which findings may be counted: a new version of a formula. */
export interface FormulaChange {
  id: string;
  formula: string;
  number: number;
  at: string;
}

export type PeriodName = "all" | "this-year" | "last-year" | "days" | "since";
/** What an address asks for, and what can be chosen. */
export interface PeriodChoice {
  name: PeriodName;
  /** Days of `days`, ISO; null is open. */
  from: string | null;
  to: string | null;
  /** Of `since`: the id of the change. */
  since: string | null;
  changes: FormulaChange[];
  /** The workshop's day, ISO. */
  today: string;
}

/** As `askedOf` takes it. */
export const PERIOD_QUERY = {
  when: z.enum(["all", "this-year", "last-year", "days", "since"]),
  from: z.iso.date(),
  to: z.iso.date(),
  since: z.uuid(),
};
interface AskedPeriod {
  when?: PeriodName;
  from?: string;
  to?: string;
  since?: string;
}

const MAX_CHANGES = 30;

/** Returns the newest changes of formulas: versions after the first. */
async function changesOf(db: Database, workshopId: string, since: string | null): Promise<FormulaChange[]> {
  const { rows } = await db.execute<{ id: string; formula: string; number: number; at: string }>(sql`
    select v.id::text, f.name formula, v.number, v.created_at at
    from formula_version v join formula f on f.workshop_id = v.workshop_id and f.id = v.formula_id
    where v.workshop_id = ${workshopId} and v.number > 1
    order by (v.id = ${since}::uuid) desc nulls last, v.created_at desc limit ${MAX_CHANGES}`);
  return rows.map((row) => ({ ...row, at: new Date(row.at).toISOString() })).sort((a, b) => b.at.localeCompare(a.at));
}

/** The period that is asked for, in the workshop's own days, with what else can be chosen. What cannot be meant is all time. */
export async function askedPeriod(
  db: Database,
  workshop: { id: string; timeZone: string },
  asked: AskedPeriod,
  now: string,
): Promise<{ period: Period; choice: PeriodChoice }> {
  const today = dayAt(now, workshop.timeZone);
  const changes = await changesOf(db, workshop.id, asked.since ?? null);
  const change = changes.find((change) => change.id === asked.since);
  const start = (day: string) => dayStart(day, workshop.timeZone);
  const year = Number(today.slice(0, 4));
  const none = { from: null, to: null, since: null, changes, today };
  switch (asked.when) {
    case "this-year":
      return { period: { from: start(`${year}-01-01`), to: null }, choice: { ...none, name: "this-year" } };
    case "last-year":
      return { period: { from: start(`${year - 1}-01-01`), to: start(`${year}-01-01`) }, choice: { ...none, name: "last-year" } };
    case "days":
      return {
        period: { from: asked.from ? start(asked.from) : null, to: asked.to ? start(addDays(asked.to, 1)) : null },
        choice: { ...none, name: "days", from: asked.from ?? null, to: asked.to ?? null },
      };
    case "since":
      if (change) return { period: { from: change.at, to: null }, choice: { ...none, name: "since", since: change.id } };
  }
  return { period: ALL_TIME, choice: { ...none, name: "all" } };
}

/** Returns a condition that a moment lies in the period. */
export const within = (period: Period, moment: SQL): SQL =>
  sql`(${period.from}::timestamptz is null or ${moment} >= ${period.from}::timestamptz) and (${period.to}::timestamptz is null or ${moment} < ${period.to}::timestamptz)`;
