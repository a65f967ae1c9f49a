import { CLOCK_TOLERANCE_MS, type EventOf, foldOne, followsOn, type LogFacts, writeDuration } from "@hearth/core";
import { and, eq, inArray, type SQLWrapper, sql } from "drizzle-orm";
import { v7 } from "uuid";
import { type Database, isAway, type Transaction } from "@/data/client";
import { instruments } from "@/data/tables/shelf";
import { people } from "@/data/tables/workshop";
import { canonical } from "./canonical";
import { entriesOf, type Keeper } from "./keeper";
import { telling } from "./live";

export type Appended = { ok: true; repeated: boolean; seq: number } | { ok: false; status: 400 | 404 | 409; message: string; fields: Record<string, string[]> };

const isAnswer = (one: Appended | EventOf): one is Appended => "ok" in one;
const no = (status: 400 | 404 | 409, message: string, field?: string): Appended => ({
  ok: false,
  status,
  message,
  fields: field ? { [field]: [message] } : {},
});

/** The same entry, however often it is sent; the placing of its time by a device's measured offset may differ a little. */
type Sent = Omit<EventOf, "arrivedAt">;
export const sameEvent = (a: Sent, b: Sent): boolean =>
  canonical([a.kind, a.personId, a.instrumentId, a.corrects, a.payload]) === canonical([b.kind, b.personId, b.instrumentId, b.corrects, b.payload]) &&
  (Date.parse(a.happenedAt) === Date.parse(b.happenedAt) || (a.deviceAt != null && b.deviceAt != null && Date.parse(a.deviceAt) === Date.parse(b.deviceAt)));

/** Whether two logs hold the same entries. */
export function sameLog(held: readonly Sent[], events: readonly Sent[]): boolean {
  const byId = new Map(held.map((one) => [one.id, one]));
  return (
    held.length === events.length &&
    events.every((event) => {
      const one = byId.get(event.id);
      return one !== undefined && sameEvent(one, event);
    })
  );
}

/** An entry that the program puts down itself, at the moment and by whom a command was sent. */
export const entryBy = (at: { now: string; personId: string | null }, kind: string, payload: unknown, over: { id?: string; corrects?: string } = {}) =>
  ({ id: over.id ?? v7(), kind, happenedAt: at.now, personId: at.personId, instrumentId: null, corrects: over.corrects ?? null, payload }) as Sent;

interface Asked {
  sent: Sent;
  now: string;
}

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

/** Adds entries to one subject in their order, within a transaction, with what follows from them. One that is refused leaves the others be. */
export async function appendIn<F extends LogFacts, C, E extends EventOf, R>(
  keeper: Keeper<F, C, E, R>,
  tx: Transaction,
  workshopId: string,
  id: string,
  asked: readonly Asked[],
): Promise<Appended[]> {
  const { subject, table } = keeper;
  const held = await keeper.row(tx, workshopId, id, true);
  if (!held) return asked.map(() => no(404, `This ${keeper.what} is not in this workshop.`));
  const { entries, staff, tools } = await known(tx, table, workshopId, asked);
  const rows =
    entries.size === 0
      ? []
      : await tx
          .select()
          .from(table)
          .where(and(eq(table.workshopId, workshopId), inArray(table.id, [...entries])));
  const twins = new Map(rows.map((row) => [row.id, row]));
  const { plan, facts: before } = await keeper.kept(tx, held);
  let facts = before;
  let copied = false;
  // Only what reaches back needs the whole log: a correction, or an entry put down late.
  let all: E[] | null = null;
  const fresh = new Map<string, E>();

  const take = async ({ sent, now }: Asked): Promise<Appended | E> => {
    const row = twins.get(sent.id);
    const twin = row ? keeper.toEvent(row) : fresh.get(sent.id);
    if (twin) {
      if (row && keeper.ofRow(row) !== id) return no(409, `Another ${keeper.what} already has this entry.`, "id");
      return sameEvent(twin, sent)
        ? { ok: true, repeated: true, seq: row?.seq ?? 0 }
        : no(409, "Another entry already carries this entry's id. Record it again.", "id");
    }
    const fast = all === null && followsOn(facts, sent);
    if (!fast) all ??= [...(await entriesOf(keeper, tx, workshopId, id)), ...fresh.values()];
    const target = sent.corrects && all ? (subject.of(all).entries.find((entry) => entry.event.id === sent.corrects) ?? null) : null;
    const why = subject.refusal({ plan, facts }, { ...sent, arrivedAt: now }, target);
    if (why) return no(400, why.message, why.field);
    const outside = await keeper.outside?.(tx, workshopId, sent);
    if (outside) return no(400, outside.message, outside.field);
    if (sent.personId && !staff.has(sent.personId)) return no(400, "That person is not of this workshop. Choose who is working.", "personId");
    if (sent.instrumentId && !tools.has(sent.instrumentId)) return no(400, "That instrument is not on this shelf. Choose another.", "instrumentId");
    const event = { ...sent, arrivedAt: now } as E;
    fresh.set(event.id, event);
    if (all) {
      all.push(event);
      facts = subject.of(all).facts;
    } else {
      if (!copied) facts = structuredClone(facts);
      copied = true;
      foldOne(subject as never, facts, event, plan);
    }
    return event;
  };
  const taken: (Appended | E)[] = [];
  for (const one of asked) taken.push(await take(one));
  if (fresh.size === 0) return taken as Appended[];

  const written = await tx
    .insert(table)
    .values([...fresh.values()].map((event) => keeper.toRow(workshopId, id, event)))
    .returning({
      id: table.id,
      seq: table.seq,
      // As it stood before this statement.
      newest: sql<string | null>`(select max(b.seq) from ${table} b where b.workshop_id = ${workshopId} and b.${sql.identifier(keeper.of.name)} = ${id})`,
    });
  const seqs = new Map(written.map((row) => [row.id, row.seq]));
  // What only goes on from what was there is told at once; what reaches back is read by the pages anew.
  const goesOn = all === null ? { written: { after: Number(written[0]?.newest ?? 0), seq: Math.max(...seqs.values()), events: [...fresh.values()] } } : {};
  const told = telling({ workshop: workshopId, [keeper.what]: id, ...goesOn });
  await keeper.follow(tx, { workshopId, id, row: held, plan, facts, before, whole: all !== null }, told);
  return taken.map((one) => (isAnswer(one) ? one : { ok: true, repeated: false, seq: seqs.get(one.id) ?? 0 }));
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
  const key = `${workshopId}/${id}`;
  return new Promise<Appended>((answer, fail) => {
    const one: Queued = { sent, now, answer, fail };
    const queue = queues.get(key);
    if (queue) queue.push(one);
    else {
      queues.set(key, [one]);
      void work((group) => db.transaction((tx) => appendIn(keeper, tx, workshopId, id, group)), key);
    }
  });
}
