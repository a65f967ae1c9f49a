import { type BatchEvent, type BatchFacts, type BatchPlan, CHECKED_BATCH, type SentEvent } from "@hearth/core";
import { and, eq, sql } from "drizzle-orm";
import { eventRow, rowOf, toEvent } from "@/data/batch-rows";
import type { Database } from "@/data/client";
import { writeOutcomes } from "@/data/outcome-rows";
import { batchEvents, batches } from "@/data/tables/batch";
import { appendTo } from "./append";
import { writeDraws } from "./draws";
import { keptOf } from "./events";
import type { Keeper } from "./keeper";
import { tellPages } from "./live";

const mine = (workshopId: string, id: string) => and(eq(batches.workshopId, workshopId), eq(batches.id, id));

/** How batches are kept: with an entry go the draws on stock and what findings count. */
export const BATCHES: Keeper<BatchFacts, BatchPlan, BatchEvent, typeof batches.$inferSelect> = {
  what: "batch",
  subject: CHECKED_BATCH,
  table: batchEvents,
  of: batchEvents.batchId,
  ofRow: (row) => (row as typeof batchEvents.$inferSelect).batchId,
  toEvent,
  toRow: eventRow,
  rows: batches,
  columns: (row, plan, facts) => {
    const { plan: frozen, ...rest } = rowOf(plan, facts);
    return row.plan ? rest : { ...rest, plan: frozen };
  },
  row: async (tx, workshopId, id, lock) => {
    const asked = tx.select().from(batches).where(mine(workshopId, id));
    return (await (lock ? asked.for("update") : asked))[0] ?? null;
  },
  kept: keptOf,
  follow: async (tx, { workshopId, id, row, plan, facts, before, whole }) => {
    if (row.drawsStock) await writeDraws(tx, workshopId, id, facts, whole ? null : before);
    await writeOutcomes(tx, workshopId, id, plan, facts, before);
  },
};

/** Adds one entry to a batch, in one transaction with what follows from it. The same entry again changes nothing. */
export const appendEvent = (db: Database, workshopId: string, batchId: string, sent: SentEvent, now: string) =>
  appendTo(BATCHES, db, workshopId, batchId, sent as BatchEvent, now);

/** Undoes the start of a batch that nothing has followed: as if it had never been. */
export async function undoStart(db: Database, workshopId: string, batchId: string): Promise<{ ok: boolean; message: string }> {
  return db.transaction(async (tx) => {
    const mine = and(eq(batches.workshopId, workshopId), eq(batches.id, batchId));
    const [batch] = await tx.select({ id: batches.id }).from(batches).where(mine).for("update");
    if (!batch) return { ok: false, message: "This batch is not in this workshop any more." };
    const rows = await tx
      .select({ id: batchEvents.id })
      .from(batchEvents)
      .where(and(eq(batchEvents.workshopId, workshopId), eq(batchEvents.batchId, batchId)))
      .limit(2);
    if (rows.length > 1) return { ok: false, message: "This batch has entries already. Abandon it instead, and say what became of the wax." };
    await tx.execute(sql`select undo_start(${workshopId}, ${batchId})`);
    await tellPages(tx, { workshop: workshopId, batch: batchId });
    return { ok: true, message: "" };
  });
}
