import { here } from "@/server/context";
import { listForPlan } from "@/server/formulas";
import { listProcesses } from "@/server/processes";
import { readShelf, readStocks } from "@/server/shelf";
import { Planner } from "@/stations/plan/planner";

export const metadata = { title: "Plan" };

export default async function PlanPage({ searchParams }: { searchParams: Promise<{ formula?: string | string[]; fill?: string | string[] }> }) {
  const { db, workshop } = await here();
  const [formulas, shelf, stocks, processes] = await Promise.all([
    listForPlan(db, workshop.id),
    readShelf(db, workshop.id),
    readStocks(db, workshop.id, workshop.timeZone),
    listProcesses(db, workshop.id),
  ]);
  const { formula: wanted, fill } = await searchParams;
  const asked = [wanted].flat()[0];
  /** Counts brought along, as "vessel:count,vessel:count". */
  const counts = Object.fromEntries(
    ([fill].flat()[0] ?? "").split(",").flatMap((one) => (/^[0-9a-f-]{36}:\d{1,6}$/.test(one) ? [one.split(":") as [string, string]] : [])),
  );
  const id = formulas.find((one) => one.id === asked)?.id ?? formulas[0]?.id ?? null;
  return (
    <Planner
      key={`${asked ?? ""} ${JSON.stringify(counts)}`}
      formulas={formulas}
      asked={id}
      shelf={shelf}
      stocks={stocks}
      processes={processes}
      counts={counts}
    />
  );
}
