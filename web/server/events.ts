import { type BatchEvent, type BatchFacts, type BatchPlan, batchOf, FACTS_FORMAT, readPlan } from "@hearth/core";
import { toEvent } from "@/data/batch-rows";
import type { Database, Transaction } from "@/data/client";
import { batchEvents, type batches } from "@/data/tables/batch";
import { entriesOf } from "./keeper";

/** All entries of one batch, in order. */
export const eventsOf = (db: Database | Transaction, workshopId: string, batchId: string): Promise<BatchEvent[]> =>
  entriesOf({ table: batchEvents, of: batchEvents.batchId, toEvent }, db, workshopId, batchId);

/** So many plans are kept as they were read: a frozen plan is the same with each entry, and checking it takes longer than folding the entry. */
const MOST_PLANS = 300;
const plans = new Map<string, BatchPlan>();

/** A stored plan, checked once. It is only read: whoever is given it shares it. */
function planOf(stored: unknown): BatchPlan {
  const text = JSON.stringify(stored);
  let plan = plans.get(text);
  if (!plan) {
    if (plans.size >= MOST_PLANS) plans.clear();
    plan = readPlan(stored);
    plans.set(text, plan);
  }
  return plan;
}

/** The plan and the kept facts of a batch's row; worked out anew from its entries where an older program wrote them, or none did. */
export async function keptOf(
  db: Database | Transaction,
  row: Pick<typeof batches.$inferSelect, "workshopId" | "id" | "plan" | "facts">,
): Promise<{ plan: BatchPlan; facts: BatchFacts }> {
  if (row.plan && row.facts && row.facts.format === FACTS_FORMAT) return { plan: planOf(row.plan), facts: row.facts };
  const { plan, facts } = batchOf(await eventsOf(db, row.workshopId, row.id));
  return { plan, facts };
}
