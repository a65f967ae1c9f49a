import { listBatches, listInstruments } from "@/server/batches";
import { here } from "@/server/context";
import { Records } from "@/stations/records/records";

export const metadata = { title: "Records" };

export default async function RecordsPage({ searchParams }: { searchParams: Promise<{ after?: string | string[] }> }) {
  const { db, workshop } = await here();
  const [list, instruments] = await Promise.all([
    listBatches(db, workshop.id, ["closed", "abandoned"], [(await searchParams).after].flat()[0]),
    listInstruments(db, workshop.id),
  ]);
  return <Records {...list} instruments={instruments} />;
}
