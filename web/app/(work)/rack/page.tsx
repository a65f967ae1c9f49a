import { listBatches, listInstruments } from "@/server/batches";
import { here } from "@/server/context";
import { Rack } from "@/stations/rack/rack";

export const metadata = { title: "Rack" };

export default async function RackPage({ searchParams }: { searchParams: Promise<{ after?: string | string[] }> }) {
  const { db, workshop } = await here();
  const [list, instruments] = await Promise.all([
    listBatches(db, workshop.id, ["rack"], [(await searchParams).after].flat()[0]),
    listInstruments(db, workshop.id),
  ]);
  return <Rack {...list} instruments={instruments} />;
}
