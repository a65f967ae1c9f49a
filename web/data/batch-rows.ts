import { type BatchEvent, type BatchFacts, type BatchPlan, cureTimes, type EventOf, pouredAt, readEvent, versionOf } from "@hearth/core";
import type { batchEvents } from "./tables/batch";

const iso = (text: string) => new Date(text).toISOString();

/** A stored row as the entry that core reads: its payload brought up to the newest version and checked. */
export const toEvent = (row: typeof batchEvents.$inferSelect): BatchEvent =>
  readEvent({
    id: row.id,
    kind: row.kind,
    happenedAt: iso(row.happenedAt),
    arrivedAt: iso(row.arrivedAt),
    personId: row.personId,
    instrumentId: row.instrumentId,
    corrects: row.corrects,
    ...(row.deviceAt ? { deviceAt: iso(row.deviceAt) } : {}),
    v: row.v,
    payload: row.payload,
  } as EventOf & { v: number });

export const eventRow = (workshopId: string, batchId: string, event: BatchEvent): typeof batchEvents.$inferInsert => ({
  workshopId,
  batchId,
  id: event.id,
  kind: event.kind,
  // As UTC: a database takes fewer offsets than are written.
  happenedAt: iso(event.happenedAt),
  arrivedAt: iso(event.arrivedAt),
  personId: event.personId,
  instrumentId: event.instrumentId,
  corrects: event.corrects,
  deviceAt: event.deviceAt ? iso(event.deviceAt) : null,
  v: versionOf(event.kind),
  payload: event.payload,
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
  };
}
