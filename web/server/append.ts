import { BATCH, type BatchEvent, type BatchFacts, batchOf, CLOCK_TOLERANCE_MS, foldOne, followsOn, refusal, type SentEvent, writeDuration } from "@hearth/core";
import { and, eq, inArray, sql } from "drizzle-orm";
import { eventRow, rowOf, toEvent } from "@/data/batch-rows";
import type { Database, Transaction } from "@/data/client";
import { batchEvents, batches } from "@/data/tables/batch";
import { instruments } from "@/data/tables/shelf";
import { stockUses } from "@/data/tables/stock";
import { people } from "@/data/tables/workshop";
import { canonical } from "./canonical";
import { eventsOf, keptOf } from "./events";
import { tellPages } from "./live";

export type Appended = { ok: true; repeated: boolean; seq: number } | { ok: false; status: 400 | 404 | 409; message: string; fields: Record<string, string[]> };

const no = (status: 400 | 404 | 409, message: string, field?: string): Appended => ({
  ok: false,
  status,
  message,
  fields: field ? { [field]: [message] } : {},
});

/** The same entry, however often it is sent; the placing of its time by a device's measured offset may differ a little. */
export const sameEvent = (a: SentEvent | BatchEvent, b: SentEvent | BatchEvent): boolean =>
  canonical([a.kind, a.personId, a.instrumentId, a.corrects, a.payload]) === canonical([b.kind, b.personId, b.instrumentId, b.corrects, b.payload]) &&
  (Date.parse(a.happenedAt) === Date.parse(b.happenedAt) || (a.deviceAt != null && b.deviceAt != null && Date.parse(a.deviceAt) === Date.parse(b.deviceAt)));

/** Writes down what a batch drew from the shelf: all of it, or only what an entry changed. */
export async function writeDraws(tx: Transaction, workshopId: string, batchId: string, facts: BatchFacts, before: BatchFacts | null): Promise<void> {
  const changed = Object.entries(facts.drawn).filter(([id, draw]) => !before || before.drawn[id]?.amount !== draw.amount || before.drawn[id]?.at !== draw.at);
  if (!before) await tx.delete(stockUses).where(and(eq(stockUses.workshopId, workshopId), eq(stockUses.batchId, batchId)));
  else {
    const gone = Object.keys(before.drawn).filter((id) => !facts.drawn[id]);
    if (gone.length > 0)
      await tx.delete(stockUses).where(and(eq(stockUses.workshopId, workshopId), eq(stockUses.batchId, batchId), inArray(stockUses.materialId, gone)));
  }
  const rows = changed
    .filter(([, draw]) => draw.amount > 0)
    .map(([materialId, draw]) => ({ workshopId, batchId, materialId, amount: draw.amount, at: draw.at }));
  if (rows.length === 0) return;
  await tx
    .insert(stockUses)
    .values(rows)
    .onConflictDoUpdate({
      target: [stockUses.workshopId, stockUses.batchId, stockUses.materialId],
      set: { amount: sql`excluded.amount`, at: sql`excluded.at` },
    });
}

/** Adds one entry to a batch, in one transaction with what follows from it. The same entry again changes nothing. */
export async function appendEvent(db: Database, workshopId: string, batchId: string, sent: SentEvent, now: string): Promise<Appended> {
  const ahead = Date.parse(sent.happenedAt) - Date.parse(now);
  if (ahead > CLOCK_TOLERANCE_MS) {
    return no(400, `That time is ${writeDuration(ahead / 1_000)} ahead of now. Give the time at which it happened.`, "happenedAt");
  }
  return db.transaction(async (tx: Transaction): Promise<Appended> => {
    const [batch] = await tx
      .select()
      .from(batches)
      .where(and(eq(batches.workshopId, workshopId), eq(batches.id, batchId)))
      .for("update");
    if (!batch) return no(404, "This batch is not in this workshop.");
    const [twin] = await tx
      .select()
      .from(batchEvents)
      .where(and(eq(batchEvents.workshopId, workshopId), eq(batchEvents.id, sent.id)));
    if (twin) {
      if (twin.batchId !== batchId) return no(409, "Another batch already has this entry.", "id");
      return sameEvent(toEvent(twin), sent)
        ? { ok: true, repeated: true, seq: twin.seq }
        : no(409, "Another entry already carries this entry's id. Record it again.", "id");
    }
    const { plan, facts } = await keptOf(tx, batch);
    const fast = followsOn(facts, sent);
    // Only what reaches back needs the whole log: a correction, or an entry put down late.
    const all = fast ? null : await eventsOf(tx, workshopId, batchId);
    const target = sent.corrects && all ? (batchOf(all).entries.find((entry) => entry.event.id === sent.corrects) ?? null) : null;
    const why = refusal({ plan, facts }, sent, target);
    if (why) return no(400, why.message, why.field);
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
    const event = { ...sent, arrivedAt: now } as BatchEvent;
    const [written] = await tx
      .insert(batchEvents)
      .values(eventRow(workshopId, batchId, event))
      .returning({ seq: batchEvents.seq });
    let after: BatchFacts;
    if (all) after = batchOf([...all, event]).facts;
    else {
      after = structuredClone(facts);
      foldOne(BATCH, after, event, plan);
    }
    const { plan: _frozen, ...row } = rowOf(plan, after);
    await tx
      .update(batches)
      .set(batch.plan ? row : { ...row, plan })
      .where(and(eq(batches.workshopId, workshopId), eq(batches.id, batchId)));
    if (batch.drawsStock) await writeDraws(tx, workshopId, batchId, after, all ? null : facts);
    await tellPages(tx, { workshop: workshopId, batch: batchId });
    return { ok: true, repeated: false, seq: written?.seq ?? 0 };
  });
}

/** Undoes the start of a batch that nothing has followed: as if it had never been. */
export async function undoStart(db: Database, workshopId: string, batchId: string): Promise<{ ok: boolean; message: string }> {
  return db.transaction(async (tx) => {
    const mine = and(eq(batches.workshopId, workshopId), eq(batches.id, batchId));
    const [batch] = await tx.select({ id: batches.id }).from(batches).where(mine).for("update");
    if (!batch) return { ok: false, message: "This batch is not in this workshop any more." };
    const rows = await tx
      .select({ id: batchEvents.id })
      .from(batchEvents)
      .where(and(eq(batchEvents.workshopId, workshopId), eq(batchEvents.batchId, batchId)))
      .limit(2);
    if (rows.length > 1) return { ok: false, message: "This batch has entries already. Abandon it instead, and say what became of the wax." };
    await tx.delete(batchEvents).where(and(eq(batchEvents.workshopId, workshopId), eq(batchEvents.batchId, batchId)));
    await tx.delete(batches).where(mine);
    await tellPages(tx, { workshop: workshopId, batch: batchId });
    return { ok: true, message: "" };
  });
}
