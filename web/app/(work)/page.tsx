import { hasNoBatch, listInstruments, openBatches } from "@/server/batches";
import { here } from "@/server/context";
import { readLow } from "@/server/shelf";
import { Today } from "@/stations/today/today";

export const metadata = { title: "Today" };

export default async function TodayPage() {
  const { db, workshop } = await here();
  const [list, instruments, low, blank] = await Promise.all([
    openBatches(db, workshop.id),
    listInstruments(db, workshop.id),
    readLow(db, workshop.id, workshop.timeZone),
    hasNoBatch(db, workshop.id),
  ]);
  return <Today batches={list} instruments={instruments} workshopName={workshop.name} low={low} blank={blank} />;
}
