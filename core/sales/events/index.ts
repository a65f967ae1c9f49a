import { note } from "../../log/events/note";
import { withdrawn } from "../../log/events/withdrawn";
import type { OrderPlan } from "../plan";
import type { OrderState } from "../state";
import { asked } from "./asked";
import { closed } from "./closed";
import { packsResolved } from "./packs-resolved";
import { shipped } from "./shipped";
import { started } from "./started";

/** All event types of an order or a market day. A new event type is a file and a line here. */
export const ORDER_EVENTS = [started, asked, shipped, packsResolved, note<OrderState, OrderPlan>(), closed, withdrawn<OrderState, OrderPlan>()] as const;
