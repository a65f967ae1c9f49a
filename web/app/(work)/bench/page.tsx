import { listBatches, listInstruments } from "@/stations/batch/lists";
import { Pots } from "@/stations/bench/pots";
import { here } from "@/stations/frame/context";

export const metadata = { title: "Bench" };

export default async function BenchPage({ searchParams }: { searchParams: Promise<{ after?: string }> }) {
  const { db, workshop, now } = await here();
  const [list, instruments] = await Promise.all([listBatches(db, workshop.id, ["pot"], now, (await searchParams).after), listInstruments(db, workshop.id)]);
  return <Pots {...list} instruments={instruments} />;
}
