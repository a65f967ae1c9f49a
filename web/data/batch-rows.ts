import { type BatchEvent, type BatchPlan, type BatchState, CHECKED_BATCH, cureTimes, jarTotals, looseOfAll, pouredAt, titleOf } from "@hearth/core";
import { entryRows } from "./entry-rows";

const rows = entryRows<BatchEvent>(CHECKED_BATCH);
export const { toEvent } = rows;
export const eventRow = (workshopId: string, batchId: string, event: BatchEvent) => ({
  ...rows.toRow(event),
  workshopId,
  batchId,
});

/** Returns where a batch stands; a rehearsal stands nowhere that jars do. */
function stageOf(plan: BatchPlan, state: BatchState, poured: string | null) {
  if (plan.rehearsal) return poured || state.closed || state.abandoned ? ("rehearsed" as const) : ("rehearsal" as const);
  return state.closed ? ("closed" as const) : state.abandoned ? ("abandoned" as const) : poured ? ("rack" as const) : ("pot" as const);
}

/** The stages of batches that count. */
export const REAL_STAGES = ["pot", "rack", "closed", "abandoned"] as const;

/** Returns what the batch's row repeats of what follows from its entries. */
export function rowOf(plan: BatchPlan, state: BatchState) {
  const poured = pouredAt(plan, state);
  const times = poured ? cureTimes(poured, plan.process) : null;
  const loose = looseOfAll(plan, state);
  return {
    plan,
    state,
    stage: stageOf(plan, state, poured),
    startedAt: state.startedAt,
    pouredAt: poured,
    lookedAt: state.lookedAt,
    closedAt: state.closed?.at ?? state.abandoned?.at ?? null,
    setAt: times?.setAt ?? null,
    testFrom: times?.testFrom ?? null,
    sellFrom: times?.sellFrom ?? null,
    loose: loose.reduce((sum, item) => sum + item.left, 0),
    formulaIds: [...new Set(plan.pots.flatMap((pot) => pot.formulaId ?? []))],
    looseOf: loose,
    title: titleOf(plan),
    jarTotals: jarTotals(plan, state),
  };
}
