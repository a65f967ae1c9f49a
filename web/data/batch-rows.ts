import { type BatchEvent, type BatchFacts, type BatchPlan, CHECKED_BATCH, cureTimes, looseOfAll, pouredAt } from "@hearth/core";
import { entryRows } from "./entry-rows";
import type { batchEvents } from "./tables/batch";

const rows = entryRows<BatchEvent>(CHECKED_BATCH);
export const { toEvent } = rows;
export const eventRow = (workshopId: string, batchId: string, event: BatchEvent): typeof batchEvents.$inferInsert => ({
  ...rows.toRow(event),
  workshopId,
  batchId,
});

/** Where a batch stands; a rehearsal stands nowhere that jars do. */
function stageOf(plan: BatchPlan, facts: BatchFacts, poured: string | null) {
  if (plan.rehearsal) return poured || facts.closed || facts.abandoned ? ("rehearsed" as const) : ("rehearsal" as const);
  return facts.closed ? ("closed" as const) : facts.abandoned ? ("abandoned" as const) : poured ? ("rack" as const) : ("pot" as const);
}

/** The stages of batches that count. */
export const REAL_STAGES = ["pot", "rack", "closed", "abandoned"] as const;

/** What the batch's row repeats of what follows from its entries. */
export function rowOf(plan: BatchPlan, facts: BatchFacts) {
  const poured = pouredAt(plan, facts);
  const times = poured ? cureTimes(poured, plan.process) : null;
  const loose = looseOfAll(plan, facts);
  return {
    plan,
    facts,
    stage: stageOf(plan, facts, poured),
    startedAt: facts.startedAt,
    pouredAt: poured,
    lookedAt: facts.lookedAt,
    closedAt: facts.closed?.at ?? facts.abandoned?.at ?? null,
    setAt: times?.setAt ?? null,
    testFrom: times?.testFrom ?? null,
    sellFrom: times?.sellFrom ?? null,
    loose: loose.reduce((sum, one) => sum + one.left, 0),
    looseOf: loose,
  };
}
