import { dayAt } from "@hearth/core";
import { z } from "zod";
import { here } from "@/server/context";
import { goodsNow } from "@/server/goods";
import { listOrders } from "@/server/orders";
import { askedOf } from "@/server/query";
import { SellHome } from "@/stations/sell/home";

export const metadata = { title: "Sell" };

export default async function SellPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await here();
  const asked = await askedOf(searchParams, { after: z.coerce.number().int().positive() });
  const [orders, goods] = await Promise.all([listOrders(db, workshop.id, asked), goodsNow(db, workshop.id, dayAt(now, workshop.timeZone))]);
  return <SellHome {...orders} goods={goods} narrowed={Boolean(asked.q)} />;
}
