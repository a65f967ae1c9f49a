import { listBatches, listInstruments } from "@/stations/batch/lists";
import { here } from "@/stations/frame/context";
import { LookOverList } from "@/stations/lookover/look-over";

export const metadata = { title: "Look-over" };

export default async function LookOverPage({ searchParams }: { searchParams: Promise<{ after?: string }> }) {
  const { db, workshop, now } = await here();
  const [list, instruments] = await Promise.all([listBatches(db, workshop.id, ["rack"], now, (await searchParams).after), listInstruments(db, workshop.id)]);
  return <LookOverList {...list} instruments={instruments} />;
}
