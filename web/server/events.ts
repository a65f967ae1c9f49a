import { type BatchEvent, type BatchFacts, type BatchPlan, batchOf, FACTS_FORMAT, readPlan } from "@hearth/core";
import { and, asc, eq } from "drizzle-orm";
import { toEvent } from "@/data/batch-rows";
import type { Database, Transaction } from "@/data/client";
import { batchEvents, type batches } from "@/data/tables/batch";

/** All entries of one batch, in order. */
export async function eventsOf(db: Database | Transaction, workshopId: string, batchId: string): Promise<BatchEvent[]> {
  const rows = await db
    .select()
    .from(batchEvents)
    .where(and(eq(batchEvents.workshopId, workshopId), eq(batchEvents.batchId, batchId)))
    .orderBy(asc(batchEvents.happenedAt), asc(batchEvents.arrivedAt), asc(batchEvents.id));
  return rows.map(toEvent);
}

/** The plan and the kept facts of a batch's row; worked out anew from its entries where an older program wrote them, or none did. */
export async function keptOf(
  db: Database | Transaction,
  row: Pick<typeof batches.$inferSelect, "workshopId" | "id" | "plan" | "facts">,
): Promise<{ plan: BatchPlan; facts: BatchFacts }> {
  if (row.plan && row.facts && row.facts.format === FACTS_FORMAT) return { plan: readPlan(row.plan), facts: row.facts };
  const { plan, facts } = batchOf(await eventsOf(db, row.workshopId, row.id));
  return { plan, facts };
}
