import { dayAt } from "@hearth/core";
import { here } from "@/server/context";
import { listSellables } from "@/server/goods";
import { ImportOrders } from "@/stations/sell/import";

export const metadata = { title: "Orders from a file" };

export default async function ImportOrdersPage() {
  const { db, workshop, now } = await here();
  return <ImportOrders sellables={(await listSellables(db, workshop.id)).sellables} today={dayAt(now, workshop.timeZone)} />;
}
