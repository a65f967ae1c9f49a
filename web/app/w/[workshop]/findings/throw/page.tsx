import { THROW_FACTOR_NAMES, throwLevels } from "@hearth/core";
import { z } from "zod";
import { ThrowFindings } from "@/features/findings/throw";
import { throwScores } from "@/server/burn/throw-scores";
import { requestContext } from "@/server/http/context";
import { askedPeriod, PERIOD_QUERY } from "@/server/http/period";
import { parseQuery } from "@/server/http/query";

export const metadata = { title: "Throw" };

export default async function ThrowPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await requestContext();
  const asked = await parseQuery(searchParams, { of: z.enum(["cold", "hot"]), ...PERIOD_QUERY });
  const { of = "hot" } = asked;
  const { period, choice } = await askedPeriod(db, workshop, asked, now);
  const scores = await throwScores(db, workshop.id, { of, period });
  const levels = THROW_FACTOR_NAMES.map((factor) => ({ factor, levels: throwLevels(scores, factor) }));
  return <ThrowFindings count={scores.length} byFactor={levels} of={of} choice={choice} />;
}
