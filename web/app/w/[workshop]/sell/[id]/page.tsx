import { dayAt } from "@hearth/core";
import { notFound } from "next/navigation";
import { z } from "zod";
import { OrderView } from "@/features/sell/order";
import { requestContext } from "@/server/http/context";
import { listProducts } from "@/server/products/products";
import { plannedFor, readFinishedGoods } from "@/server/sales/finished-goods";
import { readOrder } from "@/server/sales/orders";
import { parcelCandles } from "@/server/sales/parcel";

export const metadata = { title: "Order" };

export default async function OrderPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) notFound();
  const { db, workshop, people, now } = await requestContext();
  const today = dayAt(now, workshop.timeZone);
  const [order, finishedGoods, planned] = await Promise.all([
    readOrder(db, workshop.id, id),
    readFinishedGoods(db, workshop.id, today, workshop.timeZone),
    plannedFor(db, workshop.id, id),
  ]);
  if (!order) notFound();
  const asked = new Set(order.state.lines.map((line) => line.sellable));
  const inside = new Set(
    finishedGoods.flatMap((stocked) => (asked.has(stocked.sellable.id) ? stocked.sellable.contents.map((content) => content.productId) : [])),
  );
  const products = (await listProducts(db, workshop.id)).filter((product) => inside.has(product.id));
  return (
    <OrderView
      key={id}
      people={people}
      order={order}
      sellables={finishedGoods.map((stocked) => stocked.sellable)}
      there={Object.fromEntries(finishedGoods.map((stocked) => [stocked.sellable.id, { packed: stocked.packed, loose: stocked.loose }]))}
      planned={planned}
      candles={await parcelCandles(db, workshop.id, products)}
    />
  );
}
