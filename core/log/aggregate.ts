import type { z } from "zod";
import { unreadableOf } from "./events/unreadable";
import {
  type Aggregate,
  type AnyEventType,
  type CorrectableField,
  type Description,
  type EntryFields,
  type Entry as EntryOf,
  type EventOf,
  eventsRefusedIn,
  type Formatters,
  fold,
  type LogState,
  type Rejection,
  resolveCorrections,
  type StockUse,
} from "./log";

type Body<K> = K extends { kind: infer N extends string; payload: (shapes: never) => z.ZodType<infer P> } ? { kind: N; payload: P } : never;
/** The union of what can happen, type by type, without the head. */
export type BodyOf<K extends readonly unknown[]> = Body<K[number]>;

interface Given<F, C, K> {
  /** Its name in a sentence: "batch". */
  what: string;
  eventTypes: K;
  first: (frozen: C, start: EventOf) => F;
  /** Returns the plan from the payload of its "started" event. */
  planOf: (payload: never) => C;
  /** The message that says how to undo its start, since that event cannot be deleted. */
  startNotDeletable: string;
  /** Returns the state as if the event that ended the log were not there: corrections are validated against it. */
  reopened: (state: F) => F;
  /** Returns why an event may not lead to this state, in words that say what to do; null if it may. */
  inTheWay?: (plan: C, after: F) => string | null;
}

/** Formatters that leave quantities out, for sentences that name an event. */
const WITHOUT_QUANTITIES: Formatters = {
  g: () => "",
  onScale: () => "",
  t: () => "",
  len: () => "",
  tShown: () => "",
  tDifference: () => "",
  range: () => "",
  temperature: "C",
};

/** Consecutive events of a log: the first follows the position `after`, the last is at `seq`. */
export interface WrittenOf<E> {
  after: number;
  seq: number;
  events: E[];
}

const storedKindOf = (event: EventOf): string => unreadableOf(event)?.kind ?? event.kind;

/** What is needed of an event to validate it. */
type AskedEntry = { id?: string; kind: string; payload: unknown; corrects: string | null; happenedAt?: string };

/** Returns why an event is invalid in a state, or cannot correct `target`; null if it is valid. */
function refusalOf<F, C>(
  given: { what: string; startNotDeletable: string },
  eventTypes: ReadonlyMap<string, AnyEventType<F, C>>,
  at: { plan: C; state: F },
  event: AskedEntry,
  target: EntryOf<EventOf> | null,
): Rejection | null {
  const kind = eventTypes.get(event.kind);
  if (!kind) return { field: "kind", message: "Unknown type of entry." };
  if (event.corrects) {
    if (event.corrects === event.id) return { field: "corrects", message: "An entry cannot correct itself." };
    if (!target) return { field: "corrects", message: `The entry to correct is not in this ${given.what}.` };
    if (target.supersededBy) return { field: "corrects", message: "That entry has been corrected already. Correct the newer one." };
    if (storedKindOf(target.event) === "started") return { field: "corrects", message: given.startNotDeletable };
    if (event.kind !== "withdrawn" && event.kind !== target.event.kind)
      return { field: "corrects", message: `A “${target.event.kind}” entry can only be corrected by an entry of the same type, or deleted.` };
    // Whether it fits the log is for `conflict` to say, which sees all of it.
    return null;
  }
  if (event.kind === "withdrawn") return { field: "corrects", message: "Choose the entry to delete." };
  return kind.validate?.(at.state, event.payload, at.plan, event.happenedAt) ?? null;
}

/** Returns an aggregate with its operations: fold, validate, describe. `checked` adds the schemas that parse its events. */
export function defineAggregate<F extends LogState, C, const K extends readonly AnyEventType<F, C>[]>(given: Given<F, C, K>) {
  type EventBody = BodyOf<K>;
  type Event = EventOf & EventBody;
  type Entry = EntryOf<Event>;
  const eventTypes = new Map<string, AnyEventType<F, C>>(given.eventTypes.map((eventType) => [eventType.kind, eventType]));
  const currentNames = new Map(given.eventTypes.flatMap((eventType) => (eventType.formerName ? [[eventType.formerName, eventType.kind] as const] : [])));
  const currentName = (kind: string): string => (eventTypes.has(kind) ? kind : (currentNames.get(kind) ?? kind));
  const typeOf = (kind: string) => eventTypes.get(currentName(kind));
  const upcastPayload = (kind: string, payload: unknown, version: number): unknown => {
    const type = typeOf(kind);
    return type?.upcast && version < type.version ? type.upcast((payload ?? {}) as Record<string, unknown>, version) : payload;
  };
  const aggregate: Aggregate<F, C> = { eventTypes, initialState: given.first };
  /** Returns the start and the plan that it froze; where that cannot be read, the plan that is kept beside the log. */
  const startOf = (events: readonly Event[], kept: C | null): { start: Event; plan: C } => {
    const start = events.find((event) => storedKindOf(event) === "started");
    if (!start) throw new Error(`A ${given.what} without its “started” entry cannot be read.`);
    const unreadable = unreadableOf(start);
    if (!unreadable) return { start, plan: given.planOf(start.payload as never) };
    if (!kept) throw new Error(`The start of this ${given.what} cannot be read: ${unreadable.why}`);
    return { start, plan: kept };
  };

  return {
    ...aggregate,
    what: given.what,
    /** Returns the message for event types that only a command may enter, correct or delete; null for all others. */
    onlyByCommand: (kind: string): string | null => typeOf(kind)?.onlyByCommand ?? null,
    /** Returns which field of an event type can be corrected: null if only its time, undefined if nothing. */
    correctableField: (kind: string): CorrectableField | null | undefined => typeOf(kind)?.correctableField,
    /** Returns what the form of an event type with one field asks. @throws Error if the type declares no such form */
    enteredBy(kind: string): EntryFields {
      const { correctableField, entered } = typeOf(kind) ?? {};
      if (!correctableField || !entered) throw new Error(`There is no form for entries of type ${kind}.`);
      return { ...correctableField, ...entered };
    },
    /** Returns the name that an event type has now, from the one under which it was stored. */
    currentName,
    /** Returns the payload of an event, written in an earlier version, in the current one. */
    upcastPayload,
    /** Returns the current payload version of an event type. */
    versionOf: (kind: string): number => typeOf(kind)?.version ?? 1,

    /** Returns a sent event under its current name, with its payload in the newest version, so that one that waited on a device through an update is still accepted. */
    upcastSent(raw: unknown): unknown {
      if (!raw || typeof raw !== "object" || !("kind" in raw) || !("payload" in raw)) return raw;
      const { v, ...sent } = raw as { v?: unknown; kind: unknown; payload: unknown };
      const event = typeof sent.kind === "string" ? { ...sent, kind: currentName(sent.kind) } : sent;
      if (typeof event.kind !== "string" || !event.payload || typeof event.payload !== "object") return event;
      return { ...event, payload: upcastPayload(event.kind, event.payload, typeof v === "number" ? v : 1) };
    },

    /** Returns plan, state, stock uses and entries of a log. `kept` is the plan to use where the start cannot be read. @throws Error if there is neither */
    of(events: readonly Event[], kept: C | null = null): { plan: C; state: F; uses: StockUse[]; entries: Entry[] } {
      const { start, plan } = startOf(events, kept);
      const unique = [...new Map(events.map((event) => [event.id, event])).values()];
      return { plan, ...fold(aggregate, start, unique, plan), entries: resolveCorrections(unique) };
    },

    /** Returns the effective events that are invalid in the state before them, in the order of happening. `kept` as for `of`. */
    refusedEvents(events: readonly Event[], kept: C | null = null): { event: Event; refusal: Rejection }[] {
      const { start, plan } = startOf(events, kept);
      return [...eventsRefusedIn(aggregate, start, events, plan, given.reopened).values()] as { event: Event; refusal: Rejection }[];
    },

    /**
     * Returns why a correction, a deletion or a late event cannot join a log: it is invalid at its place, or a later event would become invalid. Null
     * if it can.
     */
    conflict(events: readonly Event[], event: Event, kept: C | null = null): Rejection | null {
      const before = new Set(this.refusedEvents(events, kept).map((refusedEvent) => refusedEvent.event.id));
      const after = this.refusedEvents([...events, event], kept).filter((refusedEvent) => !before.has(refusedEvent.event.id));
      const own = after.find((item) => item.event.id === event.id);
      if (own) return own.refusal;
      const [first] = after;
      if (!first) return null;
      const { plan, state } = this.of([...events, event], kept);
      const field = event.corrects ? "corrects" : "happenedAt";
      const words = given.inTheWay?.(plan, state);
      if (words) return { field, message: words };
      const { what, figure } = this.tell(first.event, plan, WITHOUT_QUANTITIES, "");
      return {
        field,
        message: `“${[what, figure].filter(Boolean).join(", ")}” follows from it and would no longer be possible. Delete or correct that entry first.`,
      };
    },

    /** Returns why an event is invalid; null if it is valid. `target` is the entry that it corrects. */
    refusal: (at: { plan: C; state: F }, event: AskedEntry, target: Entry | null = null): Rejection | null => refusalOf(given, eventTypes, at, event, target),

    /** Returns what an event says, in the units of the workshop. */
    tell: (event: Event, plan: C, say: Formatters, instrument: string): Required<Description> => {
      const unreadable = unreadableOf(event);
      const description: Description = unreadable
        ? { what: `An entry that cannot be read (${unreadable.kind})`, figure: unreadable.why, remark: "It counts for nothing.", tone: "hot" }
        : (eventTypes.get(event.kind)?.describe(event.payload, plan, say, instrument) ?? { what: event.kind });
      return { figure: "", remark: "", tone: "ink", ...description };
    },
  };
}
