import { type BatchEvent, type BatchState, batchState, CLOCK_TOLERANCE_MS, refusal, type SentEvent, usesOf, writeDuration } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import type { Database, Transaction } from "@/data/client";
import { batchEvents, batches } from "@/data/tables/batch";
import { instruments } from "@/data/tables/shelf";
import { stockUses } from "@/data/tables/stock";
import { people } from "@/data/tables/workshop";
import { canonical } from "../canonical";
import { eventsOf } from "./events";

export type Appended = { ok: true; repeated: boolean } | { ok: false; status: 400 | 404 | 409; message: string; fields: Record<string, string[]> };

const no = (status: 400 | 404 | 409, message: string, field?: string): Appended => ({
  ok: false,
  status,
  message,
  fields: field ? { [field]: [message] } : {},
});

/** What of a state the batch's row repeats, so that lists find it by an index. */
export const rowOf = (state: BatchState) => ({
  stage: state.closed ? ("closed" as const) : state.pouredAt ? ("rack" as const) : ("pot" as const),
  startedAt: state.startedAt,
  pouredAt: state.pouredAt,
  lookedAt: state.lookedAt,
  closedAt: state.closed?.at ?? null,
});

export const eventRow = (workshopId: string, batchId: string, event: BatchEvent): typeof batchEvents.$inferInsert => ({
  workshopId,
  batchId,
  id: event.id,
  kind: event.kind,
  happenedAt: event.happenedAt,
  arrivedAt: event.arrivedAt,
  personId: event.personId,
  instrumentId: event.instrumentId,
  corrects: event.corrects,
  payload: event.payload,
});

export const sameEvent = (a: SentEvent, b: SentEvent): boolean =>
  canonical([a.kind, Date.parse(a.happenedAt), a.personId, a.instrumentId, a.corrects, a.payload]) ===
  canonical([b.kind, Date.parse(b.happenedAt), b.personId, b.instrumentId, b.corrects, b.payload]);

/** Writes down anew what a batch drew from the shelf. */
export async function writeUses(tx: Transaction, workshopId: string, batchId: string, state: BatchState): Promise<void> {
  await tx.delete(stockUses).where(and(eq(stockUses.workshopId, workshopId), eq(stockUses.batchId, batchId)));
  const uses = usesOf(state);
  if (uses.length > 0) await tx.insert(stockUses).values(uses.map((use) => ({ ...use, workshopId, batchId })));
}

/** Adds one event to a batch, in one transaction with what its row repeats. The same event again changes nothing. */
export async function appendEvent(db: Database, workshopId: string, batchId: string, sent: SentEvent, now: string): Promise<Appended> {
  const ahead = Date.parse(sent.happenedAt) - Date.parse(now);
  if (ahead > CLOCK_TOLERANCE_MS) {
    return no(400, `That time is ${writeDuration(ahead / 1_000)} ahead of now. Give the time at which it happened.`, "happenedAt");
  }
  return db.transaction(async (tx: Transaction) => {
    const [batch] = await tx
      .select()
      .from(batches)
      .where(and(eq(batches.workshopId, workshopId), eq(batches.id, batchId)))
      .for("update");
    if (!batch) return no(404, "This batch is not in this workshop.");
    const events = (await eventsOf(tx, workshopId, [batchId])).get(batchId) ?? [];
    const twin = events.find((event) => event.id === sent.id);
    if (twin) return sameEvent(twin, sent) ? { ok: true, repeated: true } : no(409, "Another entry already carries this entry's id. Record it again.", "id");
    const [elsewhere] = await tx
      .select({ id: batchEvents.id })
      .from(batchEvents)
      .where(and(eq(batchEvents.workshopId, workshopId), eq(batchEvents.id, sent.id)));
    if (elsewhere) return no(409, "Another batch already has this entry.", "id");
    const why = refusal(batchState(events, now), sent);
    if (why) return no(400, why.message, why.field);
    if (Date.parse(sent.happenedAt) < Date.parse(batch.startedAt) - CLOCK_TOLERANCE_MS) {
      return no(400, "That time is before the batch was started. Give the time at which it happened.", "happenedAt");
    }
    if (sent.personId) {
      const [person] = await tx
        .select({ id: people.id })
        .from(people)
        .where(and(eq(people.workshopId, workshopId), eq(people.id, sent.personId)));
      if (!person) return no(400, "That person is not of this workshop. Choose who is working.", "personId");
    }
    if (sent.instrumentId) {
      const [instrument] = await tx
        .select({ id: instruments.id })
        .from(instruments)
        .where(and(eq(instruments.workshopId, workshopId), eq(instruments.id, sent.instrumentId)));
      if (!instrument) return no(400, "That instrument is not on this shelf. Choose another.", "instrumentId");
    }
    const event: BatchEvent = { ...sent, arrivedAt: now };
    await tx.insert(batchEvents).values(eventRow(workshopId, batchId, event));
    const state = batchState([...events, event], now);
    await tx
      .update(batches)
      .set(rowOf(state))
      .where(and(eq(batches.workshopId, workshopId), eq(batches.id, batchId)));
    await writeUses(tx, workshopId, batchId, state);
    return { ok: true, repeated: false };
  });
}
