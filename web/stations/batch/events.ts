import type { BatchEvent } from "@hearth/core";
import { and, asc, eq, inArray } from "drizzle-orm";
import type { Database, Transaction } from "@/data/client";
import { batchEvents } from "@/data/tables/batch";

const iso = (text: string) => new Date(text).toISOString();

/** A stored row as the event that core reads. */
export const toEvent = (row: typeof batchEvents.$inferSelect): BatchEvent =>
  ({
    id: row.id,
    kind: row.kind,
    happenedAt: iso(row.happenedAt),
    arrivedAt: iso(row.arrivedAt),
    personId: row.personId,
    instrumentId: row.instrumentId,
    corrects: row.corrects,
    payload: row.payload,
  }) as BatchEvent;

/** The events of some batches, in order, gathered by batch: one query however many batches. */
export async function eventsOf(db: Database | Transaction, workshopId: string, batchIds: string[]): Promise<Map<string, BatchEvent[]>> {
  const byBatch = new Map<string, BatchEvent[]>(batchIds.map((id) => [id, []]));
  if (batchIds.length === 0) return byBatch;
  const rows = await db
    .select()
    .from(batchEvents)
    .where(and(eq(batchEvents.workshopId, workshopId), inArray(batchEvents.batchId, batchIds)))
    .orderBy(asc(batchEvents.happenedAt), asc(batchEvents.id));
  for (const row of rows) byBatch.get(row.batchId)?.push(toEvent(row));
  return byBatch;
}
