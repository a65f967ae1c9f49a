import { countsOn, type DayRecord, dayAt, dayRecord, seasonOf } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { z } from "zod";
import { dayPlans } from "@/data/tables/plan";
import { openBatches } from "@/server/batches";
import { here } from "@/server/context";
import { askedOf } from "@/server/query";
import { readSeason } from "@/server/season";
import { DayPlan } from "@/stations/plan/day";

export const metadata = { title: "A day at the pots" };

export default async function DayPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await here();
  const { on = dayAt(now, workshop.timeZone) } = await askedOf(searchParams, { on: z.iso.date() });
  const [season, open, [row]] = await Promise.all([
    readSeason(db, workshop, true),
    openBatches(db, workshop.id),
    db
      .select()
      .from(dayPlans)
      .where(and(eq(dayPlans.workshopId, workshop.id), eq(dayPlans.on, on))),
  ]);
  const { lines, products, settings, made } = season;
  const planned = countsOn(seasonOf(lines, products, settings, { now, zone: workshop.timeZone }), on);
  const read = dayRecord.safeParse(row?.data);
  const kept: DayRecord | null = read.success ? read.data : null;
  const bodies = new Map(made.map(({ product }) => [product.id, product.bodyId]));
  const labels = open.flatMap((one) => {
    const pieces = one.products.reduce((sum, line) => sum + line.count, 0);
    return one.times && dayAt(one.times.sellFrom, workshop.timeZone) <= on ? [{ number: one.number, title: one.title, pieces }] : [];
  });
  return (
    <DayPlan
      key={on}
      {...{ on, kept, planned, settings, labels }}
      version={row?.version ?? 0}
      products={products.map((one) => ({ ...one, bodyId: bodies.get(one.id) ?? "" }))}
    />
  );
}
