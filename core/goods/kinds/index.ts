import { note } from "../../log/kinds/note";
import { withdrawn } from "../../log/kinds/withdrawn";
import type { OrderFacts } from "../facts";
import type { OrderPlan } from "../plan";
import { asked } from "./asked";
import { closed } from "./closed";
import { out } from "./out";
import { started } from "./started";
import { went } from "./went";

/** Everything that can happen to an order or a market day. A new kind is its file and this line. */
export const ORDER_ENTRIES = [started, asked, out, went, note<OrderFacts, OrderPlan>(), closed, withdrawn<OrderFacts, OrderPlan>()] as const;
