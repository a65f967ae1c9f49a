import type { z } from "zod";
import type { Z } from "../shapes";
import type { ScaleDisplay } from "../units/mass";

/**
 * A log: what happened to a subject, entry by entry, never changed afterwards. A correction is a further entry that
 * names the one it replaces. Nothing here knows of any trade.
 */
export interface Head {
  /** UUIDv7, made where it happened: sending it twice changes nothing. */
  id: string;
  happenedAt: string;
  arrivedAt: string;
  personId: string | null;
  instrumentId: string | null;
  /** The entry that this one replaces or takes back. */
  corrects: string | null;
  /** What the device's own clock said, where that was off; `happenedAt` is then set right by the measured difference. */
  deviceAt?: string | null;
}
export type EventOf<K extends string = string, P = unknown> = Head & { kind: K; payload: P };

/** Why an entry cannot be taken, at the field it concerns. */
export interface Refusal {
  field: string;
  message: string;
  /** A rule of good practice that held when the event was entered: what is found out later does not make the event impossible. */
  advisory?: true;
}

/** An amount drawn from stock: milligrams, or pieces of what is counted. */
export interface Draw {
  materialId: string;
  amount: number;
}

/** What one standing event drew from stock: a row of the stock ledger. */
export interface StockUse extends Draw {
  eventId: string;
  at: string;
}

/** How a kind says what happened, in the reader's units. */
export interface Say {
  g(mg: number): string;
  /** A weight as the scale shows it. */
  onScale(mg: number, scale: ScaleDisplay): string;
  t(centi: number): string;
  len(um: number): string;
  /** As its instrument showed it: a tenth of a degree stays one. */
  tShown(centi: number): string;
  tDifference(centi: number): string;
  range(range: { low: number; high: number }): string;
  temperature: "C" | "F";
}
export interface Told {
  what: string;
  figure?: string;
  /** A further line, like how a reading stands against its range. */
  standing?: string;
  tone?: "ink" | "inside" | "hot" | "cool" | "safety";
}

/**
 * A kind of entry: one object, one file. `C` is what is frozen with the subject, `F` what follows from its entries,
 * `S` what it is handed to say how its payload is checked: what only shows entries then loads nothing that checks them.
 */
export interface Kind<K extends string, P, F, C, S = { z: Z }> {
  kind: K;
  /** Of the payload; older ones are brought up by `upcast`. */
  version: number;
  payload: (shapes: S) => z.ZodType<P>;
  /** Brings a payload of any older version up to the newest. */
  upcast?: (old: Record<string, unknown>, version: number) => unknown;
  /** Entered, corrected and deleted only by a command of the program, which keeps rows beside it: what a maker is told instead. */
  own?: string;
  /** `at`: when it happened, where that is known. */
  refuse?: (facts: F, payload: P, frozen: C, at?: string) => Refusal | null;
  /** Changes the facts in place. */
  apply: (facts: F, event: EventOf<string, P>, frozen: C) => void;
  draws?: (facts: F, payload: P, frozen: C) => Draw[];
  told: (payload: P, frozen: C, say: Say, instrument: string) => Told;
  /** What a row of a table holds beside the head: grams, °C, seconds as plain numbers. */
  columns: (payload: P, frozen: C) => { what?: string; grams?: number; wax_celsius?: number; shown_celsius?: number; seconds?: number };
}
// biome-ignore lint/suspicious/noExplicitAny: a list of kinds holds payloads of many types, each with what checks it
export type AnyKind<F, C> = Kind<string, any, F, C, any>;

/** What the facts of every subject tell: how many entries count, when the newest of them happened, what they drew from stock. */
export interface LogFacts {
  format: number;
  standing: number;
  startedAt: string;
  lastAt: string;
  drawn: Record<string, { amount: number; at: string }>;
}

/** What a log is about: its kinds of entry. `withdrawn` belongs to every subject. */
export interface Subject<F extends LogFacts, C> {
  kinds: ReadonlyMap<string, AnyKind<F, C>>;
  first: (frozen: C, start: EventOf) => F;
}

/** One entry with what became of it. */
export interface Entry<E extends Head = EventOf> {
  event: E;
  /** The entry that replaced it or took it back; null where it stands. */
  supersededBy: E | null;
}

const arrived = (a: Head, b: Head) => Date.parse(a.arrivedAt) - Date.parse(b.arrivedAt) || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0);
/** Order of happening, then of arriving. */
export const happened = (a: Head, b: Head): number => Date.parse(a.happenedAt) - Date.parse(b.happenedAt) || arrived(a, b);

const WITHDRAWN = "withdrawn";
const whole = (event: EventOf) => (event.payload as { whole?: boolean }).whole !== false;

/**
 * Marks which entries stand. Of two corrections of one entry the later arrived counts, and the other is superseded by
 * it. Taking back a taking-back restores. Taking back a correction takes the whole entry out, or, where it says
 * `whole: false` (an undo), restores what was there before. Cycles, which only a spoilt file could hold, count for nothing.
 */
export function settle<E extends EventOf>(events: readonly E[]): Entry<E>[] {
  const by = new Map<string, E[]>();
  for (const event of [...events].sort(arrived)) {
    if (!event.corrects || event.corrects === event.id) continue;
    const list = by.get(event.corrects);
    if (list) list.push(event);
    else by.set(event.corrects, [event]);
  }
  const known = new Map<string, E | null>();
  const open = new Set<string>();
  /** The entry that stands in the place of this one; itself not counted. */
  const superseder = (event: E): E | null => {
    const found = known.get(event.id);
    if (found !== undefined) return found;
    const correctors = by.get(event.id);
    if (!correctors || open.has(event.id)) return null;
    open.add(event.id);
    let winner: E | null = null;
    for (const one of correctors) {
      const over = superseder(one);
      // A correction that was itself corrected still keeps the first entry out; one that was undone does not.
      const counts = over === null || (one.kind !== WITHDRAWN && (over.kind !== WITHDRAWN || whole(over)));
      if (counts) winner = one;
    }
    open.delete(event.id);
    known.set(event.id, winner);
    return winner;
  };
  return [...events].sort(happened).map((event) => {
    const over = superseder(event);
    if (over || !event.corrects) return { event, supersededBy: over };
    // A loser of two corrections is superseded by the one that counts.
    const rivals = by.get(event.corrects);
    const target = rivals && rivals.length > 1 ? events.find((one) => one.id === event.corrects) : undefined;
    const winner = target ? superseder(target) : null;
    return { event, supersededBy: winner && winner.id !== event.id && winner.corrects === event.corrects ? winner : null };
  });
}

/** Whether a chain of corrections leads back to where it began. */
export function inCircle(events: readonly Pick<Head, "id" | "corrects">[]): boolean {
  const to = new Map(events.map((one) => [one.id, one.corrects]));
  const fine = new Set<string>();
  for (const { id } of events) {
    const path = new Set<string>();
    for (let at: string | null | undefined = id; at && !fine.has(at); at = to.get(at)) {
      if (path.has(at)) return true;
      path.add(at);
    }
    for (const one of path) fine.add(one);
  }
  return false;
}

/** Adds one standing event to the facts, in place. Returns what it drew from stock, one line a material. */
export function foldOne<F extends LogFacts, C>(subject: Subject<F, C>, facts: F, event: EventOf, frozen: C): StockUse[] {
  const kind = subject.kinds.get(event.kind);
  if (!kind) return [];
  const uses = new Map<string, StockUse>();
  for (const { materialId, amount } of kind.draws?.(facts, event.payload, frozen) ?? []) {
    facts.drawn[materialId] = { amount: (facts.drawn[materialId]?.amount ?? 0) + amount, at: event.happenedAt };
    uses.set(materialId, { eventId: event.id, materialId, amount: (uses.get(materialId)?.amount ?? 0) + amount, at: event.happenedAt });
  }
  kind.apply(facts, event, frozen);
  facts.standing += 1;
  if (Date.parse(event.happenedAt) > Date.parse(facts.lastAt)) facts.lastAt = event.happenedAt;
  return [...uses.values()];
}

/** The standing events of a log in the order of happening, its start left out. One that is given twice counts once. */
function standingOf(start: EventOf, all: readonly EventOf[]): EventOf[] {
  const events = [...new Map(all.map((event) => [event.id, event])).values()];
  return settle(events).flatMap(({ event, supersededBy }) => (supersededBy || event.kind === WITHDRAWN || event.id === start.id ? [] : [event]));
}

/** The facts that follow from all entries, and what each standing one drew from stock. The order in which they are given does not matter; one given twice counts once. */
export function fold<F extends LogFacts, C>(subject: Subject<F, C>, start: EventOf, all: readonly EventOf[], frozen: C): { facts: F; uses: StockUse[] } {
  const facts = subject.first(frozen, start);
  const uses = standingOf(start, all).flatMap((event) => foldOne(subject, facts, event, frozen));
  return { facts, uses };
}

/**
 * The standing events that the state before them refuses, by id, in the order of happening. Corrections are judged as if the log were open again:
 * `reopened` gives that state. Rules that are only advisory are left out.
 */
export function refusedIn<F extends LogFacts, C>(
  subject: Subject<F, C>,
  start: EventOf,
  all: readonly EventOf[],
  frozen: C,
  reopened: (facts: F) => F,
): Map<string, { event: EventOf; refusal: Refusal }> {
  const facts = subject.first(frozen, start);
  const refused = new Map<string, { event: EventOf; refusal: Refusal }>();
  for (const event of standingOf(start, all)) {
    const refusal = subject.kinds.get(event.kind)?.refuse?.(event.corrects ? reopened(facts) : facts, event.payload, frozen, event.happenedAt);
    if (refusal && !refusal.advisory) refused.set(event.id, { event, refusal });
    foldOne(subject, facts, event, frozen);
  }
  return refused;
}

/** Whether an entry can be folded onto facts as they are: it corrects nothing, and nothing that counts happened after it. */
export const followsOn = (facts: { lastAt: string }, event: Pick<EventOf, "corrects" | "kind" | "happenedAt">): boolean =>
  event.corrects === null && event.kind !== WITHDRAWN && Date.parse(event.happenedAt) >= Date.parse(facts.lastAt);

/** An entry may be dated this far ahead of the server's clock, for clocks that disagree a little. */
export const CLOCK_TOLERANCE_MS = 90_000;
