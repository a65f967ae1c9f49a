import { z } from "zod";
import { here } from "@/server/context";
import { askedPeriod, PERIOD_QUERY } from "@/server/period";
import { askedOf } from "@/server/query";
import { CHARTED, type Charted, runChart } from "@/server/run-charts";
import { Charts } from "@/stations/findings/charts";

export const metadata = { title: "Run charts" };

const KINDS = Object.keys(CHARTED) as [Charted, ...Charted[]];

export default async function ChartsPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await here();
  const asked = await askedOf(searchParams, { of: z.enum(KINDS), formula: z.string().max(300), ...PERIOD_QUERY });
  const { period, choice } = await askedPeriod(db, workshop, asked, now);
  const run = await runChart(db, workshop.id, asked.of ?? "pour_c", asked.formula, period);
  return <Charts run={run} choice={choice} kinds={KINDS.map((name) => ({ name, words: CHARTED[name].words }))} />;
}
