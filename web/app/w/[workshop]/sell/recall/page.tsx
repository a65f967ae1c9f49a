import { z } from "zod";
import { RecallView } from "@/features/sell/recall";
import { requestContext } from "@/server/http/context";
import { parseQuery } from "@/server/http/query";
import { findLots, lotTrace } from "@/server/inventory/trace";
import { whereNow } from "@/server/sales/orders";

export const metadata = { title: "Recall" };

export default async function RecallPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await requestContext();
  const asked = await parseQuery(searchParams, { lot: z.uuid() });
  const traced = asked.lot && !asked.q ? await lotTrace(db, workshop.id, asked.lot, workshop.timeZone) : null;
  const rows = traced
    ? await whereNow(
        db,
        workshop.id,
        traced.batches.map((batch) => batch.id),
      )
    : [];
  return <RecallView found={asked.q ? await findLots(db, workshop.id, asked.q) : []} asked={Boolean(asked.q)} traced={traced ? { ...traced, rows } : null} />;
}
