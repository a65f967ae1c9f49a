import { addDays, type BatchPlan, type BatchState, JAR_STATUSES, type JarStatus, jarStatusesOf, ledger, STOCKED, timeOn, titleOf } from "@hearth/core";
import { type AnyColumn, and, asc, desc, eq, gte, ilike, inArray, lt, or, sql } from "drizzle-orm";
import type { Database } from "@/data/client";
import { batchEvents, batches } from "@/data/tables/batch";
import { notes } from "@/data/tables/note";
import { lots, stockCounts, stockUses } from "@/data/tables/stock";
import { ofFormulaLike } from "@/server/batches/batches";
import { readBatchState } from "@/server/events/read-events";
import { containing } from "@/server/shared/natural-sort";
import { receivedAt } from "./shelf";
import { type NamedTable, SHELF_TABLES } from "./tables";

/** A batch with what became of its jars. */
export interface TracedBatch {
  id: string;
  number: number;
  title: string;
  pouredAt: string | null;
  jars: number;
  jarStatuses: { fate: JarStatus; jars: number }[];
  /** To whom, as far as it was written down. */
  whom: string[];
  /** What it took of the lot that was asked about. */
  amount?: number;
}

export interface FoundLot {
  id: string;
  kind: string;
  code: string;
  material: string;
  receivedOn: string;
  amount: number;
}

const traced = (row: { id: string; number: number; pouredAt: string | null }, plan: BatchPlan, state: BatchState): TracedBatch => {
  // What is not poured yet has become of nothing.
  const all = Object.keys(state.pours).length === 0 ? [] : plan.products.map((product) => jarStatusesOf(plan, state, product.key));
  return {
    id: row.id,
    number: row.number,
    title: titleOf(plan),
    pouredAt: row.pouredAt && new Date(row.pouredAt).toISOString(),
    jars: all.reduce((sum, item) => sum + item.filled, 0),
    jarStatuses: JAR_STATUSES.map((fate) => ({ fate, jars: all.reduce((sum, item) => sum + item.counts[fate], 0) })).filter((item) => item.jars > 0),
    whom: [...new Set(state.jarStatuses.map((jarStatus) => jarStatus.whom).filter(Boolean))],
  };
};

const materialName = async (db: Database, workshopId: string, kind: string, id: string): Promise<string> => {
  const table: NamedTable | undefined = SHELF_TABLES[kind as keyof typeof SHELF_TABLES];
  if (!table) return "";
  const [row] = await db
    .select({ name: table.name })
    .from(table)
    .where(and(eq(table.workshopId, workshopId), eq(table.id, id)));
  return row?.name ?? "";
};

/** Returns which batches drew on a lot, by first received first out with every count between; and what became of their jars. */
export async function lotTrace(db: Database, workshopId: string, lotId: string, zone: string): Promise<{ lot: FoundLot; batches: TracedBatch[] } | null> {
  const [lot] = await db
    .select()
    .from(lots)
    .where(and(eq(lots.workshopId, workshopId), eq(lots.id, lotId)));
  if (!lot) return null;
  const [received, uses, counts, material] = await Promise.all([
    db
      .select()
      .from(lots)
      .where(and(eq(lots.workshopId, workshopId), eq(lots.materialId, lot.materialId), eq(lots.withdrawn, false))),
    db
      .select({ id: stockUses.eventId, batchId: stockUses.batchId, at: stockUses.at, amount: stockUses.amount })
      .from(stockUses)
      .where(and(eq(stockUses.workshopId, workshopId), eq(stockUses.materialId, lot.materialId))),
    db
      .select({ at: stockCounts.at, amount: stockCounts.amount })
      .from(stockCounts)
      .where(and(eq(stockCounts.workshopId, workshopId), eq(stockCounts.materialId, lot.materialId), eq(stockCounts.withdrawn, false)))
      .orderBy(asc(stockCounts.at), asc(stockCounts.id)),
    materialName(db, workshopId, lot.kind, lot.materialId),
  ]);
  const book = ledger(
    received.map((item) => ({ ...item, receivedAt: receivedAt(item, zone) })),
    uses,
    counts,
  );
  const amounts = new Map<string, number>();
  for (const { id, batchId } of uses) {
    const mine = (book.taken.get(id) ?? []).reduce((sum, item) => sum + (item.lotId === lotId ? item.amount : 0), 0);
    if (mine > 0) amounts.set(batchId, (amounts.get(batchId) ?? 0) + mine);
  }
  return {
    lot: { id: lot.id, kind: lot.kind, code: lot.code, material, receivedOn: lot.receivedOn, amount: lot.amount },
    batches: (await batchesBy(db, workshopId, [...amounts.keys()])).map((batch) => ({ ...batch, amount: amounts.get(batch.id) ?? 0 })),
  };
}

/** The most that is shown at once. */
const MAX_SHOWN = 400;

async function batchesBy(db: Database, workshopId: string, ids: string[]): Promise<TracedBatch[]> {
  if (ids.length === 0) return [];
  const rows = await db
    .select()
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), inArray(batches.id, ids)))
    .orderBy(desc(batches.startedAt))
    .limit(MAX_SHOWN);
  return Promise.all(
    rows.map(async (row) => {
      const { plan, state } = await readBatchState(db, row);
      return traced(row, plan, state);
    }),
  );
}

export interface FoundNote {
  batch: { id: string; number: number };
  at: string;
  text: string;
}

export interface FoundRecord {
  batches: TracedBatch[];
  /** Which jar of the one batch was asked for, and of which product it is. */
  jar: { number: number; product: string } | null;
  lots: FoundLot[];
  notes: FoundNote[];
}

const EACH = 25;

/** Returns the product of the jar with a number; null if there is none. Jars of a batch are numbered product by product, from 1. */
export function jarOf(plan: BatchPlan, state: BatchState, number: number): string | null {
  let from = 0;
  for (const product of plan.products) {
    from += jarStatusesOf(plan, state, product.key).filled;
    if (number <= from) return number >= 1 ? product.name : null;
  }
  return null;
}

/** On a day of the workshop's own zone. */
const within = (column: AnyColumn, day: string, zone: string) =>
  and(gte(column, new Date(timeOn(day, 0, zone)).toISOString()), lt(column, new Date(timeOn(addDays(day, 1), 0, zone)).toISOString()));

/** Searches the whole record: a batch's number, a jar's ("41-3"), a lot's code or material, a day on which a batch was started or poured, words of notes, a formula's name. */
export async function searchRecord(db: Database, { id: workshopId, timeZone }: { id: string; timeZone: string }, text: string): Promise<FoundRecord> {
  const q = text.trim();
  const none: FoundRecord = { batches: [], jar: null, lots: [], notes: [] };
  if (q === "") return none;
  const [, number, jar] = /^#?(\d{1,9})(?:[-/.](\d{1,4}))?$/.exec(q) ?? [];
  const day = /^\d{4}-\d{2}-\d{2}$/.test(q) && !Number.isNaN(Date.parse(q)) ? q : null;
  const like = containing(q);
  const where = number
    ? eq(batches.number, Number(number))
    : day
      ? or(within(batches.startedAt, day, timeZone), within(batches.pouredAt, day, timeZone))
      : ofFormulaLike(workshopId, q);
  const rows = await db
    .select()
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), where))
    .orderBy(desc(batches.startedAt))
    .limit(EACH);
  const kept = await Promise.all(rows.map(async (row) => ({ row, ...(await readBatchState(db, row)) })));
  const only = jar && kept[0] ? jarOf(kept[0].plan, kept[0].state, Number(jar)) : null;
  const [found, said] = day ? [[], []] : await Promise.all([lotsLike(db, workshopId, like), notesLike(db, workshopId, like)]);
  return {
    batches: kept.map(({ row, plan, state }) => traced(row, plan, state)),
    jar: only ? { number: Number(jar), product: only } : null,
    lots: found,
    notes: said,
  };
}

/** Returns lots by their code, or by the name of what they are of. */
export const findLots = (db: Database, workshopId: string, text: string): Promise<FoundLot[]> => lotsLike(db, workshopId, containing(text.trim()));

async function lotsLike(db: Database, workshopId: string, like: string): Promise<FoundLot[]> {
  const named = sql.join(
    STOCKED.map((kind) => sql`select id, name from ${SHELF_TABLES[kind]} where workshop_id = ${workshopId}`),
    sql` union all `,
  );
  const { rows } = await db.execute<{ id: string; kind: string; code: string; material: string; received_on: string; amount: string }>(sql`
    select l.id::text, l.kind, l.code, m.name material, l.received_on::text, l.amount
    from lot l join (${named}) m on m.id = l.material_id
    where l.workshop_id = ${workshopId} and not l.withdrawn and (l.code ilike ${like} or m.name ilike ${like})
    order by l.received_on desc, l.id limit ${EACH}`);
  return rows.map((row) => ({ id: row.id, kind: row.kind, code: row.code, material: row.material, receivedOn: row.received_on, amount: Number(row.amount) }));
}

async function notesLike(db: Database, workshopId: string, like: string): Promise<FoundNote[]> {
  const [written, logged] = await Promise.all([
    db
      .select({ id: batches.id, number: batches.number, at: notes.at, text: notes.text })
      .from(notes)
      .innerJoin(batches, and(eq(batches.workshopId, notes.workshopId), eq(batches.id, notes.ofId)))
      .where(and(eq(notes.workshopId, workshopId), eq(notes.kind, "batch"), ilike(notes.text, like), eq(notes.deleted, false)))
      .orderBy(desc(notes.at))
      .limit(EACH),
    db
      .select({ id: batches.id, number: batches.number, at: batchEvents.happenedAt, text: sql<string>`${batchEvents.payload}->>'text'` })
      .from(batchEvents)
      .innerJoin(batches, and(eq(batches.workshopId, batchEvents.workshopId), eq(batches.id, batchEvents.batchId)))
      .where(and(eq(batchEvents.workshopId, workshopId), eq(batchEvents.kind, "note"), or(sql`${batchEvents.payload}->>'text' ilike ${like}`)))
      .orderBy(desc(batchEvents.happenedAt))
      .limit(EACH),
  ]);
  return [...written, ...logged]
    .map(({ id, number, at, text }) => ({ batch: { id, number }, at: new Date(at).toISOString(), text }))
    .sort((a, b) => Date.parse(b.at) - Date.parse(a.at))
    .slice(0, EACH);
}
