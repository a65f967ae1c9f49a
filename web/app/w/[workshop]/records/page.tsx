import { z } from "zod";
import { BATCH_FILTERS, listFilters } from "@/catalogue/list-filters";
import { Records } from "@/features/records/records";
import { listBatches, listInstruments } from "@/server/batches/batches";
import { NARROW_QUERY, narrowingOptions } from "@/server/batches/narrowing";
import { requestContext } from "@/server/http/context";
import { askedDays, periodOf } from "@/server/http/period";
import { CURSOR_QUERY, parseQuery } from "@/server/http/query";
import { timeCursorAt } from "@/server/shared/pages";

export const metadata = { title: "Records" };

export default async function RecordsPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await requestContext();
  const asked = await parseQuery(searchParams, { ...CURSOR_QUERY, ...NARROW_QUERY, state: z.enum(["closed", "abandoned"]) });
  const { state, when, ...rest } = asked;
  const days = askedDays(when, workshop, now);
  const period = periodOf(days, workshop);
  const [list, instruments, options] = await Promise.all([
    listBatches(db, workshop.id, state ? [state] : ["closed", "abandoned"], { ...rest, period }),
    listInstruments(db, workshop.id),
    narrowingOptions(db, workshop.id),
  ]);
  const filters = listFilters(options, BATCH_FILTERS, { asked: days, around: period.to ? `/records?after=${timeCursorAt(period.to)}` : null });
  return <Records {...list} instruments={instruments} filters={filters} narrowed={Object.keys(asked).length > 0} />;
}
