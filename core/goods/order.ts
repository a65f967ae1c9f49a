import type { EventOf, Entry as LogEntry } from "../log/log";
import { type BodyOf, subjectOf } from "../log/subject";
import { firstOrder, type OrderFacts } from "./facts";
import { ORDER_ENTRIES } from "./kinds";
import type { OrderPlan } from "./plan";

export type OrderBody = BodyOf<typeof ORDER_ENTRIES>;
export type OrderEvent = EventOf & OrderBody;
export type OrderEntry = LogEntry<OrderEvent>;

/** An order, or a market day, as a subject of the log. */
export const ORDER = subjectOf({
  what: "order",
  kinds: ORDER_ENTRIES,
  first: firstOrder,
  frozenOf: ({ plan }: { plan: OrderPlan }) => plan,
  startStays: "The start of an order cannot be taken back. Close it, and say in a note why.",
  reopened: (facts: OrderFacts) => ({ ...facts, closed: null }),
});
