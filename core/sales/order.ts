import { type BodyOf, defineAggregate } from "../log/aggregate";
import type { EventOf, Entry as LogEntry } from "../log/log";
import { ORDER_EVENTS } from "./events";
import type { OrderPlan } from "./plan";
import { initialOrderState, type OrderState } from "./state";

export type OrderBody = BodyOf<typeof ORDER_EVENTS>;
export type OrderEvent = EventOf & OrderBody;
export type OrderEntry = LogEntry<OrderEvent>;

/** The aggregate of an order or a market day. */
export const ORDER = defineAggregate({
  what: "order",
  eventTypes: ORDER_EVENTS,
  first: initialOrderState,
  planOf: ({ plan }: { plan: OrderPlan }) => plan,
  startNotDeletable: "The start of an order cannot be deleted. Close it, and say in a note why.",
  reopened: (state: OrderState) => ({ ...state, closed: null }),
});
