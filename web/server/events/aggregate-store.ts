import type { Aggregate, EventOf, LogState, Rejection, StockUse } from "@hearth/core";
import { and, asc, count, desc, eq, gt } from "drizzle-orm";
import type { AnyPgColumn } from "drizzle-orm/pg-core";
import type { z } from "zod";
import { atOneMoment, type Database, type Transaction } from "@/data/client";
import type { EntryRow } from "@/data/entry-rows";
import { readEpoch } from "@/data/epoch";
import type { OwnedTable, TextColumn } from "@/server/inventory/tables";

type MaybeText = AnyPgColumn<{ data: string; notNull: false }>;
type Whole = AnyPgColumn<{ data: number; notNull: true }>;
/** A table of entries. All are alike but for the column that says what an entry is about. */
export interface EntryTable extends OwnedTable {
  seq: Whole;
  kind: TextColumn;
  happenedAt: TextColumn;
  arrivedAt: TextColumn;
  personId: MaybeText;
  instrumentId: MaybeText;
  corrects: MaybeText;
  deviceAt: MaybeText;
  v: Whole;
  payload: AnyPgColumn;
}

/** Returns the columns that are read of an entry. */
export const entryColumns = (table: EntryTable) => ({
  seq: table.seq,
  id: table.id,
  kind: table.kind,
  happenedAt: table.happenedAt,
  arrivedAt: table.arrivedAt,
  personId: table.personId,
  instrumentId: table.instrumentId,
  corrects: table.corrects,
  deviceAt: table.deviceAt,
  v: table.v,
  payload: table.payload,
});

/** What is asked of a subject of core's log. */
interface CheckedSubject<F extends LogState, C, E> extends Aggregate<F, C> {
  sent: z.ZodType;
  upcastSent: (raw: unknown) => unknown;
  of: (events: readonly E[], kept?: C | null) => { plan: C; state: F; uses: StockUse[]; entries: { event: E; supersededBy: E | null }[] };
  refusal: (at: { plan: C; state: F }, event: EventOf, target: { event: E; supersededBy: E | null } | null) => Rejection | null;
  onlyByCommand: (kind: string) => string | null;
  conflict: (events: readonly E[], event: E, kept?: C | null) => Rejection | null;
}

/** How an aggregate is kept: its rows, its entries, and what else is written with each. */
export interface AggregateStore<F extends LogState, C, E extends EventOf, R = unknown> {
  what: "batch" | "trial" | "order";
  subject: CheckedSubject<F, C, E>;
  /** Its table of entries, and that table's column for which one an entry is about. */
  eventTable: EntryTable;
  aggregateId: AnyPgColumn;
  toEvent: (row: EntryRow) => E;
  toRow: (workshopId: string, id: string, event: E) => EntryRow & { workshopId: string };
  /** Its own table, and what of its row follows from its entries: written with each. */
  aggregateTable: OwnedTable;
  columns: (row: R, plan: C, state: F) => Partial<R>;
  /** Its row, held until the transaction ends where `lock` is set; null if the workshop has none such. */
  readRow: (tx: Transaction, workshopId: string, id: string, lock: boolean) => Promise<R | null>;
  /** Its plan and state. `unreadable` says why its plan cannot be read: then nothing may be added to it. */
  readState: (tx: Transaction, row: R) => Promise<{ plan: C; state: F; unreadable?: string | null }>;
  /** Why an entry cannot be taken by what is kept elsewhere, which is held until the transaction ends; asked where its own state has nothing against it. */
  checkOutside?: (tx: Transaction, at: { workshopId: string; id: string; event: E; before: F; after: F }) => Promise<Rejection | null>;
  /**
   * Writes elsewhere what follows from a new entry. `before` is what its state were; `whole` where the log was read anew, and `uses` is then what all
   * standing entries drew from stock, otherwise what this one drew.
   */
  writeDerived: (
    tx: Transaction,
    at: { workshopId: string; id: string; row: R; plan: C; state: F; before: F; uses: readonly StockUse[]; whole: boolean },
  ) => Promise<void>;
}

/** Returns all entries of one, in order. */
export async function readEvents<F extends LogState, C, E extends EventOf>(
  store: Pick<AggregateStore<F, C, E>, "eventTable" | "aggregateId" | "toEvent">,
  db: Database | Transaction,
  workshopId: string,
  id: string,
): Promise<E[]> {
  const { eventTable: table } = store;
  const rows = await db
    .select(entryColumns(table))
    .from(table)
    .where(and(eq(table.workshopId, workshopId), eq(store.aggregateId, id)))
    .orderBy(asc(table.happenedAt), asc(table.arrivedAt), asc(table.id));
  return rows.map(store.toEvent);
}

/** The most entries that a page is given at once; more are read from the record. */
export const MAX_ENTRIES = 400;

/** Returns what was written since: its state as they are now, the entries after `seq`, and of which history of the database they are. */
export const readSince = <F extends LogState, C, E extends EventOf, R>(
  store: AggregateStore<F, C, E, R>,
  db: Database,
  workshopId: string,
  id: string,
  seq: number,
) =>
  atOneMoment(db, async (tx): Promise<{ state: F; events: E[]; seq: number; epoch: string } | null> => {
    const row = await store.readRow(tx, workshopId, id, false);
    if (!row) return null;
    const { state } = await store.readState(tx, row);
    const { eventTable: table } = store;
    const rows = await tx
      .select(entryColumns(table))
      .from(table)
      .where(and(eq(table.workshopId, workshopId), eq(store.aggregateId, id), gt(table.seq, seq)))
      .orderBy(asc(table.seq))
      .limit(MAX_ENTRIES);
    return { state, events: rows.map(store.toEvent), seq: rows.at(-1)?.seq ?? seq, epoch: await readEpoch(tx) };
  });

/** The newest entries of one, how many there are, the place of the newest, and of which history of the database they are. */
export async function readNewest<F extends LogState, C, E extends EventOf>(
  store: Pick<AggregateStore<F, C, E>, "eventTable" | "aggregateId" | "toEvent">,
  tx: Transaction,
  workshopId: string,
  id: string,
): Promise<{ events: E[]; total: number; seq: number; epoch: string }> {
  const { eventTable: table } = store;
  const where = and(eq(table.workshopId, workshopId), eq(store.aggregateId, id));
  const [total] = await tx.select({ n: count() }).from(table).where(where);
  const rows = await tx.select(entryColumns(table)).from(table).where(where).orderBy(desc(table.seq)).limit(MAX_ENTRIES);
  return { events: rows.map(store.toEvent).reverse(), total: total?.n ?? rows.length, seq: rows[0]?.seq ?? 0, epoch: await readEpoch(tx) };
}
