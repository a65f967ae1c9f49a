import { listBatches, listInstruments } from "@/stations/batch/lists";
import { here } from "@/stations/frame/context";
import { Records } from "@/stations/records/records";

export const metadata = { title: "Records" };

export default async function RecordsPage({ searchParams }: { searchParams: Promise<{ after?: string }> }) {
  const { db, workshop, now } = await here();
  const [list, instruments] = await Promise.all([listBatches(db, workshop.id, ["closed"], now, (await searchParams).after), listInstruments(db, workshop.id)]);
  return <Records {...list} instruments={instruments} />;
}
