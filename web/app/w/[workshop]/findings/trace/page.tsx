import { z } from "zod";
import { here } from "@/server/context";
import { askedOf } from "@/server/query";
import { takenWithNames } from "@/server/taken";
import { lotTrace, searchRecord } from "@/server/trace";
import { Trace } from "@/stations/findings/trace";

export const metadata = { title: "Search and trace" };

export default async function TracePage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await here();
  const asked = await askedOf(searchParams, { lot: z.uuid() });
  const [found, lot] = await Promise.all([
    asked.q ? searchRecord(db, workshop, asked.q) : null,
    asked.lot ? lotTrace(db, workshop.id, asked.lot, workshop.timeZone) : null,
  ]);
  const only = found?.batches.length === 1 ? found.batches[0] : undefined;
  const taken = only ? await takenWithNames(db, workshop.id, only.id, workshop.timeZone) : [];
  return <Trace key={`${asked.q} ${asked.lot}`} q={asked.q ?? ""} found={found} taken={taken} lot={lot} />;
}
