import { z } from "zod";
import { ALL_ROWS, firstOfRecall, recallOf, recallTotals } from "@/features/sell/model";
import { RecallView } from "@/features/sell/recall";
import { requestContext } from "@/server/http/context";
import { parseQuery } from "@/server/http/query";
import { findLots, lotTrace } from "@/server/inventory/trace";
import { whereNow } from "@/server/sales/orders";

/** How many of each part of a list are shown before all are asked for. */
const RECALL_FIRST = 100;

export const metadata = { title: "Recall" };

export default async function RecallPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await requestContext();
  const asked = await parseQuery(searchParams, { lot: z.uuid(), show: z.coerce.number().int().min(1).max(ALL_ROWS) });
  const traced = asked.lot && !asked.q ? await lotTrace(db, workshop.id, asked.lot, workshop.timeZone) : null;
  const rows = traced
    ? await whereNow(
        db,
        workshop.id,
        traced.batches.map((batch) => batch.id),
      )
    : [];
  const list = traced && recallOf(traced.batches, rows);
  return (
    <RecallView
      key={asked.lot}
      q={asked.q ?? ""}
      found={asked.q ? await findLots(db, workshop.id, asked.q, asked.show) : null}
      traced={
        traced && list
          ? { lot: traced.lot, totals: recallTotals(traced.batches, list), ...firstOfRecall(list, traced.batches, asked.show ?? RECALL_FIRST) }
          : null
      }
    />
  );
}
