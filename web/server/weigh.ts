import { type EventOf, foldOne, followsOn, type LogFacts } from "@hearth/core";
import type { Transaction } from "@/data/client";
import { canonical } from "./canonical";
import { entriesOf, type Keeper } from "./keeper";

export type Appended = { ok: true; repeated: boolean; seq: number } | { ok: false; status: 400 | 404 | 409; message: string; fields: Record<string, string[]> };

export const isAnswer = (one: Appended | EventOf): one is Appended => "ok" in one;
export const no = (status: 400 | 404 | 409, message: string, field?: string): Appended => ({
  ok: false,
  status,
  message,
  fields: field ? { [field]: [message] } : {},
});

/** The same entry, however often it is sent; the placing of its time by a device's measured offset may differ a little. */
export type Sent = Omit<EventOf, "arrivedAt">;
const sameEvent = (a: Sent, b: Sent): boolean =>
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

export interface Asked {
  sent: Sent;
  now: string;
}

/** A subject as it stands. */
export interface Held<F, C, R> {
  row: R;
  plan: C;
  facts: F;
}
/** What of the asked entries, their people and their instruments is there. */
interface There<E> {
  twins: ReadonlyMap<string, { event: E; of: string; seq: number }>;
  staff: Pick<ReadonlySet<string>, "has">;
  tools: Pick<ReadonlySet<string>, "has">;
}
export interface Weighed<F, E> {
  /** Of each asked entry its answer, or the entry itself where it is to be written. */
  taken: (Appended | E)[];
  fresh: E[];
  facts: F;
  /** Whether the whole log was read, since something reached back. */
  whole: boolean;
}
export interface At {
  workshopId: string;
  id: string;
}

/** Which entries are taken, and what follows from them. One that is refused leaves the others be. */
export async function weigh<F extends LogFacts, C, E extends EventOf, R>(
  keeper: Keeper<F, C, E, R>,
  tx: Transaction,
  { workshopId, id }: At,
  { plan, facts: before }: Held<F, C, R>,
  there: There<E>,
  asked: readonly Asked[],
): Promise<Weighed<F, E>> {
  const { subject } = keeper;
  let facts = before;
  let copied = false;
  // Only what reaches back needs the whole log: a correction, or an entry put down late.
  let all: E[] | null = null;
  const fresh = new Map<string, E>();

  const take = async ({ sent, now }: Asked): Promise<Appended | E> => {
    const kept = there.twins.get(sent.id);
    const twin = kept?.event ?? fresh.get(sent.id);
    if (twin) {
      if (kept && kept.of !== id) return no(409, `Another ${keeper.what} already has this entry.`, "id");
      return sameEvent(twin, sent)
        ? { ok: true, repeated: true, seq: kept?.seq ?? 0 }
        : no(409, "Another entry already carries this entry's id. Record it again.", "id");
    }
    const fast = all === null && followsOn(facts, sent);
    if (!fast) all ??= [...(await entriesOf(keeper, tx, workshopId, id)), ...fresh.values()];
    const target = sent.corrects && all ? (subject.of(all).entries.find((entry) => entry.event.id === sent.corrects) ?? null) : null;
    const why = subject.refusal({ plan, facts }, { ...sent, arrivedAt: now }, target);
    if (why) return no(400, why.message, why.field);
    const outside = await keeper.outside?.(tx, workshopId, sent);
    if (outside) return no(400, outside.message, outside.field);
    if (sent.personId && !there.staff.has(sent.personId)) return no(400, "That person is not of this workshop. Choose who is working.", "personId");
    if (sent.instrumentId && !there.tools.has(sent.instrumentId)) return no(400, "That instrument is not on this shelf. Choose another.", "instrumentId");
    const event = { ...sent, arrivedAt: now } as E;
    fresh.set(event.id, event);
    if (all) {
      all.push(event);
      facts = subject.of(all).facts;
    } else {
      // They are kept as JSON, and are nothing else.
      if (!copied) facts = JSON.parse(JSON.stringify(facts));
      copied = true;
      foldOne(subject as never, facts, event, plan);
    }
    return event;
  };
  const taken: (Appended | E)[] = [];
  for (const one of asked) taken.push(await take(one));
  return { taken, fresh: [...fresh.values()], facts, whole: all !== null };
}
