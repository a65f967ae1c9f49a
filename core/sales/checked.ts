import type { output } from "zod";
import { checked, stamp } from "../log/checked";
import { z } from "../shapes";
import type { OrderShapes } from "./events/event-type";
import { ORDER } from "./order";
import { orderPlan } from "./schema";

/** The order aggregate with the schemas of its entries, for code that accepts or reads them. */
export const CHECKED_ORDER = checked(ORDER, { z, orderPlan, stamp } satisfies OrderShapes);
export type SentOrderEvent = output<typeof CHECKED_ORDER.sent>;
