import { z } from "zod";
import {
  type AnyKind,
  type EventOf,
  fold,
  type Entry as LogEntry,
  type Refusal,
  readPayload,
  type Say,
  type Subject,
  sentHead,
  settle,
  storedHead,
  type Told,
} from "../log/log";
import { type BatchFacts, firstFacts } from "./facts";
import { BATCH_KINDS } from "./kinds";
import { type BatchPlan, readPlan } from "./plan";

type Kinds = (typeof BATCH_KINDS)[number];
export type BatchEventKind = Kinds["kind"];
export type PayloadOf<K extends BatchEventKind> = z.output<Extract<Kinds, { kind: K }>["payload"]>;
/** What happened, without its head. */
export type EventBody = { [K in BatchEventKind]: { kind: K; payload: PayloadOf<K> } }[BatchEventKind];
export type BatchEvent = EventOf & EventBody;
export type Entry = LogEntry<BatchEvent>;

const byName = new Map<string, AnyKind<BatchFacts, BatchPlan>>(BATCH_KINDS.map((one) => [one.kind, one]));
export const batchKindOf = (kind: string): AnyKind<BatchFacts, BatchPlan> | undefined => byName.get(kind);

/** A batch as a subject of the log. */
export const BATCH: Subject<BatchFacts, BatchPlan> = { kinds: byName, first: firstFacts };

const bodies = BATCH_KINDS.map((one) => z.object({ kind: z.literal(one.kind), payload: one.payload }));
/** What can happen to a batch, with each kind's payload. */
export const eventBody = z.discriminatedUnion("kind", bodies as never) as unknown as z.ZodType<EventBody>;

/** An entry as it is sent: everything but the time it arrived. */
export const sentEvent = z.intersection(sentHead, eventBody);
export type SentEvent = z.output<typeof sentEvent>;
/** An entry as it travels in a record. */
export const batchEvent = z.intersection(storedHead.extend({ v: z.number().int().min(1).describe("version of the payload") }), eventBody);

/** Entries as they were written one after another: straight after the one at `after`, the last of them at `seq`. */
export interface Written {
  after: number;
  seq: number;
  events: BatchEvent[];
}

/** The version in which a kind's payloads are written now. */
export const versionOf = (kind: string): number => byName.get(kind)?.version ?? 1;

/** Reads a stored or imported entry: its payload brought up to the newest version and checked. @throws z.ZodError, or Error for an unknown kind. */
export function readEvent(raw: EventOf & { v?: number | null }): BatchEvent {
  const kind = byName.get(raw.kind);
  if (!kind) throw new Error(`An entry of the kind “${raw.kind}” is not known here: it was written by a newer version.`);
  const { v, ...head } = raw;
  return { ...head, payload: readPayload(kind, raw.payload, v ?? 1) } as BatchEvent;
}

/** An entry as it was sent, its payload brought up to the newest version: one that waited on a device through an update is still taken. */
export function upcastSent(raw: unknown): unknown {
  if (!raw || typeof raw !== "object" || !("kind" in raw) || !("payload" in raw)) return raw;
  const { v, ...event } = raw as { v?: unknown; kind: unknown; payload: unknown };
  const kind = typeof event.kind === "string" ? byName.get(event.kind) : undefined;
  const version = typeof v === "number" ? v : 1;
  if (!kind?.upcast || version >= kind.version || !event.payload || typeof event.payload !== "object") return event;
  return { ...event, payload: kind.upcast(event.payload as Record<string, unknown>, version) };
}

/** The frozen plan and the facts of a batch from all its entries. @throws Error where none is “started”. */
export function batchOf(events: readonly BatchEvent[]): { plan: BatchPlan; facts: BatchFacts; entries: Entry[] } {
  const start = events.find((event) => event.kind === "started");
  if (start?.kind !== "started") throw new Error("A batch without its “started” entry cannot be read.");
  const { plan } = start.payload;
  const unique = [...new Map(events.map((event) => [event.id, event])).values()];
  return { plan, facts: fold(BATCH, start, unique, plan), entries: settle(unique) };
}

/** Why an entry cannot be taken into a batch; null where it can. `target` is the entry it corrects, with what became of that. */
export function refusal(
  at: { plan: BatchPlan; facts: BatchFacts },
  event: { id?: string; kind: string; payload: unknown; corrects: string | null; happenedAt?: string },
  target: Entry | null = null,
): Refusal | null {
  const kind = byName.get(event.kind);
  if (!kind) return { field: "kind", message: "This kind of entry is not known here." };
  if (event.corrects) {
    if (event.corrects === event.id) return { field: "corrects", message: "An entry cannot correct itself." };
    if (!target) return { field: "corrects", message: "The entry to correct is not in this batch." };
    if (target.supersededBy) return { field: "corrects", message: "That entry has been corrected already. Correct the newer one." };
    if (target.event.kind === "started")
      return { field: "corrects", message: "The start of a batch cannot be taken back. Abandon it, or undo it before its first entry." };
    if (event.kind !== "withdrawn" && event.kind !== target.event.kind)
      return { field: "corrects", message: `A “${target.event.kind}” entry can only be corrected by another of its kind, or withdrawn.` };
    // What the first entry was allowed to do, its correction may: only the payload itself is looked at.
    const open = { ...at.facts, closed: null, abandoned: null, pours: target.event.kind === "poured" ? {} : at.facts.pours };
    return kind.refuse?.(open, event.payload, at.plan, event.happenedAt) ?? null;
  }
  if (event.kind === "withdrawn") return { field: "corrects", message: "Say which entry is taken back." };
  return kind.refuse?.(at.facts, event.payload, at.plan, event.happenedAt) ?? null;
}

/** What an entry says, in the reader's units. */
export const tellEvent = (event: BatchEvent, plan: BatchPlan, say: Say, instrument: string): Required<Told> => ({
  figure: "",
  standing: "",
  tone: "ink",
  ...(byName.get(event.kind)?.told(event.payload, plan, say, instrument) ?? { what: event.kind }),
});

export { readPlan };
