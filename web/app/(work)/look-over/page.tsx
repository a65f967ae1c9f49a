import { dueToLook, listBatches, listInstruments } from "@/server/batches";
import { here } from "@/server/context";
import { LookOverList } from "@/stations/lookover/look-over";

export const metadata = { title: "Look-over" };

export default async function LookOverPage({ searchParams }: { searchParams: Promise<{ after?: string | string[] }> }) {
  const { db, workshop, now } = await here();
  const after = [(await searchParams).after].flat()[0];
  const [list, due, instruments] = await Promise.all([
    listBatches(db, workshop.id, ["rack"], after),
    after ? [] : dueToLook(db, workshop.id, now),
    listInstruments(db, workshop.id),
  ]);
  return <LookOverList {...list} due={due} instruments={instruments} />;
}
