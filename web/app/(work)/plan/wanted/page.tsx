import { here } from "@/server/context";
import { readSeason, readSupplies } from "@/server/season";
import { SeasonPlan } from "@/stations/plan/season";

export const metadata = { title: "What is wanted" };

export default async function WantedPage() {
  const { db, workshop } = await here();
  const season = await readSeason(db, workshop);
  const { draws, stores } = await readSupplies(db, workshop, season);
  const { lines, products, choices, settings, version, calendarKey } = season;
  return <SeasonPlan {...{ lines, products, choices, settings, version, calendarKey, draws, stores }} />;
}
