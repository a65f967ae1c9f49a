import { z } from "zod";
import { Charts } from "@/features/findings/charts";
import { CHARTED, type Charted, runChart } from "@/server/findings/run-charts";
import { requestContext } from "@/server/http/context";
import { askedPeriod, PERIOD_QUERY } from "@/server/http/period";
import { parseQuery } from "@/server/http/query";

export const metadata = { title: "Run charts" };

const KINDS = Object.keys(CHARTED) as [Charted, ...Charted[]];

export default async function ChartsPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await requestContext();
  const asked = await parseQuery(searchParams, { of: z.enum(KINDS), formula: z.string().max(300), ...PERIOD_QUERY });
  const { period, choice } = await askedPeriod(db, workshop, asked, now);
  const run = await runChart(db, workshop.id, asked.of ?? "pour_c", asked.formula, period);
  return <Charts run={run} choice={choice} kinds={KINDS.map((name) => ({ name, words: CHARTED[name].words }))} />;
}
