import { CLOCK_TOLERANCE_MS, type EventOf, type LogState, ok, type SentEntry, topicsOfEntry, writeDuration } from "@hearth/core";
import { and, eq, max, type SQLWrapper, sql } from "drizzle-orm";
import { v7 } from "uuid";
import { codeOf, type Database, isUnavailable, type Transaction } from "@/data/client";
import { instruments } from "@/data/tables/shelf";
import { people } from "@/data/tables/workshop";
import { notifyPages } from "@/server/http/change-stream";
import { type AggregateStore, entryColumns } from "./aggregate-store";
import { type AggregateRef, type AppendRequest, type AppendResult, isSameEvent, type LockedState, rejectAppend, validateAppend } from "./validate-append";

/** An entry that the program puts down itself, at the moment and by whom a command was sent. */
export const systemEntry = (at: { now: string; personId: string | null }, kind: string, payload: unknown, over: { id?: string; corrects?: string } = {}) =>
  ({ id: over.id ?? v7(), kind, happenedAt: at.now, personId: at.personId, instrumentId: null, corrects: over.corrects ?? null, payload }) as SentEntry;

/** Returns what the workshop has of an entry's id, person and instrument. */
async function existing(tx: Transaction, table: AggregateStore<LogState, unknown, EventOf>["eventTable"], workshopId: string, sent: SentEntry) {
  const found = (what: string, from: SQLWrapper, id: string | null) =>
    sql`select ${sql.raw(`'${what}'`)} as what from ${from} where workshop_id = ${workshopId} and id = ${id}::uuid`;
  const { rows } = await tx.execute<{ what: string }>(
    sql.join([found("entry", table, sent.id), found("person", people, sent.personId), found("instrument", instruments, sent.instrumentId)], sql` union all `),
  );
  return new Set(rows.map((row) => row.what));
}

/**
 * Adds entries to one batch, trial or order, one after another, each judged by what the ones before it left, within a transaction that holds its row
 * until it ends. What follows from them is written with them, and pages are told. Gives an answer for each.
 */
export async function appendIn<F extends LogState, C, E extends EventOf, R>(
  store: AggregateStore<F, C, E, R>,
  tx: Transaction,
  workshopId: string,
  id: string,
  asked: readonly AppendRequest[],
): Promise<AppendResult[]> {
  const at: AggregateRef = { workshopId, id };
  const { eventTable: table, aggregateTable: rows } = store;
  const row = await store.readRow(tx, workshopId, id, true);
  if (!row) return asked.map(() => rejectAppend(404, `This ${store.what} is not in this workshop.`));
  const { plan, state, unreadable } = await store.readState(tx, row);
  if (unreadable) return asked.map(() => rejectAppend(409, `The start of this ${store.what} cannot be read, so nothing can be added to it: ${unreadable}`));
  let locked: LockedState<F, C, E> = { plan, state, log: null };
  const ofThis = and(eq(table.workshopId, workshopId), eq(store.aggregateId, id));
  const [newest] = await tx
    .select({ seq: max(table.seq) })
    .from(table)
    .where(ofThis);
  const written: { event: E; seq: number }[] = [];
  let columns: Partial<R> | null = null;
  let drew = false;
  const answers: AppendResult[] = [];
  for (const appendRequest of asked) {
    const { sent } = appendRequest;
    const there = await existing(tx, table, workshopId, sent);
    if (there.has("entry")) {
      const [twin] = await tx
        .select(entryColumns(table))
        .from(table)
        .where(and(ofThis, eq(table.id, sent.id)));
      answers.push(
        !twin
          ? rejectAppend(409, `Another ${store.what} already has this entry.`, "id")
          : isSameEvent(store.toEvent(twin), sent)
            ? ok({ repeated: true, seq: twin.seq })
            : rejectAppend(409, "Another entry already carries this entry's id. Record it again.", "id"),
      );
      continue;
    }
    if (sent.personId && !there.has("person")) {
      answers.push(rejectAppend(400, "That person is not of this workshop. Choose who is working.", "personId"));
      continue;
    }
    if (sent.instrumentId && !there.has("instrument")) {
      answers.push(rejectAppend(400, "That instrument is not on this shelf. Choose another.", "instrumentId"));
      continue;
    }
    const judged = await validateAppend(store, tx, at, locked, appendRequest);
    if (!judged.ok) {
      answers.push(judged.answer);
      continue;
    }
    const { event, state: after, uses, log } = judged.decision;
    // The row of the entry first: what follows from it may point at it.
    const [entry] = await tx
      .insert(table)
      .values(store.toRow(workshopId, id, event))
      .returning({ seq: table.seq });
    const seq = entry?.seq ?? 0;
    await store.writeDerived(tx, { ...at, row, plan, state: after, before: locked.state, uses, whole: log !== null });
    columns = store.columns(row, plan, after);
    drew ||= uses.length > 0;
    locked = { plan, state: after, log };
    written.push({ event, seq });
    answers.push(ok({ repeated: false, seq }));
  }
  const last = written.at(-1);
  if (!last || !columns) return answers;
  await tx
    .update(rows)
    .set({ ...columns })
    .where(sql`workshop_id = ${workshopId} and id = ${id}`);
  const stageOf = (item: object | null) => (item as { stage?: string } | null)?.stage;
  const [was, is] = [stageOf(row as object), stageOf(columns)];
  const moved = locked.log !== null || was !== is;
  const news = {
    workshop: workshopId,
    [store.what]: id,
    topics: topicsOfEntry(
      store.what,
      [was, is].some((stage) => stage === "pot" || stage === "rehearsal"),
      moved,
      drew || locked.log !== null,
    ),
  };
  // What only goes on from what was there is told at once; what reaches back is read by the pages anew.
  await notifyPages(
    tx,
    locked.log === null ? { ...news, written: { after: newest?.seq ?? 0, seq: last.seq, events: written.map((item) => item.event) } } : news,
  );
  return answers;
}

interface Queued extends AppendRequest {
  answer: (appended: AppendResult) => void;
  fail: (error: unknown) => void;
}
/** The most entries of one batch, trial or order that are written in one transaction. */
const MAX_TOGETHER = 50;
const queues = new Map<string, Queued[]>();

/** The database's codes for what is tried once more: a key that was taken meanwhile, and two transactions that waited for each other. */
const TRY_AGAIN = ["23505", "40P01"];

/** Writes what is asked of one batch, trial or order in its order: what came while the last was being written goes into one transaction. */
async function work(write: (group: readonly AppendRequest[]) => Promise<AppendResult[]>, key: string): Promise<void> {
  // The same id sent to two batches at once is taken by one of them, and then found there.
  const writeAgain = (group: readonly AppendRequest[]) =>
    write(group).catch((error: unknown) => {
      if (TRY_AGAIN.includes(codeOf(error))) return write(group);
      throw error;
    });
  for (;;) {
    const queue = queues.get(key) ?? [];
    const group = queue.splice(0, MAX_TOGETHER);
    if (group.length === 0) {
      queues.delete(key);
      return;
    }
    try {
      const answers = await writeAgain(group);
      for (const [index, queued] of group.entries()) queued.answer(answers[index] as AppendResult);
    } catch (error) {
      // One that the database will not take stops none of the others.
      if (group.length === 1 || isUnavailable(error)) for (const queued of group) queued.fail(error);
      else
        for (const queued of group) {
          await writeAgain([queued]).then(
            ([answer]) => queued.answer(answer as AppendResult),
            (fault: unknown) => queued.fail(fault),
          );
        }
    }
  }
}

/** Adds one entry to a batch, trial or order, in a transaction with what follows from it. The same entry again changes nothing. */
export async function appendTo<F extends LogState, C, E extends EventOf, R>(
  store: AggregateStore<F, C, E, R>,
  db: Database,
  workshopId: string,
  id: string,
  sent: SentEntry,
  now: string,
): Promise<AppendResult> {
  const ahead = Date.parse(sent.happenedAt) - Date.parse(now);
  if (ahead > CLOCK_TOLERANCE_MS) {
    return rejectAppend(400, `That time is ${writeDuration(ahead / 1_000)} ahead of now. Give the time at which it happened.`, "happenedAt");
  }
  const key = `${store.what}/${workshopId}/${id}`;
  return new Promise<AppendResult>((answer, fail) => {
    const queued: Queued = { sent, now, answer, fail };
    const queue = queues.get(key);
    if (queue) queue.push(queued);
    else {
      queues.set(key, [queued]);
      void work((group) => db.transaction((tx) => appendIn(store, tx, workshopId, id, group)), key);
    }
  });
}
