import { z } from "zod";
import { compareBatches } from "@/server/compare";
import { compareGroups } from "@/server/compare-groups";
import { here } from "@/server/context";
import { FACTORS } from "@/server/findings";
import { askedPeriod, PERIOD_QUERY } from "@/server/period";
import { askedOf } from "@/server/query";
import { Compare } from "@/stations/findings/compare";

export const metadata = { title: "Two batches side by side" };

const number = z.coerce.number().int().min(1).max(999_999_999);
const level = z.string().max(300);

export default async function ComparePage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await here();
  const query = await askedOf(searchParams, { a: number, b: number, by: level, x: level, y: level, ...PERIOD_QUERY });
  const { a, b, by, x, y } = query;
  const { period, choice } = await askedPeriod(db, workshop, query, now);
  const [compared, groups] = await Promise.all([
    a && b ? compareBatches(db, workshop.id, [a, b], workshop.temperatureUnit) : null,
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
