import { z } from "zod";
import { isoDay } from "../units/day";
import { ORDER_KINDS } from "./order-kinds";

const minor = z.number().int().min(0).max(1e12);

export const orderLine = z.object({
  /** The product or set. */
  sellable: z.uuid(),
  name: z.string().min(1).max(120),
  packs: z.number().int().min(0).max(100_000),
  /** Of one pack, in minor units; null if no price is set. */
  price: minor.nullable(),
});

export type OrderLine = z.output<typeof orderLine>;

/** What an order, or what is taken to a market day, was begun with. */
export const orderPlan = z.object({
  format: z.literal(1),
  what: z.enum(ORDER_KINDS),
  name: z.string().trim().min(1, "Give it a name: whose order, which market.").max(120),
  whom: z.string().trim().max(200).default(""),
  wantedOn: isoDay().nullable(),
  lines: z
    .array(orderLine)
    .max(200)
    .refine((list) => new Set(list.map((item) => item.sellable)).size === list.length, { error: "The same thing stands here twice: put its packs together." }),
});
export type OrderPlan = z.output<typeof orderPlan>;
