import { z } from "zod";
import { Trace } from "@/features/findings/trace";
import { requestContext } from "@/server/http/context";
import { parseQuery } from "@/server/http/query";
import { lotsUsedWithNames } from "@/server/inventory/lots-used";
import { lotTrace, searchRecord } from "@/server/inventory/trace";

/** How many batches of a lot are shown before all are asked for. */
const LOT_FIRST = 100;

export const metadata = { title: "Search and trace" };

export default async function TracePage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await requestContext();
  const asked = await parseQuery(searchParams, { lot: z.uuid(), show: z.coerce.number().int().min(1).max(1_000_000) });
  const [found, lot] = await Promise.all([
    asked.q ? searchRecord(db, workshop, asked.q, now, asked.show) : null,
    asked.lot ? lotTrace(db, workshop.id, asked.lot, workshop.timeZone) : null,
  ]);
  const only = found?.batches.length === 1 ? found.batches[0] : undefined;
  const taken = only ? await lotsUsedWithNames(db, workshop.id, only.id, workshop.timeZone) : [];
  return (
    <Trace
      key={`${asked.q} ${asked.lot}`}
      q={asked.q ?? ""}
      found={found}
      taken={taken}
      lot={lot && { ...lot, total: lot.batches.length, batches: lot.batches.slice(0, asked.show ?? LOT_FIRST) }}
    />
  );
}
