import { addDays, dayAt } from "@hearth/core";
import { z } from "zod";
import { SalesView } from "@/features/sell/sales";
import { requestContext } from "@/server/http/context";
import { dayStart } from "@/server/http/period";
import { parseQuery } from "@/server/http/query";
import { readFinishedGoods } from "@/server/sales/finished-goods";
import { salesBetween, salesByMonth } from "@/server/sales/sales";

export const metadata = { title: "What sold" };

export default async function SalesPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await requestContext();
  const { span = "365" } = await parseQuery(searchParams, { span: z.enum(["90", "365", "all"]) });
  const today = dayAt(now, workshop.timeZone);
  const from = span === "all" ? dayAt(workshop.createdAt, workshop.timeZone) : addDays(today, -Number(span));
  const first = span === "all" ? "1970-01-01T00:00:00Z" : dayStart(from, workshop.timeZone);
  const [sold, months, finishedGoods] = await Promise.all([
    salesBetween(db, workshop.id, first, new Date(Date.parse(now) + 60_000).toISOString()),
    salesByMonth(db, workshop.id, workshop.timeZone, first),
    readFinishedGoods(db, workshop.id, dayAt(now, workshop.timeZone), workshop.timeZone),
  ]);
  return <SalesView sold={sold} months={months} finishedGoods={finishedGoods} span={span} from={from} to={today} />;
}
