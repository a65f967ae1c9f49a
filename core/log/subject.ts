import type { z } from "zod";
import { type AnyKind, type Entry as EntryOf, type EventOf, fold, type LogFacts, type Refusal, type Say, type Subject, settle, type Told } from "./log";

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
  /** The facts as a correction of this entry finds them: what the entry was allowed to do, its correction may. */
  reopened: (facts: F, target: EventOf) => F;
}

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

  return {
    ...subject,
    what: given.what,
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

    /** What was frozen, and what follows from all entries. @throws Error where none is “started”. */
    of(events: readonly Event[]): { plan: C; facts: F; entries: Entry[] } {
      const start = events.find((event) => event.kind === "started");
      if (!start) throw new Error(`A ${given.what} without its “started” entry cannot be read.`);
      const plan = given.frozenOf(start.payload as never);
      const unique = [...new Map(events.map((event) => [event.id, event])).values()];
      return { plan, facts: fold(subject, start, unique, plan), entries: settle(unique) };
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
        if (target.event.kind === "started") return { field: "corrects", message: given.startStays };
        if (event.kind !== "withdrawn" && event.kind !== target.event.kind)
          return { field: "corrects", message: `A “${target.event.kind}” entry can only be corrected by another of its kind, or withdrawn.` };
        return kind.refuse?.(given.reopened(at.facts, target.event), event.payload, at.plan, event.happenedAt) ?? null;
      }
      if (event.kind === "withdrawn") return { field: "corrects", message: "Say which entry is taken back." };
      return kind.refuse?.(at.facts, event.payload, at.plan, event.happenedAt) ?? null;
    },

    /** What an entry says, in the reader's units. */
    tell: (event: Event, plan: C, say: Say, instrument: string): Required<Told> => ({
      figure: "",
      standing: "",
      tone: "ink",
      ...(kinds.get(event.kind)?.told(event.payload, plan, say, instrument) ?? { what: event.kind }),
    }),
  };
}
