import type { stamp } from "../../log/checked";
import type { Kind, Refusal } from "../../log/log";
import type { Z } from "../../shapes";
import type { OrderFacts } from "../facts";
import type { OrderPlan } from "../plan";
import type { orderPlan } from "../schema";

/** What the kinds of an order are handed to say how their payloads are checked. */
export interface OrderShapes {
  z: Z;
  orderPlan: typeof orderPlan;
  stamp: typeof stamp;
}

/** Declares a kind of entry of an order or a market day. */
export const orderKind = <K extends string, P>(kind: Kind<K, P, OrderFacts, OrderPlan, OrderShapes>) => kind;

export const closedOrder = (facts: OrderFacts): Refusal | null =>
  facts.closed ? { field: "kind", message: "This is closed. Reopen it first, by taking the closing back." } : null;
export const packsWords = (packs: number, name: string): string => `${packs} × ${name}`;
