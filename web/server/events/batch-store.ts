import { type BatchEvent, type BatchPlan, type BatchState, CHECKED_BATCH, type SentEvent } from "@hearth/core";
import { rollup, sum } from "d3-array";
import { and, eq, inArray, sql } from "drizzle-orm";
import { eventRow, rowOf, toEvent } from "@/data/batch-rows";
import type { Database } from "@/data/client";
import { writeOutcomes } from "@/data/outcome-rows";
import { writeStockUses } from "@/data/stock-uses";
import { batchEvents, batches } from "@/data/tables/batch";
import { packedPieces, packRuns } from "@/data/tables/sales";
import { notifyPages } from "@/server/http/change-stream";
import { writeRecoveredLots } from "@/server/inventory/recovered-lots";
import type { AggregateStore } from "./aggregate-store";
import { appendTo } from "./append";
import { readBatchState } from "./read-events";

const condition = (workshopId: string, id: string) => and(eq(batches.workshopId, workshopId), eq(batches.id, id));

/** How batches are kept: with an entry go the draws on stock and what findings count. */
export const batchStore: AggregateStore<BatchState, BatchPlan, BatchEvent, typeof batches.$inferSelect> = {
  what: "batch",
  subject: CHECKED_BATCH,
  eventTable: batchEvents,
  aggregateId: batchEvents.batchId,
  toEvent,
  toRow: eventRow,
  aggregateTable: batches,
  columns: (row, plan, state) => {
    const { plan: frozen, ...rest } = rowOf(plan, state);
    return row.plan ? rest : { ...rest, plan: frozen };
  },
  readRow: async (tx, workshopId, id, lock) => {
    const asked = tx.select().from(batches).where(condition(workshopId, id));
    return (await (lock ? asked.for("no key update") : asked))[0] ?? null;
  },
  readState: readBatchState,
  // Jars that are packed are those of the pack runs that are there, and no others.
  checkOutside: async (tx, { workshopId, id, before, after }) => {
    const packedOf = (state: BatchState) =>
      rollup(
        state.jarStatuses.filter((jarStatus) => jarStatus.packRun),
        (list) => sum(list, (item) => item.jars),
        (item) => `${item.packRun} ${item.product}`,
      );
    const [was, is] = [packedOf(before), packedOf(after)];
    const changed = [...new Set([...was.keys(), ...is.keys()])].filter((key) => was.get(key) !== is.get(key));
    if (changed.length === 0) return null;
    const runs = await tx
      .select({ id: packRuns.id, name: packRuns.name, undone: packRuns.deleted, product: packedPieces.product, pieces: packedPieces.pieces })
      .from(packRuns)
      .innerJoin(packedPieces, and(eq(packedPieces.workshopId, packRuns.workshopId), eq(packedPieces.packRunId, packRuns.id)))
      .where(
        and(
          eq(packRuns.workshopId, workshopId),
          eq(packedPieces.batchId, id),
          inArray(
            packRuns.id,
            changed.map((key) => key.slice(0, 36)),
          ),
        ),
      );
    for (const key of changed) {
      const run = runs.find((item) => `${item.id} ${item.product}` === key);
      const pieces = is.get(key) ?? 0;
      if (run && pieces === (run.undone ? 0 : run.pieces)) continue;
      if (!run) return { field: "packRun", message: "These packs are not in this workshop. Pack the jars under Sell." };
      return {
        field: "packRun",
        message: run.undone
          ? `These jars were unpacked from ${run.name}. Pack again under Sell.`
          : `${run.pieces} jars are packed as ${run.name}. Unpack them under Sell first.`,
      };
    }
    return null;
  },
  writeDerived: async (tx, { workshopId, id, row, plan, state, before, uses, whole }) => {
    if (row.drawsStock) {
      await writeStockUses(tx, workshopId, id, uses, whole);
      await writeRecoveredLots(tx, workshopId, row.number, plan, state, before);
    }
    await writeOutcomes(tx, workshopId, id, plan, state, before);
  },
};

/** Adds one entry to a batch, in one transaction with what follows from it. The same entry again changes nothing. */
export const appendEvent = (db: Database, workshopId: string, batchId: string, sent: SentEvent, now: string) =>
  appendTo(batchStore, db, workshopId, batchId, sent as BatchEvent, now);

/** Undoes the start of a batch that nothing has followed but what was recorded in the same act: as if it had never been. */
export async function undoStart(db: Database, workshopId: string, batchId: string): Promise<{ ok: boolean; message: string }> {
  return db.transaction(async (tx) => {
    const condition = and(eq(batches.workshopId, workshopId), eq(batches.id, batchId));
    const [batch] = await tx.select({ id: batches.id }).from(batches).where(condition).for("no key update");
    if (!batch) return { ok: false, message: "This batch is no longer in this workshop." };
    const { rows } = await tx.execute<{ undone: boolean }>(sql`select undo_start(${workshopId}, ${batchId}) as undone`);
    if (!rows[0]?.undone) return { ok: false, message: "This batch has entries already. Abandon it instead." };
    await notifyPages(tx, { workshop: workshopId, batch: batchId });
    return { ok: true, message: "" };
  });
}
