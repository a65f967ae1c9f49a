import { DemandView } from "@/features/plan/demand";
import { requestContext } from "@/server/http/context";
import { readDemandPlan, readSupplies, SOME_OTHERS } from "@/server/planning/planning";

export const metadata = { title: "Demand" };

export default async function WantedPage() {
  const { db, workshop } = await requestContext();
  const demandPlan = await readDemandPlan(db, workshop, SOME_OTHERS);
  const { draws, stores } = await readSupplies(db, workshop, demandPlan);
  const { lines, products, choices, settings, version, calendarKey } = demandPlan;
  return <DemandView {...{ lines, products, choices, settings, version, calendarKey, draws, stores }} />;
}
