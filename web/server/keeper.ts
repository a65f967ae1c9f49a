import type { EventOf, LogFacts, Refusal, StockUse } from "@hearth/core";
import { type AnyColumn, and, asc, count, desc, eq, gt } from "drizzle-orm";
import type { PgTable } from "drizzle-orm/pg-core";
import type { z } from "zod";
import { atOneMoment, type Database, type Transaction } from "@/data/client";
import type { EntryRow } from "@/data/entry-rows";
import { readEpoch } from "@/data/epoch";
import type { batchEvents } from "@/data/tables/batch";

/** The tables of entries are alike but for the column that says what an entry is about. */
type EntryTable = typeof batchEvents;

/** What is asked of a subject of core's log. */
interface Subject<F, C, E> {
  kinds: ReadonlyMap<string, unknown>;
  first: (frozen: C, start: EventOf) => F;
  sent: z.ZodType;
  upcastSent: (raw: unknown) => unknown;
  of: (events: readonly E[], kept?: C | null) => { plan: C; facts: F; uses: StockUse[]; entries: { event: E; supersededBy: E | null }[] };
  refusal: (at: { plan: C; facts: F }, event: EventOf, target: { event: E; supersededBy: E | null } | null) => Refusal | null;
  ownWords: (kind: string) => string | null;
  conflict: (events: readonly E[], event: E, kept?: C | null) => Refusal | null;
}

/** How a subject of the log is kept: its rows, its entries, and what else is written with each. */
export interface Keeper<F extends LogFacts, C, E extends EventOf, R = unknown> {
  what: "batch" | "trial" | "order";
  subject: Subject<F, C, E>;
  /** Its table of entries, and that table's column for which one an entry is about. */
  table: EntryTable;
  of: AnyColumn;
  ofRow: (row: unknown) => string;
  toEvent: (row: EntryRow) => E;
  toRow: (workshopId: string, id: string, event: E) => EntryTable["$inferInsert"];
  /** Its own table, and what of its row follows from its entries: written with each. */
  rows: PgTable;
  columns: (row: R, plan: C, facts: F) => Partial<R>;
  /** Its row, held until the transaction ends where `lock` is set; null where the workshop has none such. */
  row: (tx: Transaction, workshopId: string, id: string, lock: boolean) => Promise<R | null>;
  /** Its plan and state. `unreadable` says why its plan cannot be read: then nothing may be added to it. */
  kept: (tx: Transaction, row: R) => Promise<{ plan: C; facts: F; unreadable?: string | null }>;
  /** Why an entry cannot be taken by what is kept elsewhere, which is held until the transaction ends; asked where its own state has nothing against it. */
  outside?: (tx: Transaction, at: { workshopId: string; id: string; event: E; before: F; after: F }) => Promise<Refusal | null>;
  /**
   * Writes elsewhere what follows from a new entry. `before` is what its facts were; `whole` where the log was read anew, and `uses` is then what all
   * standing entries drew from stock, otherwise what this one drew.
   */
  follow: (
    tx: Transaction,
    at: { workshopId: string; id: string; row: R; plan: C; facts: F; before: F; uses: readonly StockUse[]; whole: boolean },
  ) => Promise<void>;
}

/** All entries of one, in order. */
export async function entriesOf<F extends LogFacts, C, E extends EventOf>(
  keeper: Pick<Keeper<F, C, E>, "table" | "of" | "toEvent">,
  db: Database | Transaction,
  workshopId: string,
  id: string,
): Promise<E[]> {
  const { table } = keeper;
  const rows = await db
    .select()
    .from(table)
    .where(and(eq(table.workshopId, workshopId), eq(keeper.of, id)))
    .orderBy(asc(table.happenedAt), asc(table.arrivedAt), asc(table.id));
  return rows.map(keeper.toEvent);
}

/** The most entries that a page is given at once; more are read from the record. */
export const MOST_ENTRIES = 400;

/** What was written since: its facts as they are now, the entries after `seq`, and of which history of the database they are. */
export const readSince = <F extends LogFacts, C, E extends EventOf, R>(keeper: Keeper<F, C, E, R>, db: Database, workshopId: string, id: string, seq: number) =>
  atOneMoment(db, async (tx): Promise<{ facts: F; events: E[]; seq: number; epoch: string } | null> => {
    const row = await keeper.row(tx, workshopId, id, false);
    if (!row) return null;
    const { facts } = await keeper.kept(tx, row);
    const { table } = keeper;
    const rows = await tx
      .select()
      .from(table)
      .where(and(eq(table.workshopId, workshopId), eq(keeper.of, id), gt(table.seq, seq)))
      .orderBy(asc(table.seq))
      .limit(MOST_ENTRIES);
    return { facts, events: rows.map(keeper.toEvent), seq: rows.at(-1)?.seq ?? seq, epoch: await readEpoch(tx) };
  });

/** The newest entries of one, how many there are, the place of the newest, and of which history of the database they are. */
export async function newestOf<F extends LogFacts, C, E extends EventOf>(
  keeper: Pick<Keeper<F, C, E>, "table" | "of" | "toEvent">,
  tx: Transaction,
  workshopId: string,
  id: string,
): Promise<{ events: E[]; total: number; seq: number; epoch: string }> {
  const { table } = keeper;
  const where = and(eq(table.workshopId, workshopId), eq(keeper.of, id));
  const [total] = await tx.select({ n: count() }).from(table).where(where);
  const rows = await tx.select().from(table).where(where).orderBy(desc(table.seq)).limit(MOST_ENTRIES);
  return { events: rows.map(keeper.toEvent).reverse(), total: total?.n ?? rows.length, seq: rows[0]?.seq ?? 0, epoch: await readEpoch(tx) };
}
