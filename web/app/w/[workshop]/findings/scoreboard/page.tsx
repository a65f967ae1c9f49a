import { scoreDifference, THROW_COLUMNS } from "@hearth/core";
import { z } from "zod";
import { Scoreboard } from "@/features/findings/scoreboard";
import type { ComparedWaxes } from "@/features/findings/scoreboard-model";
import { OPENED_FIGURES, openedFigure, waxScoreboard } from "@/server/findings/scoreboard";
import { requestContext } from "@/server/http/context";
import { askedPeriod, PERIOD_QUERY } from "@/server/http/period";
import { parseQuery } from "@/server/http/query";

export const metadata = { title: "Wax scoreboard" };

const wax = z.string().max(600);

export default async function ScoreboardPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await requestContext();
  const asked = await parseQuery(searchParams, {
    a: wax,
    b: wax,
    wax,
    figure: z.enum(OPENED_FIGURES),
    show: z.coerce.number().int().min(1).max(100_000),
    ...PERIOD_QUERY,
  });
  const { period, choice } = await askedPeriod(db, workshop, asked, now);
  const { lines, scores } = await waxScoreboard(db, workshop, period);
  const { a, b } = asked;
  let compared: ComparedWaxes | null = null;
  if (a && b && a !== b) {
    const differences = Object.fromEntries(THROW_COLUMNS.map(({ key }) => [key, scoreDifference(scores[key], a, b)])) as ComparedWaxes["differences"];
    compared = { a, b, differences };
  }
  const { wax: of, figure, show: most } = asked;
  const opened = of && figure ? { wax: of, figure, ...(await openedFigure(db, workshop, { wax: of, figure, period, most })) } : null;
  return <Scoreboard key={`${a} ${b}`} lines={lines} opened={opened} compared={compared} choice={choice} />;
}
