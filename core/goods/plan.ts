import type { z } from "zod";
import type * as schema from "./schema";

export type OrderLine = z.output<typeof schema.orderLine>;
/** What an order, or what is taken to a market day, was begun with. */
export type OrderPlan = z.output<typeof schema.orderPlan>;

export const ORDER_KINDS = ["order", "market"] as const;
export type OrderKind = (typeof ORDER_KINDS)[number];
