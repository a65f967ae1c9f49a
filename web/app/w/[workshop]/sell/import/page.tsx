import { dayAt } from "@hearth/core";
import { ImportOrders } from "@/features/sell/import";
import { requestContext } from "@/server/http/context";
import { listSellables } from "@/server/sales/finished-goods";

export const metadata = { title: "Import orders" };

export default async function ImportOrdersPage() {
  const { db, workshop, now } = await requestContext();
  return <ImportOrders sellables={(await listSellables(db, workshop.id)).sellables} today={dayAt(now, workshop.timeZone)} />;
}
