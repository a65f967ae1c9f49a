import { listBatches, listInstruments } from "@/server/batches";
import { here } from "@/server/context";
import { Pots } from "@/stations/bench/pots";

export const metadata = { title: "Bench" };

export default async function BenchPage({ searchParams }: { searchParams: Promise<{ after?: string | string[] }> }) {
  const { db, workshop } = await here();
  const [list, instruments] = await Promise.all([
    listBatches(db, workshop.id, ["pot"], [(await searchParams).after].flat()[0]),
    listInstruments(db, workshop.id),
  ]);
  return <Pots {...list} instruments={instruments} />;
}
