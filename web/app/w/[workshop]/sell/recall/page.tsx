import { z } from "zod";
import { here } from "@/server/context";
import { whereNow } from "@/server/orders";
import { askedOf } from "@/server/query";
import { findLots, lotTrace } from "@/server/trace";
import { RecallView } from "@/stations/sell/recall";

export const metadata = { title: "Recall" };

export default async function RecallPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await here();
  const asked = await askedOf(searchParams, { lot: z.uuid() });
  const traced = asked.lot && !asked.q ? await lotTrace(db, workshop.id, asked.lot, workshop.timeZone) : null;
  const rows = traced
    ? await whereNow(
        db,
        workshop.id,
        traced.batches.map((one) => one.id),
      )
    : [];
  return <RecallView found={asked.q ? await findLots(db, workshop.id, asked.q) : []} asked={Boolean(asked.q)} traced={traced ? { ...traced, rows } : null} />;
}
