import type { z } from "zod";
import { unreadableOf } from "./kinds/unreadable";
import {
  type AnyKind,
  type Entry as EntryOf,
  type EventOf,
  fold,
  type LogFacts,
  type Refusal,
  refusedIn,
  type Say,
  type StockUse,
  type Subject,
  settle,
  type Told,
} from "./log";

type Body<K> = K extends { kind: infer N extends string; payload: (shapes: never) => z.ZodType<infer P> } ? { kind: N; payload: P } : never;
/** What can happen, kind by kind, without its head. */
export type BodyOf<K extends readonly unknown[]> = Body<K[number]>;

interface Given<F, C, K> {
  /** What it is called in a sentence: "batch". */
  what: string;
  kinds: K;
  first: (frozen: C, start: EventOf) => F;
  /** What was frozen, out of the payload of its “started” entry. */
  frozenOf: (payload: never) => C;
  /** How its start can be taken back, since that entry cannot. */
  startStays: string;
  /** The facts as a correction finds them: as if what ends the log were not there. */
  reopened: (facts: F) => F;
  /** Why an event may not follow where the state after it is this one, in words that say what to do; null where nothing stands in the way. */
  inTheWay?: (plan: C, after: F) => string | null;
}

/** Says what happened without a quantity: for sentences that name an event. */
const WITHOUT_QUANTITIES: Say = {
  g: () => "",
  onScale: () => "",
  t: () => "",
  len: () => "",
  tShown: () => "",
  tDifference: () => "",
  range: () => "",
  temperature: "C",
};

/** Entries as they were written one after another: straight after the one at `after`, the last of them at `seq`. */
export interface WrittenOf<E> {
  after: number;
  seq: number;
  events: E[];
}

/** A subject of the log with all that is asked of one: folding its entries, refusing, telling. What checks them as they come in is made from it by `checked`. */
export function subjectOf<F extends LogFacts, C, const K extends readonly AnyKind<F, C>[]>(given: Given<F, C, K>) {
  type EventBody = BodyOf<K>;
  type Event = EventOf & EventBody;
  type Entry = EntryOf<Event>;
  const kinds = new Map<string, AnyKind<F, C>>(given.kinds.map((one) => [one.kind, one]));
  const subject: Subject<F, C> = { kinds, first: given.first };
  const storedKindOf = (event: EventOf): string => unreadableOf(event)?.kind ?? event.kind;
  /** The start, and what it froze: where it cannot be read, what is kept beside the log. */
  const startOf = (events: readonly Event[], kept: C | null): { start: Event; plan: C } => {
    const start = events.find((event) => storedKindOf(event) === "started");
    if (!start) throw new Error(`A ${given.what} without its “started” entry cannot be read.`);
    const unreadable = unreadableOf(start);
    if (!unreadable) return { start, plan: given.frozenOf(start.payload as never) };
    if (!kept) throw new Error(`The start of this ${given.what} cannot be read: ${unreadable.why}`);
    return { start, plan: kept };
  };

  return {
    ...subject,
    what: given.what,
    /** What a maker is told where only a command of the program enters, corrects and deletes events of this type; null of all others. */
    ownWords: (kind: string): string | null => kinds.get(kind)?.own ?? null,
    /** The version in which a kind's payloads are written now. */
    versionOf: (kind: string): number => kinds.get(kind)?.version ?? 1,

    /** An entry as it was sent, its payload brought up to the newest version: one that waited on a device through an update is still taken. */
    upcastSent(raw: unknown): unknown {
      if (!raw || typeof raw !== "object" || !("kind" in raw) || !("payload" in raw)) return raw;
      const { v, ...event } = raw as { v?: unknown; kind: unknown; payload: unknown };
      const kind = typeof event.kind === "string" ? kinds.get(event.kind) : undefined;
      const version = typeof v === "number" ? v : 1;
      if (!kind?.upcast || version >= kind.version || !event.payload || typeof event.payload !== "object") return event;
      return { ...event, payload: kind.upcast(event.payload as Record<string, unknown>, version) };
    },

    /** What was frozen, and what follows from all entries. `kept` is the plan to go by where the start cannot be read. @throws Error where there is neither. */
    of(events: readonly Event[], kept: C | null = null): { plan: C; facts: F; uses: StockUse[]; entries: Entry[] } {
      const { start, plan } = startOf(events, kept);
      const unique = [...new Map(events.map((event) => [event.id, event])).values()];
      return { plan, ...fold(subject, start, unique, plan), entries: settle(unique) };
    },

    /** The standing events that the state before them refuses, in the order of happening. `kept` as for `of`. */
    refusedEvents(events: readonly Event[], kept: C | null = null): { event: Event; refusal: Refusal }[] {
      const { start, plan } = startOf(events, kept);
      return [...refusedIn(subject, start, events, plan, given.reopened).values()] as { event: Event; refusal: Refusal }[];
    },

    /**
     * Why an event that reaches back (a correction, a deletion, an entry put down late) cannot join a log: it is refused where it would stand, or an
     * event that follows from what it changes would no longer be possible. Null where it can.
     */
    conflict(events: readonly Event[], event: Event, kept: C | null = null): Refusal | null {
      const before = new Set(this.refusedEvents(events, kept).map((one) => one.event.id));
      const after = this.refusedEvents([...events, event], kept).filter((one) => !before.has(one.event.id));
      const own = after.find((one) => one.event.id === event.id);
      if (own) return own.refusal;
      const [first] = after;
      if (!first) return null;
      const { plan, facts } = this.of([...events, event], kept);
      const field = event.corrects ? "corrects" : "happenedAt";
      const words = given.inTheWay?.(plan, facts);
      if (words) return { field, message: words };
      const { what, figure } = this.tell(first.event, plan, WITHOUT_QUANTITIES, "");
      return {
        field,
        message: `“${[what, figure].filter(Boolean).join(", ")}” follows from it and would no longer be possible. Delete or correct that entry first.`,
      };
    },

    /** Why an entry cannot be taken; null where it can. `target` is the entry it corrects, with what became of that. */
    refusal(
      at: { plan: C; facts: F },
      event: { id?: string; kind: string; payload: unknown; corrects: string | null; happenedAt?: string },
      target: Entry | null = null,
    ): Refusal | null {
      const kind = kinds.get(event.kind);
      if (!kind) return { field: "kind", message: "This kind of entry is not known here." };
      if (event.corrects) {
        if (event.corrects === event.id) return { field: "corrects", message: "An entry cannot correct itself." };
        if (!target) return { field: "corrects", message: `The entry to correct is not in this ${given.what}.` };
        if (target.supersededBy) return { field: "corrects", message: "That entry has been corrected already. Correct the newer one." };
        if (storedKindOf(target.event) === "started") return { field: "corrects", message: given.startStays };
        if (event.kind !== "withdrawn" && event.kind !== target.event.kind)
          return { field: "corrects", message: `A “${target.event.kind}” entry can only be corrected by another of its kind, or withdrawn.` };
        // Whether it fits the log is for `conflict` to say, which sees all of it.
        return null;
      }
      if (event.kind === "withdrawn") return { field: "corrects", message: "Say which entry is taken back." };
      return kind.refuse?.(at.facts, event.payload, at.plan, event.happenedAt) ?? null;
    },

    /** What an entry says, in the reader's units. */
    tell: (event: Event, plan: C, say: Say, instrument: string): Required<Told> => {
      const unreadable = unreadableOf(event);
      const told: Told = unreadable
        ? { what: `An entry that cannot be read (${unreadable.kind})`, figure: unreadable.why, standing: "It counts for nothing.", tone: "hot" }
        : (kinds.get(event.kind)?.told(event.payload, plan, say, instrument) ?? { what: event.kind });
      return { figure: "", standing: "", tone: "ink", ...told };
    },
  };
}
