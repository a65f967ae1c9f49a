import type { EventOf, Entry as LogEntry } from "../log/log";
import { type BodyOf, subjectOf } from "../log/subject";
import { firstOrder, type OrderFacts, type WENT } from "./facts";
import { ORDER_ENTRIES } from "./kinds";
import type { OrderPlan } from "./plan";

export type OrderBody = BodyOf<typeof ORDER_ENTRIES>;
export type OrderEvent = EventOf & OrderBody;
export type OrderEntry = LogEntry<OrderEvent>;

/** What a correction of this entry may count anew: as if the packs it counted were still out. */
function without(facts: OrderFacts, target: EventOf): OrderFacts {
  const { sellable, packs, to } = target.payload as { sellable?: string; packs?: number; to?: (typeof WENT)[number] };
  if (target.kind !== "went" || !sellable || !packs || !to) return { ...facts, closed: null };
  let rest = packs;
  const goods = facts.goods.map((one) => {
    const less = one.sellable === sellable ? Math.min(rest, one[to]) : 0;
    rest -= less;
    return less > 0 ? { ...one, [to]: one[to] - less } : one;
  });
  return { ...facts, goods, closed: null };
}

/** An order, or a market day, as a subject of the log. */
export const ORDER = subjectOf({
  what: "order",
  kinds: ORDER_ENTRIES,
  first: firstOrder,
  frozenOf: ({ plan }: { plan: OrderPlan }) => plan,
  startStays: "The start of an order cannot be taken back. Close it, and say in a note why.",
  reopened: without,
});
