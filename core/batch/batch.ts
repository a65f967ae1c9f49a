import type { EventOf, Entry as LogEntry } from "../log/log";
import { type BodyOf, subjectOf, type WrittenOf } from "../log/subject";
import { type BatchFacts, firstFacts } from "./facts";
import { jarsInTheWay } from "./jars";
import { BATCH_KINDS } from "./kinds";
import type { BatchPlan } from "./plan";

/** What happened, without its head. */
export type EventBody = BodyOf<typeof BATCH_KINDS>;
export type BatchEventKind = EventBody["kind"];
export type PayloadOf<K extends BatchEventKind> = Extract<EventBody, { kind: K }>["payload"];
export type BatchEvent = EventOf & EventBody;
export type Entry = LogEntry<BatchEvent>;
export type Written = WrittenOf<BatchEvent>;

/** A batch as a subject of the log. */
export const BATCH = subjectOf({
  what: "batch",
  kinds: BATCH_KINDS,
  first: firstFacts,
  frozenOf: ({ plan }: { plan: BatchPlan }) => plan,
  startStays: "The start of a batch cannot be taken back. Abandon it, or undo it before its first entry.",
  reopened: (facts: BatchFacts) => ({ ...facts, closed: null, abandoned: null }),
  inTheWay: jarsInTheWay,
});

export const versionOf = BATCH.versionOf;
/** The frozen plan and the facts of a batch from all its entries. @throws Error where none is “started”. */
export const batchOf = BATCH.of;
export const refusal = BATCH.refusal;
export const tellEvent = BATCH.tell;
