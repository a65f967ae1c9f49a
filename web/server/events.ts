import { type BatchEvent, type BatchFacts, type BatchPlan, batchOf, FACTS_FORMAT, readableOf } from "@hearth/core";
import { toEvent } from "@/data/batch-rows";
import type { Database, Transaction } from "@/data/client";
import { batchEvents, type batches } from "@/data/tables/batch";
import { entriesOf } from "./keeper";
import { readOnce } from "./read-once";

/** All entries of one batch, in order. */
export const eventsOf = (db: Database | Transaction, workshopId: string, batchId: string): Promise<BatchEvent[]> =>
  entriesOf({ table: batchEvents, of: batchEvents.batchId, toEvent }, db, workshopId, batchId);

const planOf = readOnce(readableOf);

/**
 * The plan and the kept facts of a batch's row; worked out anew from its entries where an older program wrote them, or none did. `unreadable` says why its
 * start cannot be read: then there is what can be shown of it.
 */
export async function keptOf(
  db: Database | Transaction,
  row: Pick<typeof batches.$inferSelect, "workshopId" | "id" | "plan" | "facts">,
): Promise<{ plan: BatchPlan; facts: BatchFacts; unreadable: string | null }> {
  const kept = row.plan ? planOf(row.plan) : null;
  const isNew = row.facts?.format === FACTS_FORMAT;
  if (kept && !kept.unreadable && row.facts && isNew) return { ...kept, facts: row.facts };
  const standIn = kept ?? readableOf(null);
  const { plan, facts } = batchOf(await eventsOf(db, row.workshopId, row.id), standIn.plan);
  return { plan, facts: row.facts && isNew ? row.facts : facts, unreadable: plan === standIn.plan ? standIn.unreadable : null };
}
