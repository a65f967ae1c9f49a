import { dayAt } from "@hearth/core";
import { listFilters } from "@/catalogue/list-filters";
import { SellHome } from "@/features/sell/home";
import { NARROW_QUERY, narrowingOptions } from "@/server/batches/narrowing";
import { requestContext } from "@/server/http/context";
import { askedDays } from "@/server/http/period";
import { NUMBER_QUERY, parseQuery } from "@/server/http/query";
import { readFinishedGoods } from "@/server/sales/finished-goods";
import { listOrders, orderNumberAt } from "@/server/sales/orders";

export const metadata = { title: "Sell" };

export default async function SellPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await requestContext();
  const asked = await parseQuery(searchParams, { ...NUMBER_QUERY, ...NARROW_QUERY });
  const when = askedDays(asked.when, workshop, now);
  const [orders, finishedGoods, options, number] = await Promise.all([
    listOrders(db, workshop, { ...asked, days: when?.days ?? null }),
    readFinishedGoods(db, workshop.id, dayAt(now, workshop.timeZone), workshop.timeZone),
    narrowingOptions(db, workshop.id),
    when?.days ? orderNumberAt(db, workshop, when.days.until) : null,
  ]);
  const filters = listFilters(options, ["product"], { asked: when, around: number ? `/sell?after=${number}` : null });
  return <SellHome {...orders} finishedGoods={finishedGoods} filters={filters} narrowed={Object.keys(asked).length > 0} />;
}
