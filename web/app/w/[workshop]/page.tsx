import { Today } from "@/features/today/today";
import { hasNoBatch, listInstruments, todaysBatches } from "@/server/batches/batches";
import { trialsToday } from "@/server/burn/trials";
import { requestContext } from "@/server/http/context";
import { readLow } from "@/server/inventory/shelf";
import { readPlanNews } from "@/server/planning/planning";
import { ordersSoon } from "@/server/sales/orders";

export const metadata = { title: "Today" };

export default async function TodayPage() {
  const { db, workshop, now } = await requestContext();
  const [list, instruments, low, blank, plan, burns, soon] = await Promise.all([
    todaysBatches(db, workshop.id, now),
    listInstruments(db, workshop.id),
    readLow(db, workshop.id, workshop.timeZone),
    hasNoBatch(db, workshop.id),
    readPlanNews(db, workshop, now),
    trialsToday(db, workshop.id, now),
    ordersSoon(db, workshop, now),
  ]);
  return <Today {...list} instruments={instruments} workshopName={workshop.name} low={low} blank={blank} plan={plan} burns={burns} soon={soon} />;
}
