import { dayAt } from "@hearth/core";
import { z } from "zod";
import { SellHome } from "@/features/sell/home";
import { requestContext } from "@/server/http/context";
import { parseQuery } from "@/server/http/query";
import { readFinishedGoods } from "@/server/sales/finished-goods";
import { listOrders } from "@/server/sales/orders";

export const metadata = { title: "Sell" };

export default async function SellPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await requestContext();
  const asked = await parseQuery(searchParams, { after: z.coerce.number().int().positive() });
  const [orders, finishedGoods] = await Promise.all([listOrders(db, workshop.id, asked), readFinishedGoods(db, workshop.id, dayAt(now, workshop.timeZone))]);
  return <SellHome {...orders} finishedGoods={finishedGoods} narrowed={Boolean(asked.q)} />;
}
