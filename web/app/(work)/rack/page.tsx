import { listBatches, listInstruments } from "@/stations/batch/lists";
import { here } from "@/stations/frame/context";
import { Rack } from "@/stations/rack/rack";

export const metadata = { title: "Rack" };

export default async function RackPage({ searchParams }: { searchParams: Promise<{ after?: string }> }) {
  const { db, workshop, now } = await here();
  const [list, instruments] = await Promise.all([listBatches(db, workshop.id, ["rack"], now, (await searchParams).after), listInstruments(db, workshop.id)]);
  return <Rack {...list} instruments={instruments} />;
}
