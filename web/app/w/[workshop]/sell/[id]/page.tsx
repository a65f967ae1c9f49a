import { notFound } from "next/navigation";
import { z } from "zod";
import { here } from "@/server/context";
import { goodsNow } from "@/server/goods";
import { readOrder } from "@/server/orders";
import { OrderView } from "@/stations/sell/order";

export const metadata = { title: "Order" };

export default async function OrderPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) notFound();
  const { db, workshop, people } = await here();
  const [order, goods] = await Promise.all([readOrder(db, workshop.id, id), goodsNow(db, workshop.id)]);
  if (!order) notFound();
  return (
    <OrderView
      key={id}
      people={people}
      order={order}
      sellables={goods.map((one) => one.sellable)}
      there={Object.fromEntries(goods.map((one) => [one.sellable.id, { packed: one.packed, loose: one.loose }]))}
    />
  );
}
