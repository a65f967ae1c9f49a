import { dayAt } from "@hearth/core";
import { z } from "zod";
import { NewOrder } from "@/features/sell/order-new";
import { requestContext } from "@/server/http/context";
import { parseQuery } from "@/server/http/query";
import { readFinishedGoods } from "@/server/sales/finished-goods";
import { listOrders } from "@/server/sales/orders";

export const metadata = { title: "New order" };

export default async function NewOrderPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await requestContext();
  const { what = "order" } = await parseQuery(searchParams, { what: z.enum(["order", "market"]) });
  const [finishedGoods, orders] = await Promise.all([
    readFinishedGoods(db, workshop.id, dayAt(now, workshop.timeZone), workshop.timeZone),
    listOrders(db, workshop),
  ]);
  const before = what === "market" ? [...orders.closed, ...orders.open].find((order) => order.what === "market") : undefined;
  return (
    <NewOrder
      key={what}
      what={what}
      sellables={finishedGoods.map((stocked) => stocked.sellable)}
      there={Object.fromEntries(finishedGoods.map((stocked) => [stocked.sellable.id, stocked.packed + stocked.loose]))}
      today={dayAt(now, workshop.timeZone)}
      like={
        before
          ? {
              name: before.name,
              lines: before.lines.filter((line) => line.asked + line.out > 0).map((line) => ({ sellable: line.sellable, packs: line.asked || line.out })),
            }
          : null
      }
    />
  );
}
