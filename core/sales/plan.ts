export { ORDER_KINDS, type OrderKind } from "./order-kinds";
export type { OrderLine, OrderPlan } from "./schema";
