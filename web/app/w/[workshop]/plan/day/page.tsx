import { countsOn, dayAt, isoDay, planDemand } from "@hearth/core";
import { DayPlan } from "@/features/plan/day";
import { openBatches } from "@/server/batches/batches";
import { requestContext } from "@/server/http/context";
import { parseQuery } from "@/server/http/query";
import { ALL_OTHERS, readDay, readDemandPlan } from "@/server/planning/planning";

export const metadata = { title: "Day schedule" };

export default async function DayPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await requestContext();
  const { on = dayAt(now, workshop.timeZone) } = await parseQuery(searchParams, { on: isoDay() });
  const [demandPlan, open, { kept, version }] = await Promise.all([
    readDemandPlan(db, workshop, ALL_OTHERS),
    openBatches(db, workshop.id),
    readDay(db, workshop.id, on),
  ]);
  const { lines, products, settings, made } = demandPlan;
  const planned = countsOn(planDemand(lines, products, settings, { now, zone: workshop.timeZone }), on);
  const containers = new Map(made.map(({ product }) => [product.id, product.containerId]));
  const labels = open.flatMap((item) => {
    const pieces = item.products.reduce((sum, line) => sum + line.count, 0);
    return item.times && dayAt(item.times.sellFrom, workshop.timeZone) <= on ? [{ number: item.number, title: item.title, pieces }] : [];
  });
  return (
    <DayPlan
      key={on}
      {...{ on, kept, planned, settings, labels, version }}
      products={products.map((product) => ({ ...product, containerId: containers.get(product.id) ?? "" }))}
    />
  );
}
