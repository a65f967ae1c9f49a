import { defectOf } from "@hearth/core";
import { z } from "zod";
import { Findings } from "@/features/findings/findings";
import { CURVES, type CurveName, curveOf, findingsOf, flawRates, repairsOf } from "@/server/findings/findings";
import { requestContext } from "@/server/http/context";
import { askedPeriod, PERIOD_QUERY } from "@/server/http/period";
import { parseQuery } from "@/server/http/query";

export const metadata = { title: "Findings" };

const NAMES = Object.keys(CURVES) as [CurveName, ...CurveName[]];

export default async function FindingsPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await requestContext();
  const asked = await parseQuery(searchParams, { flaw: z.string().max(60), by: z.enum(NAMES), of: z.string().max(300), ...PERIOD_QUERY });
  const { period, choice } = await askedPeriod(db, workshop, asked, now);
  const rates = await flawRates(db, workshop.id, period);
  const defect = asked.flaw && defectOf(asked.flaw) ? asked.flaw : (rates[0]?.defect ?? null);
  const [found, curve, repairs] = defect
    ? await Promise.all([
        findingsOf(db, workshop.id, defect, period),
        curveOf(db, workshop.id, defect, asked.by ?? "pour_c", { period, formula: asked.of }),
        repairsOf(db, workshop.id, defect, period),
      ])
    : [[], null, []];
  return (
    <Findings
      rates={rates}
      choice={choice}
      defect={defect}
      found={found}
      curve={curve}
      repairs={repairs}
      curves={NAMES.map((name) => ({ name, words: CURVES[name].words }))}
    />
  );
}
