import { type BatchEvent, type BatchFacts, type BatchPlan, batchOf, FACTS_FORMAT, readPlan } from "@hearth/core";
import { toEvent } from "@/data/batch-rows";
import type { Database, Transaction } from "@/data/client";
import { batchEvents, type batches } from "@/data/tables/batch";
import { entriesOf } from "./keeper";
import { readOnce } from "./read-once";

/** All entries of one batch, in order. */
export const eventsOf = (db: Database | Transaction, workshopId: string, batchId: string): Promise<BatchEvent[]> =>
  entriesOf({ table: batchEvents, of: batchEvents.batchId, toEvent }, db, workshopId, batchId);

const planOf = readOnce(readPlan);

/** The plan and the kept facts of a batch's row; worked out anew from its entries where an older program wrote them, or none did. */
export async function keptOf(
  db: Database | Transaction,
  row: Pick<typeof batches.$inferSelect, "workshopId" | "id" | "plan" | "facts">,
): Promise<{ plan: BatchPlan; facts: BatchFacts }> {
  if (row.plan && row.facts && row.facts.format === FACTS_FORMAT) return { plan: planOf(row.plan), facts: row.facts };
  const { plan, facts } = batchOf(await eventsOf(db, row.workshopId, row.id));
  return { plan, facts };
}
