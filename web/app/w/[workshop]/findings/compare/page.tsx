import { z } from "zod";
import { Compare } from "@/features/findings/compare";
import { compareBatches } from "@/server/findings/compare-batches";
import { compareGroups } from "@/server/findings/compare-groups";
import { FACTORS } from "@/server/findings/findings";
import { requestContext } from "@/server/http/context";
import { askedPeriod, PERIOD_QUERY } from "@/server/http/period";
import { parseQuery } from "@/server/http/query";
import { unitChoiceOf } from "@/server/workshops/workshops";

export const metadata = { title: "Two batches side by side" };

const number = z.coerce.number().int().min(1).max(999_999_999);
const level = z.string().max(300);

export default async function ComparePage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await requestContext();
  const query = await parseQuery(searchParams, { a: number, b: number, by: level, x: level, y: level, ...PERIOD_QUERY });
  const { a, b, by, x, y } = query;
  const { period, choice } = await askedPeriod(db, workshop, query, now);
  const [compared, groups] = await Promise.all([
    a && b ? compareBatches(db, workshop.id, [a, b], unitChoiceOf(workshop)) : null,
    compareGroups(db, workshop.id, by ?? "pour", { a: x, b: y }, period),
  ]);
  return (
    <Compare
      key={`${a} ${b}`}
      compared={compared}
      asked={{ a: a ? String(a) : "", b: b ? String(b) : "" }}
      groups={groups}
      choice={choice}
      factors={FACTORS.map(({ name, words }) => ({ name, words }))}
    />
  );
}
