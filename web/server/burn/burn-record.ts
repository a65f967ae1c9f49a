import {
  BURN_COLUMNS,
  BURN_FORMAT,
  type BurnRecord,
  burnSheet,
  cellInUnits,
  columnInUnits,
  ok,
  type Result,
  RUNS_AS_FORMULA,
  reject,
  TRIAL,
  type TrialEvent,
  type UnitChoice,
} from "@hearth/core";
import { and, asc, eq, inArray, max } from "drizzle-orm";
import Papa from "papaparse";
import type { Database } from "@/data/client";
import { instruments } from "@/data/tables/shelf";
import { trialEvents, trials } from "@/data/tables/trial";
import { people, workshops } from "@/data/tables/workshop";
import { trialEventRow, trialRow, writeBurns } from "@/data/trial-rows";
import { futureIn, putRows } from "@/server/batches/import-record";
import { readTrialEvents, trialStore } from "@/server/events/trial-store";
import { isSameLog } from "@/server/events/validate-append";
import { notifyPages } from "@/server/http/change-stream";
import { inTransaction } from "@/server/shared/transaction";
import { lockWorkshop } from "@/server/workshops/workshops";

const present = (values: (string | null)[]): string[] => [...new Set(values.filter((value) => value !== null))];

/** Returns one trial as it is exported: its entries, and who and what they name. Null if the workshop has no such trial. */
export const burnRecordOf = (db: Database, workshopId: string, id: string): Promise<BurnRecord | null> =>
  db.transaction(async (tx) => {
    const row = await trialStore.readRow(tx, workshopId, id, false);
    const [workshop] = await tx.select({ name: workshops.name }).from(workshops).where(eq(workshops.id, workshopId));
    if (!row || !workshop) return null;
    const events = await readTrialEvents(tx, workshopId, id);
    const staff = await tx
      .select({ id: people.id, name: people.name })
      .from(people)
      .where(and(eq(people.workshopId, workshopId), inArray(people.id, present(events.map((event) => event.personId)))))
      .orderBy(asc(people.id));
    const tools = await tx
      .select()
      .from(instruments)
      .where(and(eq(instruments.workshopId, workshopId), inArray(instruments.id, present(events.map((event) => event.instrumentId)))))
      .orderBy(asc(instruments.id));
    return {
      format: BURN_FORMAT,
      version: 2,
      workshop,
      trial: { id: row.id, number: row.number },
      people: staff,
      instruments: tools.map(({ workshopId: _of, version: _edits, ...tool }) => tool),
      events: events.map((event) => ({ ...event, v: TRIAL.versionOf(event.kind) })),
    } as BurnRecord;
  });

/** Returns the sessions and checks of a trial as CSV, in SI units; cells that a spreadsheet would run as formulas are escaped. */
export function burnCsv(record: BurnRecord, units: UnitChoice): string {
  const { plan, state } = TRIAL.of(record.events as TrialEvent[]);
  const data = burnSheet(plan, state).map((row) => BURN_COLUMNS.map((column) => cellInUnits(column, row[column], units)));
  const fields = BURN_COLUMNS.map((column) => columnInUnits(column, units));
  return `\ufeff${Papa.unparse({ fields, data }, { newline: "\r\n", escapeFormulae: RUNS_AS_FORMULA })}\r\n`;
}

/** Takes a trial into a workshop, all or nothing. Reading the same record again changes nothing. */
export async function importBurn(
  db: Database,
  workshopId: string,
  record: BurnRecord,
  now: string,
): Promise<Result<{ trialId: string; number: number; remarks: string[] }>> {
  const future = futureIn(record.events, now);
  if (future) return reject(`${future} Nothing was imported.`);
  return inTransaction(db, async (tx) => {
    const remarks: string[] = [];
    await lockWorkshop(tx, workshopId);
    const { id } = record.trial;
    const already = await trialStore.readRow(tx, workshopId, id, false);
    if (already) {
      return isSameLog(await readTrialEvents(tx, workshopId, id), record.events)
        ? ok({ trialId: id, number: already.number, remarks: ["This record was imported already; nothing changed."] })
        : reject(
            `Trial ${already.number} of this workshop is the same trial with other entries. Nothing was imported: import it into an empty workshop to compare.`,
          );
    }
    const existing = await tx
      .select({ id: trialEvents.id })
      .from(trialEvents)
      .where(
        and(
          eq(trialEvents.workshopId, workshopId),
          inArray(
            trialEvents.id,
            record.events.map((event) => event.id),
          ),
        ),
      )
      .limit(1);
    if (existing.length > 0) return reject("An entry of this record belongs to another trial here. Nothing was imported.");
    await putRows(tx, workshopId, people, record.people, remarks);
    await putRows(tx, workshopId, instruments, record.instruments, remarks);
    const numbers = tx.select({ top: max(trials.number) }).from(trials);
    const [top] = await numbers.where(eq(trials.workshopId, workshopId));
    const [clash] = await tx
      .select({ id: trials.id })
      .from(trials)
      .where(and(eq(trials.workshopId, workshopId), eq(trials.number, record.trial.number)));
    const number = clash ? (top?.top ?? 0) + 1 : record.trial.number;
    if (clash) remarks.push(`Trial ${record.trial.number} exists already, so it is trial ${number} here.`);
    const { plan, state } = TRIAL.of(record.events as TrialEvent[]);
    await tx.insert(trials).values({ workshopId, id, number, ...trialRow(plan, state) });
    // Corrections name earlier entries, which must be there first.
    const rows = [...record.events]
      .sort((a, b) => Date.parse(a.arrivedAt) - Date.parse(b.arrivedAt))
      .map((event) => trialEventRow(workshopId, id, event as TrialEvent));
    for (let from = 0; from < rows.length; from += 1_000) await tx.insert(trialEvents).values(rows.slice(from, from + 1_000));
    await writeBurns(tx, workshopId, id, plan, state, null);
    await notifyPages(tx, { workshop: workshopId, trial: id });
    return ok({ trialId: id, number, remarks });
  });
}
