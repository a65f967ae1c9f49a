import type { stamp } from "../../log/checked";
import type { EventType, Rejection } from "../../log/log";
import type { Z } from "../../shapes";
import type { OrderPlan } from "../plan";
import type { orderPlan } from "../schema";
import type { OrderState } from "../state";

/** The schema builders that the event types of an order use for their payloads. */
export interface OrderShapes {
  z: Z;
  orderPlan: typeof orderPlan;
  stamp: typeof stamp;
}

/** Declares an event type of an order or a market day. */
export const orderEvent = <K extends string, P>(kind: EventType<K, P, OrderState, OrderPlan, OrderShapes>) => kind;

export const closedOrder = (state: OrderState): Rejection | null => (state.closed ? { field: "kind", message: "This is closed. Reopen it first." } : null);
export const packsWords = (packs: number, name: string): string => `${packs} × ${name}`;
