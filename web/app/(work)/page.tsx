import { listBatches, listInstruments } from "@/stations/batch/lists";
import { here } from "@/stations/frame/context";
import { Today } from "@/stations/today/today";

export const metadata = { title: "Today" };

export default async function TodayPage() {
  const { db, workshop, now } = await here();
  const [list, instruments] = await Promise.all([listBatches(db, workshop.id, ["pot", "rack"], now), listInstruments(db, workshop.id)]);
  return <Today batches={list.batches} instruments={instruments} workshopName={workshop.name} />;
}
