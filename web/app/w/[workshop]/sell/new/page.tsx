import { dayAt } from "@hearth/core";
import { z } from "zod";
import { here } from "@/server/context";
import { goodsNow } from "@/server/goods";
import { listOrders } from "@/server/orders";
import { askedOf } from "@/server/query";
import { NewOrder } from "@/stations/sell/order-new";

export const metadata = { title: "New order" };

export default async function NewOrderPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await here();
  const { what = "order" } = await askedOf(searchParams, { what: z.enum(["order", "market"]) });
  const [goods, orders] = await Promise.all([goodsNow(db, workshop.id, dayAt(now, workshop.timeZone)), listOrders(db, workshop.id)]);
  const before = what === "market" ? [...orders.closed, ...orders.open].find((one) => one.what === "market") : undefined;
  return (
    <NewOrder
      key={what}
      what={what}
      sellables={goods.map((one) => one.sellable)}
      there={Object.fromEntries(goods.map((one) => [one.sellable.id, one.packed + one.loose]))}
      today={dayAt(now, workshop.timeZone)}
      like={
        before
          ? {
              name: before.name,
              lines: before.lines.filter((one) => one.asked + one.out > 0).map((one) => ({ sellable: one.sellable, packs: one.asked || one.out })),
            }
          : null
      }
    />
  );
}
