import { type BatchEvent, type BatchPlan, type BatchState, batchOf, readableOf, STATE_VERSION } from "@hearth/core";
import { toEvent } from "@/data/batch-rows";
import type { Database, Transaction } from "@/data/client";
import { batchEvents, type batches } from "@/data/tables/batch";
import { readEvents } from "./aggregate-store";

/** Returns all entries of one batch, in order. */
export const readBatchEvents = (db: Database | Transaction, workshopId: string, batchId: string): Promise<BatchEvent[]> =>
  readEvents({ eventTable: batchEvents, aggregateId: batchEvents.batchId, toEvent }, db, workshopId, batchId);

/**
 * Returns the plan and the kept state of a batch's row; recalculated from its entries where an older program wrote them, or none did. `unreadable` says why its
 * start cannot be read: then there is what can be shown of it.
 */
export async function readBatchState(
  db: Database | Transaction,
  row: Pick<typeof batches.$inferSelect, "workshopId" | "id" | "plan" | "state">,
): Promise<{ plan: BatchPlan; state: BatchState; unreadable: string | null }> {
  const kept = row.plan ? readableOf(row.plan) : null;
  const isNew = row.state?.format === STATE_VERSION;
  if (kept && !kept.unreadable && row.state && isNew) return { ...kept, state: row.state };
  const standIn = kept ?? readableOf(null);
  const { plan, state } = batchOf(await readBatchEvents(db, row.workshopId, row.id), standIn.plan);
  return { plan, state: row.state && isNew ? row.state : state, unreadable: plan === standIn.plan ? standIn.unreadable : null };
}
