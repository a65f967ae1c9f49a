import { type BatchPlan, type BatchState, dayAt, type JarStatus, jarStatusesOf, ledger, parseSpan, STOCKED } from "@hearth/core";
import { and, asc, desc, eq, or, sql } from "drizzle-orm";
import type { Database } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { lots, stockCounts, stockUses } from "@/data/tables/stock";
import { ofFormulaLike } from "@/server/batches/batches";
import { readBatchState } from "@/server/events/read-events";
import { periodOfDays, within } from "@/server/http/period";
import { amongIds } from "@/server/shared/among-ids";
import { containing } from "@/server/shared/natural-sort";
import { countNotes, type NoteListed, notesWith } from "@/server/workshops/all-notes";
import { receivedAt } from "./shelf";
import { type NamedTable, SHELF_TABLES } from "./tables";

/** A batch with what became of its jars. */
export interface TracedBatch {
  id: string;
  number: number;
  title: string;
  pouredAt: string | null;
  jars: number;
  jarStatuses: { status: JarStatus; jars: number }[];
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

const TRACED = { id: batches.id, number: batches.number, title: batches.title, pouredAt: batches.pouredAt, jarTotals: batches.jarTotals };
const traced = ({ id, number, title, pouredAt, jarTotals }: Pick<typeof batches.$inferSelect, keyof typeof TRACED>): TracedBatch => ({
  id,
  number,
  title: title || "cannot be read",
  pouredAt: pouredAt && new Date(pouredAt).toISOString(),
  jars: jarTotals.jars,
  jarStatuses: jarTotals.statuses,
  whom: jarTotals.whom,
});

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
    if (mine > 0 && batchId !== null) amounts.set(batchId, (amounts.get(batchId) ?? 0) + mine);
  }
  return {
    lot: { id: lot.id, kind: lot.kind, code: lot.code, material, receivedOn: lot.receivedOn, amount: lot.amount },
    batches: (await batchesBy(db, workshopId, [...amounts.keys()])).map((batch) => ({ ...batch, amount: amounts.get(batch.id) ?? 0 })),
  };
}

/** Statuses of jars that are still in the workshop. */
const HERE: readonly JarStatus[] = ["rack", "testing", "packed"];

/** Returns all of these batches, the nearest first: what is not poured yet, what has jars here, then the others, the newest before. */
async function batchesBy(db: Database, workshopId: string, ids: string[]): Promise<TracedBatch[]> {
  const rows = await db
    .select(TRACED)
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), amongIds(batches.id, ids)))
    .orderBy(desc(batches.startedAt));
  const distance = (batch: TracedBatch) => (batch.pouredAt === null ? 0 : batch.jarStatuses.some(({ status }) => HERE.includes(status)) ? 1 : 2);
  return rows.map(traced).sort((a, b) => distance(a) - distance(b));
}

export interface FoundRecord {
  batches: TracedBatch[];
  /** Which jar of the one batch was asked for, and of which product it is. */
  jar: { number: number; product: string } | null;
  lots: FoundLot[];
  notes: NoteListed[];
  /** How many there are of each, of which the first are given. */
  totals: { batches: number; lots: number; notes: number };
}

/** How many of each are given where nobody asked for more. */
const FOUND_FIRST = 25;

/** Returns the product of the jar with a number; null if there is none. Jars of a batch are numbered product by product, from 1. */
export function jarOf(plan: BatchPlan, state: BatchState, number: number): string | null {
  let from = 0;
  for (const product of plan.products) {
    from += jarStatusesOf(plan, state, product.key).filled;
    if (number <= from) return number >= 1 ? product.name : null;
  }
  return null;
}

/** Searches the whole record, and gives the first `show` of each sort with how many there are: a batch's number, a jar's ("41-3"), a lot's code or material, a day or month in which a batch was started or poured, as the place writes it, words of notes, a formula's name. */
export async function searchRecord(
  db: Database,
  { id: workshopId, timeZone, locale }: { id: string; timeZone: string; locale?: string },
  text: string,
  now: string,
  show = FOUND_FIRST,
): Promise<FoundRecord> {
  const q = text.trim();
  const none: FoundRecord = { batches: [], jar: null, lots: [], notes: [], totals: { batches: 0, lots: 0, notes: 0 } };
  if (q === "") return none;
  const [, number, jar] = /^#?(\d{1,9})(?:[-/.](\d{1,4}))?$/.exec(q) ?? [];
  // A season by itself is rather a word of a name than a time.
  const span = number || !/\d|^(today|yesterday|this|last)\b/i.test(q) ? null : parseSpan(q, dayAt(now, timeZone), locale);
  const period = span && periodOfDays(span, timeZone);
  const like = containing(q);
  const where = number
    ? eq(batches.number, Number(number))
    : period
      ? or(within(period, sql`${batches.startedAt}`), within(period, sql`${batches.pouredAt}`))
      : ofFormulaLike(workshopId, q);
  const matching = and(eq(batches.workshopId, workshopId), where);
  const rows = await db.select(TRACED).from(batches).where(matching).orderBy(desc(batches.startedAt), desc(batches.id)).limit(show);
  const only = jar && rows[0] ? await productOfJar(db, workshopId, rows[0].id, Number(jar)) : null;
  const [found, notes, noted, total] = await Promise.all([
    span ? NO_MATCH : lotsLike(db, workshopId, like, show),
    span ? [] : notesWith(db, workshopId, q, show),
    span ? 0 : countNotes(db, workshopId, { q }),
    db.$count(batches, matching),
  ]);
  return {
    batches: rows.map(traced),
    jar: only ? { number: Number(jar), product: only } : null,
    lots: found.first,
    notes,
    totals: { batches: total, lots: found.total, notes: noted },
  };
}

/** The first of what matches, and how many do. */
interface Matches<T> {
  first: T[];
  total: number;
}
const NO_MATCH: Matches<never> = { first: [], total: 0 };

async function productOfJar(db: Database, workshopId: string, batchId: string, jar: number): Promise<string | null> {
  const [row] = await db
    .select()
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), eq(batches.id, batchId)));
  if (!row) return null;
  const { plan, state } = await readBatchState(db, row);
  return jarOf(plan, state, jar);
}

/** Returns lots by their code, or by the name of what they are of, the newest first. */
export const findLots = (db: Database, workshopId: string, text: string, show = FOUND_FIRST): Promise<Matches<FoundLot>> =>
  lotsLike(db, workshopId, containing(text.trim()), show);

async function lotsLike(db: Database, workshopId: string, like: string, show: number): Promise<Matches<FoundLot>> {
  const named = sql.join(
    STOCKED.map((kind) => sql`select id, name from ${SHELF_TABLES[kind]} where workshop_id = ${workshopId}`),
    sql` union all `,
  );
  const { rows } = await db.execute<{ id: string; kind: string; code: string; material: string; received_on: string; amount: string; total: number }>(sql`
    select l.id::text, l.kind, l.code, m.name material, l.received_on::text, l.amount, (count(*) over ())::int as total
    from lot l join (${named}) m on m.id = l.material_id
    where l.workshop_id = ${workshopId} and not l.withdrawn and (l.code ilike ${like} or m.name ilike ${like})
    order by l.received_on desc, l.id limit ${show}`);
  const first = rows.map(
    (row): FoundLot => ({ id: row.id, kind: row.kind, code: row.code, material: row.material, receivedOn: row.received_on, amount: Number(row.amount) }),
  );
  return { first, total: rows[0]?.total ?? 0 };
}
