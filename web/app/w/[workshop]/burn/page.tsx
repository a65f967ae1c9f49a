import { listFilters } from "@/catalogue/list-filters";
import { Trials } from "@/features/burn/trials";
import { NARROW_QUERY, narrowingOptions } from "@/server/batches/narrowing";
import { listTrials, trialNumberAt } from "@/server/burn/trials";
import { requestContext } from "@/server/http/context";
import { askedDays, periodOf } from "@/server/http/period";
import { NUMBER_QUERY, parseQuery } from "@/server/http/query";

export const metadata = { title: "Burn" };

export default async function BurnPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await requestContext();
  const asked = await parseQuery(searchParams, { ...NUMBER_QUERY, ...NARROW_QUERY });
  const days = askedDays(asked.when, workshop, now);
  const period = periodOf(days, workshop);
  const [list, options, number] = await Promise.all([
    listTrials(db, workshop.id, { ...asked, period }, now),
    narrowingOptions(db, workshop.id),
    period.to ? trialNumberAt(db, workshop.id, period.to) : null,
  ]);
  const filters = listFilters(options, ["product", "vessel", "wax"], { asked: days, around: number ? `/burn?after=${number}` : null });
  return <Trials {...list} filters={filters} narrowed={Object.keys(asked).length > 0} />;
}
