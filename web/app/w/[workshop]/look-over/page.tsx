import { z } from "zod";
import { dueToLook, listBatches, listInstruments } from "@/server/batches";
import { here } from "@/server/context";
import { askedOf } from "@/server/query";
import { LookOverList } from "@/stations/lookover/list";

export const metadata = { title: "Look-over" };

export default async function LookOverPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await here();
  const asked = await askedOf(searchParams, { after: z.string().max(120) });
  const [list, due, instruments] = await Promise.all([
    listBatches(db, workshop.id, ["rack"], asked, now),
    asked.after || asked.q ? [] : dueToLook(db, workshop.id, now),
    listInstruments(db, workshop.id),
  ]);
  return <LookOverList {...list} due={due} instruments={instruments} narrowed={Boolean(asked.q)} />;
}
