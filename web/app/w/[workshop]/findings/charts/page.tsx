import { z } from "zod";
import { here } from "@/server/context";
import { askedOf } from "@/server/query";
import { CHARTED, type Charted, runChart } from "@/server/run-charts";
import { Charts } from "@/stations/findings/charts";

export const metadata = { title: "Run charts" };

const KINDS = Object.keys(CHARTED) as [Charted, ...Charted[]];

export default async function ChartsPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await here();
  const asked = await askedOf(searchParams, { of: z.enum(KINDS), formula: z.string().max(300) });
  const run = await runChart(db, workshop.id, asked.of ?? "pour_c", asked.formula);
  return <Charts run={run} kinds={KINDS.map((name) => ({ name, words: CHARTED[name].words }))} />;
}
