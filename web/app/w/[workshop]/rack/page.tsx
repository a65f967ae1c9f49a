import { z } from "zod";
import { BATCH_FILTERS, listFilters } from "@/catalogue/list-filters";
import { Rack } from "@/features/rack/rack";
import { listInstruments, listRack } from "@/server/batches/batches";
import { NARROW_QUERY, narrowingOptions } from "@/server/batches/narrowing";
import { requestContext } from "@/server/http/context";
import { askedDays, periodOf } from "@/server/http/period";
import { CURSOR_QUERY, parseQuery } from "@/server/http/query";

export const metadata = { title: "Rack" };

export default async function RackPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await requestContext();
  const asked = await parseQuery(searchParams, { ...CURSOR_QUERY, ...NARROW_QUERY, state: z.enum(["setting", "look", "curing", "ready"]) });
  const days = askedDays(asked.when, workshop, now);
  const [list, instruments, options] = await Promise.all([
    listRack(db, workshop.id, { ...asked, period: periodOf(days, workshop) }, now),
    listInstruments(db, workshop.id),
    narrowingOptions(db, workshop.id),
  ]);
  // The rack is ordered by what is due, so a time has no place in the whole list.
  const filters = listFilters(options, BATCH_FILTERS, { asked: days, around: null });
  return <Rack {...list} instruments={instruments} filters={filters} narrowed={Object.keys(asked).length > 0} />;
}
