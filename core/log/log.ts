import type { z } from "zod";
import type { Z } from "../shapes";
import type { ScaleDisplay } from "../units/mass";

/**
 * The part of an event that all event types share. A log is append-only: a correction is a further event that names the one it replaces. Nothing in
 * this folder knows about candles.
 */
export interface Head {
  /** UUIDv7, generated on the device, so that sending an event twice changes nothing. */
  id: string;
  happenedAt: string;
  arrivedAt: string;
  personId: string | null;
  instrumentId: string | null;
  /** The id of the event that this one corrects or deletes. */
  corrects: string | null;
  /** The time of the device's clock, where it was wrong; `happenedAt` is then corrected by the measured difference. */
  deviceAt?: string | null;
}
export type EventOf<K extends string = string, P = unknown> = Head & { kind: K; payload: P };
/** An event as a device sends it, before the server has set `arrivedAt`. */
export type SentEntry = Omit<EventOf, "arrivedAt">;

/** Why an event is rejected, with the field of its payload that causes it. */
export interface Rejection {
  field: string;
  message: string;
  /** A rule of good practice, checked only when the event is entered: later findings do not make it invalid. */
  advisory?: true;
}

/** An amount drawn from stock, in milligrams, or in pieces for what is counted. */
export interface StockDraw {
  materialId: string;
  amount: number;
}

/** What one effective event drew from stock: a row of the stock ledger. */
export interface StockUse extends StockDraw {
  eventId: string;
  at: string;
}

/** Formats quantities in the units of the workshop, for `describe`. */
export interface Formatters {
  g(mg: number): string;
  /** A weight as the scale shows it. */
  onScale(mg: number, scale: ScaleDisplay): string;
  t(centi: number): string;
  len(um: number): string;
  /** A temperature with the decimals that its instrument showed. */
  tShown(centi: number): string;
  tDifference(centi: number): string;
  range(range: { low: number; high: number }): string;
  temperature: "C" | "F";
}
export interface Description {
  what: string;
  figure?: string;
  /** A further line, such as how a reading compares with its range. */
  remark?: string;
  tone?: "ink" | "inside" | "hot" | "cool" | "safety";
}

/** A field of a payload that can be corrected, and how it is parsed. */
export interface CorrectableField {
  field: string;
  label: string;
  is: "mass" | "temperature" | "duration" | "count" | "text";
  /** Of a count: what is counted. */
  of?: string;
}

/** What the form of an event type with one field asks: the field, and the button's words. */
export type EntryFields = CorrectableField & { button: string; placeholder?: string };

/**
 * An event type: one object in a file of its own. `P` is its payload, `F` the state of the aggregate, `C` the aggregate's frozen plan. `S` is what
 * `payload` needs to build its schema: it is passed in, so that pages that only show events do not load the schema library.
 */
export interface EventType<K extends string, P, F, C, S = { z: Z }> {
  kind: K;
  /** The name under which earlier versions stored it. */
  formerName?: string;
  /** The version of the payload; `upcast` converts older ones. */
  version: number;
  payload: (shapes: S) => z.ZodType<P>;
  /** Returns a payload of any older version in the newest one. */
  upcast?: (old: Record<string, unknown>, version: number) => unknown;
  /** The field that can be corrected; null if only the time can be. Without it, the event can only be deleted. */
  correctableField?: CorrectableField | null;
  /** It is entered in a form of its one field (`correctableField`): what the button says, and what stands in the empty field. */
  entered?: { button: string; placeholder?: string };
  /** Entered, corrected and deleted only by a command of the program, which keeps rows beside it: what a maker is told instead. */
  onlyByCommand?: string;
  /** Returns why the event is invalid in this state; null if it is valid. `at` is when it happened, where that is known. */
  validate?: (state: F, payload: P, frozen: C, at?: string) => Rejection | null;
  /** Changes the state in place. */
  apply: (state: F, event: EventOf<string, P>, frozen: C) => void;
  stockUse?: (state: F, payload: P, frozen: C) => StockDraw[];
  describe: (payload: P, frozen: C, say: Formatters, instrument: string) => Description;
  /** Columns of the CSV export beside the head: grams, °C and seconds as plain numbers. */
  columns: (payload: P, frozen: C) => { what?: string; grams?: number; wax_celsius?: number; shown_celsius?: number; seconds?: number };
}
// biome-ignore lint/suspicious/noExplicitAny: a list of kinds holds payloads of many types, each with what checks it
export type AnyEventType<F, C> = EventType<string, any, F, C, any>;

/** What every state holds: its version, how many events are effective (`standing`), when the newest happened, and what they drew from stock. */
export interface LogState {
  format: number;
  effectiveEvents: number;
  startedAt: string;
  lastAt: string;
  drawn: Record<string, { amount: number; at: string }>;
}

/** An aggregate: its event types by name, and the state that it starts with. Every aggregate has the type `withdrawn`, a deletion. */
export interface Aggregate<F extends LogState, C> {
  eventTypes: ReadonlyMap<string, AnyEventType<F, C>>;
  initialState: (frozen: C, start: EventOf) => F;
}

/** An event with the one that superseded it. */
export interface Entry<E extends Head = EventOf> {
  event: E;
  /** The event that corrected or deleted it; null if it is effective. */
  supersededBy: E | null;
}

const arrived = (a: Head, b: Head) => Date.parse(a.arrivedAt) - Date.parse(b.arrivedAt) || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0);
/** Compares two events by when they happened, then by when they arrived. */
export const compareHappened = (a: Head, b: Head): number => Date.parse(a.happenedAt) - Date.parse(b.happenedAt) || arrived(a, b);

const WITHDRAWN = "withdrawn";
const isUndo = (event: EventOf) => (event.payload as { mode?: "delete" | "undo" }).mode === "undo";

/**
 * Returns all events in the order of happening, each with the one that superseded it. Of two corrections of one event, the later to arrive is
 * effective and supersedes the other. Deleting a deletion restores the event. Deleting a correction deletes the event altogether; undoing it
 * (`mode: "undo"`) restores what was there before. Cycles, which only a damaged file can hold, are ignored.
 */
export function resolveCorrections<E extends EventOf>(events: readonly E[]): Entry<E>[] {
  const by = new Map<string, E[]>();
  for (const event of [...events].sort(arrived)) {
    if (!event.corrects || event.corrects === event.id) continue;
    const list = by.get(event.corrects);
    if (list) list.push(event);
    else by.set(event.corrects, [event]);
  }
  const known = new Map<string, E | null>();
  const open = new Set<string>();
  /** Returns the event that supersedes this one; null if it is effective. */
  const findSuperseder = (event: E): E | null => {
    const found = known.get(event.id);
    if (found !== undefined) return found;
    const correctors = by.get(event.id);
    if (!correctors || open.has(event.id)) return null;
    open.add(event.id);
    let winner: E | null = null;
    for (const corrector of correctors) {
      const over = findSuperseder(corrector);
      // A correction that was itself corrected still keeps the first entry out; one that was undone does not.
      const counts = over === null || (corrector.kind !== WITHDRAWN && (over.kind !== WITHDRAWN || !isUndo(over)));
      if (counts) winner = corrector;
    }
    open.delete(event.id);
    known.set(event.id, winner);
    return winner;
  };
  return [...events].sort(compareHappened).map((event) => {
    const over = findSuperseder(event);
    if (over || !event.corrects) return { event, supersededBy: over };
    // A loser of two corrections is superseded by the one that counts.
    const rivals = by.get(event.corrects);
    const target = rivals && rivals.length > 1 ? events.find((item) => item.id === event.corrects) : undefined;
    const winner = target ? findSuperseder(target) : null;
    return { event, supersededBy: winner && winner.id !== event.id && winner.corrects === event.corrects ? winner : null };
  });
}

/** Returns whether a chain of corrections leads back to its beginning. */
export function hasCorrectionCycle(events: readonly Pick<Head, "id" | "corrects">[]): boolean {
  const to = new Map(events.map((event) => [event.id, event.corrects]));
  const fine = new Set<string>();
  for (const { id } of events) {
    const path = new Set<string>();
    for (let at: string | null | undefined = id; at && !fine.has(at); at = to.get(at)) {
      if (path.has(at)) return true;
      path.add(at);
    }
    for (const id of path) fine.add(id);
  }
  return false;
}

/** Applies one effective event to the state, in place. Returns what it drew from stock, one line per material. */
export function applyEvent<F extends LogState, C>(aggregate: Aggregate<F, C>, state: F, event: EventOf, frozen: C): StockUse[] {
  const kind = aggregate.eventTypes.get(event.kind);
  if (!kind) return [];
  const uses = new Map<string, StockUse>();
  for (const { materialId, amount } of kind.stockUse?.(state, event.payload, frozen) ?? []) {
    state.drawn[materialId] = { amount: (state.drawn[materialId]?.amount ?? 0) + amount, at: event.happenedAt };
    uses.set(materialId, { eventId: event.id, materialId, amount: (uses.get(materialId)?.amount ?? 0) + amount, at: event.happenedAt });
  }
  kind.apply(state, event, frozen);
  state.effectiveEvents += 1;
  if (Date.parse(event.happenedAt) > Date.parse(state.lastAt)) state.lastAt = event.happenedAt;
  return [...uses.values()];
}

/** Returns the effective events of a log in the order of happening, without its start. An event that is given twice counts once. */
function standingOf(start: EventOf, all: readonly EventOf[]): EventOf[] {
  const events = [...new Map(all.map((event) => [event.id, event])).values()];
  return resolveCorrections(events).flatMap(({ event, supersededBy }) => (supersededBy || event.kind === WITHDRAWN || event.id === start.id ? [] : [event]));
}

/** Returns the state that follows from all events, and what each effective one drew from stock. Order and repetition of the input do not matter. */
export function fold<F extends LogState, C>(aggregate: Aggregate<F, C>, start: EventOf, all: readonly EventOf[], frozen: C): { state: F; uses: StockUse[] } {
  const state = aggregate.initialState(frozen, start);
  const uses = standingOf(start, all).flatMap((event) => applyEvent(aggregate, state, event, frozen));
  return { state, uses };
}

/**
 * Returns the effective events that are invalid in the state before them, by id, in the order of happening. Corrections are validated as if the log
 * were open again: `reopened` returns that state. Advisory rules are left out.
 */
export function eventsRefusedIn<F extends LogState, C>(
  aggregate: Aggregate<F, C>,
  start: EventOf,
  all: readonly EventOf[],
  frozen: C,
  reopened: (state: F) => F,
): Map<string, { event: EventOf; refusal: Rejection }> {
  const state = aggregate.initialState(frozen, start);
  const refused = new Map<string, { event: EventOf; refusal: Rejection }>();
  for (const event of standingOf(start, all)) {
    const refusal = aggregate.eventTypes.get(event.kind)?.validate?.(event.corrects ? reopened(state) : state, event.payload, frozen, event.happenedAt);
    if (refusal && !refusal.advisory) refused.set(event.id, { event, refusal });
    applyEvent(aggregate, state, event, frozen);
  }
  return refused;
}

/** Returns whether an event can be applied to a state as it is: it corrects nothing, and no effective event happened after it. */
export const isAppendOnly = (state: { lastAt: string }, event: Pick<EventOf, "corrects" | "kind" | "happenedAt">): boolean =>
  event.corrects === null && event.kind !== WITHDRAWN && Date.parse(event.happenedAt) >= Date.parse(state.lastAt);

/** How far an event may be dated ahead of the server's clock, in ms: clocks disagree a little. */
export const CLOCK_TOLERANCE_MS = 90_000;
