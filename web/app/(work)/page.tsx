import { listBatches, listInstruments } from "@/stations/batch/lists";
import { here } from "@/stations/frame/context";
import { readLow } from "@/stations/shelf/read";
import { Today } from "@/stations/today/today";

export const metadata = { title: "Today" };

export default async function TodayPage() {
  const { db, workshop, now } = await here();
  const [list, instruments, low] = await Promise.all([
    listBatches(db, workshop.id, ["pot", "rack"], now),
    listInstruments(db, workshop.id),
    readLow(db, workshop.id),
  ]);
  return <Today batches={list.batches} instruments={instruments} workshopName={workshop.name} low={low} />;
}
