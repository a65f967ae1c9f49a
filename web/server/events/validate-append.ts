import { applyEvent, type EventOf, isAppendOnly, type LogState, type Result, reject, type SentEntry, type StockUse } from "@hearth/core";
import type { Transaction } from "@/data/client";
import { canonical } from "@/server/shared/canonical-json";
import { type AggregateStore, readEvents } from "./aggregate-store";

/** What became of an entry. `newer`: of a correction that came too late, the id of the entry that stands now in the place of the one it corrects. */
export type AppendResult = Result<{ repeated: boolean; seq: number }, { status: 400 | 404 | 409; newer?: string | undefined }>;

export const rejectAppend = (status: 400 | 404 | 409, message: string, field?: string, newer?: string): AppendResult => ({
  ...reject(message, field ? { [field]: [message] } : {}),
  status,
  newer,
});

/** The same entry, however often it is sent; the placing of its time by a device's measured offset may differ a little. */
export const isSameEvent = (a: SentEntry, b: SentEntry): boolean =>
  canonical([a.kind, a.personId, a.instrumentId, a.corrects, a.payload]) === canonical([b.kind, b.personId, b.instrumentId, b.corrects, b.payload]) &&
  (Date.parse(a.happenedAt) === Date.parse(b.happenedAt) || (a.deviceAt != null && b.deviceAt != null && Date.parse(a.deviceAt) === Date.parse(b.deviceAt)));

/** Returns whether two logs hold the same entries. */
export function isSameLog(held: readonly SentEntry[], events: readonly SentEntry[]): boolean {
  const byId = new Map(held.map((sentEntry) => [sentEntry.id, sentEntry]));
  return (
    held.length === events.length &&
    events.every((event) => {
      const sentEntry = byId.get(event.id);
      return sentEntry !== undefined && isSameEvent(sentEntry, event);
    })
  );
}

/** An entry to be added. `own`: logged by a command of the program, which writes elsewhere what belongs to it. */
export interface AppendRequest {
  sent: SentEntry;
  now: string;
  own?: boolean;
}

export interface AggregateRef {
  workshopId: string;
  id: string;
}

/** A batch, trial or order while its row is held: its state, and its whole log once something needed it. */
export interface LockedState<F, C, E> {
  plan: C;
  state: F;
  log: E[] | null;
}

/** An entry that is taken, and what follows from it. */
export interface AppendDecision<F, E> {
  event: E;
  state: F;
  /** What it drew from stock; where the log was read whole, what all standing entries drew. */
  uses: StockUse[];
  log: E[] | null;
}

/** The id of the entry that stands in the place of one that was corrected, over several corrections; none if it was deleted. */
function standingIn(entries: readonly { event: EventOf; supersededBy: EventOf | null }[], id: string): string | undefined {
  const entry = entries.find(({ event }) => event.id === id);
  if (!entry?.supersededBy) return entry && entry.event.kind !== "withdrawn" ? id : undefined;
  return standingIn(entries, entry.supersededBy.id);
}

/** Decides on one entry by the state of what it is about: what follows from it, or why it is refused. Writes nothing. */
export async function validateAppend<F extends LogState, C, E extends EventOf, R>(
  store: AggregateStore<F, C, E, R>,
  tx: Transaction,
  { workshopId, id }: AggregateRef,
  locked: LockedState<F, C, E>,
  { sent, now, own }: AppendRequest,
): Promise<{ ok: true; decision: AppendDecision<F, E> } | { ok: false; answer: AppendResult }> {
  const { subject } = store;
  const refuse = (message: string, field: string) => ({ ok: false as const, answer: rejectAppend(400, message, field) });
  const event = { ...sent, arrivedAt: now } as E;
  // Only what reaches back needs the whole log: a correction, or an entry logged late. Once it was read, it is at hand.
  const goesOn = locked.log === null && isAppendOnly(locked.state, sent);
  const log = goesOn ? null : (locked.log ?? (await readEvents(store, tx, workshopId, id)));
  const entries = sent.corrects && log ? subject.of(log, locked.plan).entries : [];
  const target = entries.find((entry) => entry.event.id === sent.corrects) ?? null;
  const onlyByCommand = own ? null : (subject.onlyByCommand(sent.kind) ?? (target && subject.onlyByCommand(target.event.kind)));
  if (onlyByCommand) return refuse(onlyByCommand, "kind");
  const why = subject.refusal({ plan: locked.plan, state: locked.state }, event, target) ?? (log && subject.conflict(log, event, locked.plan));
  if (why) return { ok: false, answer: rejectAppend(400, why.message, why.field, target?.supersededBy ? standingIn(entries, target.event.id) : undefined) };
  let decision: AppendDecision<F, E>;
  if (log) {
    const all = [...log, event];
    const { state, uses } = subject.of(all, locked.plan);
    decision = { event, state, uses, log: all };
  } else {
    // State is kept as JSON, and is nothing else.
    const state = JSON.parse(JSON.stringify(locked.state)) as F;
    decision = { event, state, uses: applyEvent(subject, state, event, locked.plan), log: null };
  }
  const outside = await store.checkOutside?.(tx, { workshopId, id, event, before: locked.state, after: decision.state });
  return outside ? refuse(outside.message, outside.field) : { ok: true, decision };
}
