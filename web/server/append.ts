import { CLOCK_TOLERANCE_MS, type EventOf, type LogFacts, writeDuration } from "@hearth/core";
import { and, eq, inArray, type SQLWrapper, sql } from "drizzle-orm";
import { v7 } from "uuid";
import { codeOf, type Database, isAway, type Transaction } from "@/data/client";
import { instruments } from "@/data/tables/shelf";
import { people } from "@/data/tables/workshop";
import type { Keeper } from "./keeper";
import { type Appended, type Asked, type At, isAnswer, no, type Sent, weigh } from "./weigh";
import { type Left, writeEntries } from "./write-entries";

/** An entry that the program puts down itself, at the moment and by whom a command was sent. */
export const entryBy = (at: { now: string; personId: string | null }, kind: string, payload: unknown, over: { id?: string; corrects?: string } = {}) =>
  ({ id: over.id ?? v7(), kind, happenedAt: at.now, personId: at.personId, instrumentId: null, corrects: over.corrects ?? null, payload }) as Sent;

/** What of these ids the workshop has already: entries, people, instruments. */
async function known(tx: Transaction, table: Keeper<LogFacts, unknown, EventOf>["table"], workshopId: string, asked: readonly Asked[]) {
  const ids = (of: (one: Sent) => string | null) => sql.param([...new Set(asked.map((one) => of(one.sent)).filter((id) => id !== null))]);
  const found = (what: string, from: SQLWrapper, of: (one: Sent) => string | null) =>
    sql`select id, ${sql.raw(`'${what}'`)} as what from ${from} where workshop_id = ${workshopId} and id = any(${ids(of)}::uuid[])`;
  const { rows } = await tx.execute<{ id: string; what: string }>(
    sql.join(
      [found("entry", table, (one) => one.id), found("person", people, (one) => one.personId), found("tool", instruments, (one) => one.instrumentId)],
      sql` union all `,
    ),
  );
  const those = (what: string) => new Set(rows.flatMap((row) => (row.what === what ? [row.id] : [])));
  return { entries: those("entry"), staff: those("person"), tools: those("tool") };
}

interface Done<F, C, R> {
  answers: Appended[];
  left: Left<F, C, R> | null;
}

/** Adds entries as their subject stands in the database, whose row is held until the transaction ends. */
async function appendHeld<F extends LogFacts, C, E extends EventOf, R>(
  keeper: Keeper<F, C, E, R>,
  tx: Transaction,
  at: At,
  asked: readonly Asked[],
): Promise<Done<F, C, R>> {
  const { workshopId, id } = at;
  const { table } = keeper;
  const row = await keeper.row(tx, workshopId, id, true);
  if (!row) return { answers: asked.map(() => no(404, `This ${keeper.what} is not in this workshop.`)), left: null };
  const { entries, staff, tools } = await known(tx, table, workshopId, asked);
  const rows =
    entries.size === 0
      ? []
      : await tx
          .select()
          .from(table)
          .where(and(eq(table.workshopId, workshopId), inArray(table.id, [...entries])));
  const twins = new Map(rows.map((one) => [one.id, { event: keeper.toEvent(one), of: keeper.ofRow(one), seq: one.seq }]));
  const held = { row, ...(await keeper.kept(tx, row)) };
  const weighed = await weigh(keeper, tx, at, held, { twins, staff, tools }, asked);
  if (weighed.fresh.length === 0) return { answers: weighed.taken as Appended[], left: null };
  await keeper.follow(tx, { ...at, ...held, facts: weighed.facts, before: held.facts, whole: weighed.whole });
  const written = await writeEntries(keeper, tx, at, held, weighed, null);
  if (!written) throw new Error("A row that was held is gone.");
  return { answers: weighed.taken.map((one) => (isAnswer(one) ? one : written.answers(one))), left: written.left };
}

/** Adds entries to one subject in their order, within a transaction, with what follows from them. */
export const appendIn = async <F extends LogFacts, C, E extends EventOf, R>(
  keeper: Keeper<F, C, E, R>,
  tx: Transaction,
  workshopId: string,
  id: string,
  asked: readonly Asked[],
): Promise<Appended[]> => (await appendHeld(keeper, tx, { workshopId, id }, asked)).answers;

class AsksMore extends Error {}
/** Stands where there is no transaction: who would ask anything of one needs it. */
const NO_TRANSACTION = new Proxy({} as Transaction, {
  get() {
    throw new AsksMore();
  },
});
const ANY = { has: () => true };

/**
 * Adds entries that only go on from what this process left there, by one statement that makes sure of it. Null, and nothing is written,
 * where one is not simply taken, something else follows from it, or another has written since: what is refused is refused by what the
 * database holds.
 */
async function goOn<F extends LogFacts, C, E extends EventOf, R>(
  keeper: Keeper<F, C, E, R>,
  db: Database,
  at: At,
  asked: readonly Asked[],
  left: Left<F, C, R>,
): Promise<Done<F, C, R> | null> {
  try {
    const weighed = await weigh(keeper, NO_TRANSACTION, at, left, { twins: new Map(), staff: ANY, tools: ANY }, asked);
    if (weighed.taken.some(isAnswer)) return null;
    await keeper.follow(NO_TRANSACTION, { ...at, ...left, facts: weighed.facts, before: left.facts, whole: false });
    const written = await writeEntries(keeper, db, at, left, weighed, left);
    return written && { answers: weighed.fresh.map(written.answers), left: written.left };
  } catch (error) {
    // A person or an instrument that is not there is told by name, the long way.
    if (error instanceof AsksMore || codeOf(error).startsWith("23")) return null;
    throw error;
  }
}

/** So many subjects are known as they were left. */
const MOST_LEFT = 500;
const lefts = new Map<string, unknown>();

/** Adds entries to a subject in one transaction: the short way where that will do. */
async function append<F extends LogFacts, C, E extends EventOf, R>(
  keeper: Keeper<F, C, E, R>,
  db: Database,
  at: At,
  key: string,
  asked: readonly Asked[],
): Promise<Appended[]> {
  const left = lefts.get(key) as Left<F, C, R> | undefined;
  // Taken out meanwhile: of an entry that fails it is not known how it ended.
  lefts.delete(key);
  const done = (left && (await goOn(keeper, db, at, asked, left))) ?? (await db.transaction((tx) => appendHeld(keeper, tx, at, asked)));
  if (done.left) lefts.set(key, done.left);
  const [oldest] = lefts.keys();
  if (oldest !== undefined && lefts.size > MOST_LEFT) lefts.delete(oldest);
  return done.answers;
}

interface Queued extends Asked {
  answer: (appended: Appended) => void;
  fail: (error: unknown) => void;
}
/** Of one subject so many entries are written together at most. */
const MOST_TOGETHER = 50;
const queues = new Map<string, Queued[]>();

/** Writes what is asked of one subject: what came while the last was being written goes together, so that one write to the disk serves all of it. */
async function work(write: (group: readonly Asked[]) => Promise<Appended[]>, key: string): Promise<void> {
  for (;;) {
    const queue = queues.get(key) ?? [];
    const group = queue.splice(0, MOST_TOGETHER);
    if (group.length === 0) {
      queues.delete(key);
      return;
    }
    try {
      const answers = await write(group);
      for (const [at, one] of group.entries()) one.answer(answers[at] as Appended);
    } catch (error) {
      // One that the database will not take stops none of the others.
      if (group.length === 1 || isAway(error)) for (const one of group) one.fail(error);
      else
        for (const one of group) {
          await write([one]).then(
            ([answer]) => one.answer(answer as Appended),
            (fault: unknown) => one.fail(fault),
          );
        }
    }
  }
}

/** Adds one entry to a subject, in one transaction with what follows from it. The same entry again changes nothing. */
export async function appendTo<F extends LogFacts, C, E extends EventOf, R>(
  keeper: Keeper<F, C, E, R>,
  db: Database,
  workshopId: string,
  id: string,
  sent: Sent,
  now: string,
): Promise<Appended> {
  const ahead = Date.parse(sent.happenedAt) - Date.parse(now);
  if (ahead > CLOCK_TOLERANCE_MS) {
    return no(400, `That time is ${writeDuration(ahead / 1_000)} ahead of now. Give the time at which it happened.`, "happenedAt");
  }
  const key = `${keeper.what}/${workshopId}/${id}`;
  return new Promise<Appended>((answer, fail) => {
    const one: Queued = { sent, now, answer, fail };
    const queue = queues.get(key);
    if (queue) queue.push(one);
    else {
      queues.set(key, [one]);
      void work((group) => append(keeper, db, { workshopId, id }, key, group), key);
    }
  });
}
