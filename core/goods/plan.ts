import type { z } from "zod";

type Schema = typeof import("./schema");
export type OrderLine = z.output<Schema["orderLine"]>;
/** What an order, or what is taken to a market day, was begun with. */
export type OrderPlan = z.output<Schema["orderPlan"]>;

export const ORDER_KINDS = ["order", "market"] as const;
export type OrderKind = (typeof ORDER_KINDS)[number];
