import { BATCH, type BatchEvent, type BatchFacts, batchOf, CLOCK_TOLERANCE_MS, foldOne, followsOn, refusal, type SentEvent, writeDuration } from "@hearth/core";
import { and, eq, inArray, sql } from "drizzle-orm";
import { eventRow, rowOf, toEvent } from "@/data/batch-rows";
import { type Database, isAway, type Transaction } from "@/data/client";
import { writeOutcomes } from "@/data/outcome-rows";
import { batchEvents, batches } from "@/data/tables/batch";
import { merges } from "@/data/tables/merged";
import { instruments } from "@/data/tables/shelf";
import { stockUses } from "@/data/tables/stock";
import { people } from "@/data/tables/workshop";
import { canonical } from "./canonical";
import { eventsOf, keptOf } from "./events";
import { telling, tellPages } from "./live";

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

/** Under which name each of these is kept now, where it was merged with another. */
async function mergedNames(tx: Transaction, workshopId: string, ids: string[]): Promise<Map<string, string>> {
  const names = new Map<string, string>();
  let asked = ids;
  // One that was merged can itself have gone into another since.
  for (let step = 0; asked.length > 0 && step < 8; step++) {
    const rows = await tx
      .select({ gone: merges.goneId, kept: merges.keptId })
      .from(merges)
      .where(and(eq(merges.workshopId, workshopId), eq(merges.undone, false), inArray(merges.goneId, asked)));
    for (const row of rows) names.set(row.gone, row.kept);
    asked = rows.map((row) => row.kept);
  }
  return names;
}

/** What was drawn, under the names that are kept: two that were merged are drawn as one. */
function underKeptNames(drawn: BatchFacts["drawn"], names: ReadonlyMap<string, string>): BatchFacts["drawn"] {
  if (names.size === 0) return drawn;
  const out: BatchFacts["drawn"] = {};
  for (const [id, draw] of Object.entries(drawn)) {
    let name = id;
    for (let step = 0; step < 8 && names.has(name); step++) name = names.get(name) as string;
    const there = out[name];
    out[name] = there ? { ...draw, amount: there.amount + draw.amount, at: there.at > draw.at ? there.at : draw.at } : draw;
  }
  return out;
}

/** Writes down what a batch drew from the shelf: all of it, or only what an entry changed. */
export async function writeDraws(tx: Transaction, workshopId: string, batchId: string, new_: BatchFacts, old: BatchFacts | null): Promise<void> {
  if (old && JSON.stringify(old.drawn) === JSON.stringify(new_.drawn)) return;
  const names = await mergedNames(tx, workshopId, Object.keys({ ...old?.drawn, ...new_.drawn }));
  const facts = { drawn: underKeptNames(new_.drawn, names) };
  const before = old && { drawn: underKeptNames(old.drawn, names) };
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

interface Asked {
  sent: SentEvent;
  now: string;
}

/** Of these ids, those that the workshop has. */
async function known(tx: Transaction, table: typeof people | typeof instruments, workshopId: string, ids: (string | null)[]): Promise<Set<string>> {
  const asked = [...new Set(ids.filter((id): id is string => id !== null))];
  if (asked.length === 0) return new Set();
  const any = table as typeof people;
  const rows = await tx
    .select({ id: any.id })
    .from(any)
    .where(and(eq(any.workshopId, workshopId), inArray(any.id, asked)));
  return new Set(rows.map((row) => row.id));
}

/** Adds entries to one batch in their order, in one transaction with what follows from them. One that is refused leaves the others be. */
async function appendAll(db: Database, workshopId: string, batchId: string, asked: readonly Asked[]): Promise<Appended[]> {
  return db.transaction(async (tx: Transaction): Promise<Appended[]> => {
    const [batch] = await tx
      .select()
      .from(batches)
      .where(and(eq(batches.workshopId, workshopId), eq(batches.id, batchId)))
      .for("update");
    if (!batch) return asked.map(() => no(404, "This batch is not in this workshop."));
    const ids = asked.map((one) => one.sent.id);
    const rows = await tx
      .select()
      .from(batchEvents)
      .where(and(eq(batchEvents.workshopId, workshopId), inArray(batchEvents.id, ids)));
    const twins = new Map(rows.map((row) => [row.id, row]));
    const staff = await known(
      tx,
      people,
      workshopId,
      asked.map((one) => one.sent.personId),
    );
    const tools = await known(
      tx,
      instruments,
      workshopId,
      asked.map((one) => one.sent.instrumentId),
    );
    const { plan, facts: before } = await keptOf(tx, batch);
    let facts = before;
    let copied = false;
    // Only what reaches back needs the whole log: a correction, or an entry put down late.
    let all: BatchEvent[] | null = null;
    const fresh = new Map<string, BatchEvent>();

    const take = async ({ sent, now }: Asked): Promise<Appended | BatchEvent> => {
      const row = twins.get(sent.id);
      const twin = row ? toEvent(row) : fresh.get(sent.id);
      if (twin) {
        if (row && row.batchId !== batchId) return no(409, "Another batch already has this entry.", "id");
        return sameEvent(twin, sent)
          ? { ok: true, repeated: true, seq: row?.seq ?? 0 }
          : no(409, "Another entry already carries this entry's id. Record it again.", "id");
      }
      const fast = all === null && followsOn(facts, sent);
      if (!fast) all ??= [...(await eventsOf(tx, workshopId, batchId)), ...fresh.values()];
      const target = sent.corrects && all ? (batchOf(all).entries.find((entry) => entry.event.id === sent.corrects) ?? null) : null;
      const why = refusal({ plan, facts }, sent, target);
      if (why) return no(400, why.message, why.field);
      if (sent.personId && !staff.has(sent.personId)) return no(400, "That person is not of this workshop. Choose who is working.", "personId");
      if (sent.instrumentId && !tools.has(sent.instrumentId)) return no(400, "That instrument is not on this shelf. Choose another.", "instrumentId");
      const event = { ...sent, arrivedAt: now } as BatchEvent;
      fresh.set(event.id, event);
      if (all) {
        all.push(event);
        facts = batchOf(all).facts;
      } else {
        if (!copied) facts = structuredClone(facts);
        copied = true;
        foldOne(BATCH, facts, event, plan);
      }
      return event;
    };
    const taken: (Appended | BatchEvent)[] = [];
    for (const one of asked) taken.push(await take(one));
    if (fresh.size === 0) return taken as Appended[];

    const written = await tx
      .insert(batchEvents)
      .values([...fresh.values()].map((event) => eventRow(workshopId, batchId, event)))
      .returning({
        id: batchEvents.id,
        seq: batchEvents.seq,
        // As it stood before this statement.
        newest: sql<string | null>`(select max(b.seq) from ${batchEvents} b where b.workshop_id = ${workshopId} and b.batch_id = ${batchId})`,
      });
    const seqs = new Map(written.map((row) => [row.id, row.seq]));
    if (batch.drawsStock) await writeDraws(tx, workshopId, batchId, facts, all ? null : before);
    await writeOutcomes(tx, workshopId, batchId, plan, facts, before);
    // What only goes on from what was there is told at once; what reaches back is read by the pages anew.
    const goesOn = all === null ? { written: { after: Number(written[0]?.newest ?? 0), seq: Math.max(...seqs.values()), events: [...fresh.values()] } } : {};
    const { plan: _frozen, ...row } = rowOf(plan, facts);
    await tx
      .update(batches)
      .set(batch.plan ? row : { ...row, plan })
      .where(and(eq(batches.workshopId, workshopId), eq(batches.id, batchId)))
      .returning({ told: telling({ workshop: workshopId, batch: batchId, ...goesOn }) });
    return taken.map((one) => ("ok" in one ? one : { ok: true, repeated: false, seq: seqs.get(one.id) ?? 0 }));
  });
}

interface Queued extends Asked {
  answer: (appended: Appended) => void;
  fail: (error: unknown) => void;
}
/** Of one batch so many entries are written together at most. */
const MOST_TOGETHER = 50;
const queues = new Map<string, Queued[]>();

/** Writes what is asked of one batch: what came while the last was being written goes together, so that one write to the disk serves all of it. */
async function work(db: Database, key: string, workshopId: string, batchId: string): Promise<void> {
  for (;;) {
    const queue = queues.get(key) ?? [];
    const group = queue.splice(0, MOST_TOGETHER);
    if (group.length === 0) {
      queues.delete(key);
      return;
    }
    try {
      const answers = await appendAll(db, workshopId, batchId, group);
      for (const [at, one] of group.entries()) one.answer(answers[at] as Appended);
    } catch (error) {
      // One that the database will not take stops none of the others.
      if (group.length === 1 || isAway(error)) for (const one of group) one.fail(error);
      else
        for (const one of group) {
          await appendAll(db, workshopId, batchId, [one]).then(
            ([answer]) => one.answer(answer as Appended),
            (fault: unknown) => one.fail(fault),
          );
        }
    }
  }
}

/** Adds one entry to a batch, in one transaction with what follows from it. The same entry again changes nothing. */
export async function appendEvent(db: Database, workshopId: string, batchId: string, sent: SentEvent, now: string): Promise<Appended> {
  const ahead = Date.parse(sent.happenedAt) - Date.parse(now);
  if (ahead > CLOCK_TOLERANCE_MS) {
    return no(400, `That time is ${writeDuration(ahead / 1_000)} ahead of now. Give the time at which it happened.`, "happenedAt");
  }
  const key = `${workshopId}/${batchId}`;
  return new Promise<Appended>((answer, fail) => {
    const one: Queued = { sent, now, answer, fail };
    const queue = queues.get(key);
    if (queue) queue.push(one);
    else {
      queues.set(key, [one]);
      void work(db, key, workshopId, batchId);
    }
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
    await tx.execute(sql`select undo_start(${workshopId}, ${batchId})`);
    await tellPages(tx, { workshop: workshopId, batch: batchId });
    return { ok: true, message: "" };
  });
}
