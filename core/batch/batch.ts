import { type BodyOf, defineAggregate, type WrittenOf } from "../log/aggregate";
import type { EventOf, Entry as LogEntry } from "../log/log";
import { BATCH_EVENTS } from "./events";
import { jarsInTheWay } from "./jars";
import type { BatchPlan } from "./plan";
import { type BatchState, initialState } from "./state";

/** What happened, without its head. */
export type EventBody = BodyOf<typeof BATCH_EVENTS>;
export type BatchEventName = EventBody["kind"];
export type PayloadOf<K extends BatchEventName> = Extract<EventBody, { kind: K }>["payload"];
export type BatchEvent = EventOf & EventBody;
export type Entry = LogEntry<BatchEvent>;
export type Written = WrittenOf<BatchEvent>;

/** The batch aggregate. */
export const BATCH = defineAggregate({
  what: "batch",
  eventTypes: BATCH_EVENTS,
  first: initialState,
  planOf: ({ plan }: { plan: BatchPlan }) => plan,
  startNotDeletable: "The start of a batch cannot be deleted. Abandon it, or undo it before its first entry.",
  reopened: (state: BatchState) => ({ ...state, closed: null, abandoned: null }),
  inTheWay: jarsInTheWay,
});

export const versionOf = BATCH.versionOf;
/** The frozen plan and the state of a batch from all its entries. @throws Error if none is “started”. */
export const batchOf = BATCH.of;
export const refusal = BATCH.refusal;
export const tellEvent = BATCH.tell;
