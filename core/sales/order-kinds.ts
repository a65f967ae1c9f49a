export const ORDER_KINDS = ["order", "market"] as const;
export type OrderKind = (typeof ORDER_KINDS)[number];
