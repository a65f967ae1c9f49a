import { here } from "@/server/context";
import { readSeason, readSupplies, SOME_OTHERS } from "@/server/season";
import { SeasonPlan } from "@/stations/plan/season";

export const metadata = { title: "What is wanted" };

export default async function WantedPage() {
  const { db, workshop } = await here();
  const season = await readSeason(db, workshop, SOME_OTHERS);
  const { draws, stores } = await readSupplies(db, workshop, season);
  const { lines, products, choices, settings, version, calendarKey } = season;
  return <SeasonPlan {...{ lines, products, choices, settings, version, calendarKey, draws, stores }} />;
}
