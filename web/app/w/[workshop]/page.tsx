import { hasNoBatch, listInstruments, openBatches } from "@/server/batches";
import { here } from "@/server/context";
import { ordersSoon } from "@/server/orders";
import { readPlanNews } from "@/server/season";
import { readLow } from "@/server/shelf";
import { trialsToday } from "@/server/trials";
import { Today } from "@/stations/today/today";

export const metadata = { title: "Today" };

export default async function TodayPage() {
  const { db, workshop, now } = await here();
  const [list, instruments, low, blank, plan, burns, soon] = await Promise.all([
    openBatches(db, workshop.id),
    listInstruments(db, workshop.id),
    readLow(db, workshop.id, workshop.timeZone),
    hasNoBatch(db, workshop.id),
    readPlanNews(db, workshop, now),
    trialsToday(db, workshop.id, now),
    ordersSoon(db, workshop, now),
  ]);
  return <Today batches={list} instruments={instruments} workshopName={workshop.name} low={low} blank={blank} plan={plan} burns={burns} soon={soon} />;
}
