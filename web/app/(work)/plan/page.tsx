import { z } from "zod";
import { listFormulas, readFormula } from "@/stations/formulas/read";
import { here } from "@/stations/frame/context";
import { Planner } from "@/stations/plan/planner";
import { readShelf, readStocks } from "@/stations/shelf/read";

export const metadata = { title: "Plan" };

export default async function PlanPage({ searchParams }: { searchParams: Promise<{ formula?: string; fill?: string }> }) {
  const { db, workshop } = await here();
  const [{ formulas }, shelf, stocks] = await Promise.all([listFormulas(db, workshop.id), readShelf(db, workshop.id), readStocks(db, workshop.id)]);
  const { formula: wanted, fill } = await searchParams;
  const asked = wanted ?? formulas[0]?.id;
  /** Counts brought along, as "vessel:count,vessel:count". */
  const counts = Object.fromEntries(
    (fill ?? "").split(",").flatMap((one) => (/^[0-9a-f-]{36}:\d{1,6}$/.test(one) ? [one.split(":") as [string, string]] : [])),
  );
  const formula = asked && z.uuid().safeParse(asked).success ? await readFormula(db, workshop.id, asked) : null;
  const newest = formula?.versions[0];
  const choices = formulas.map(({ id, name }) => ({ id, name }));
  if (formula && !choices.some((one) => one.id === formula.id)) choices.push({ id: formula.id, name: formula.name });
  return (
    <Planner
      formulas={choices}
      chosen={formula && newest ? { id: formula.id, name: formula.name, versionId: newest.id, number: newest.number, spec: newest.spec } : null}
      shelf={shelf}
      stocks={stocks}
      counts={counts}
    />
  );
}
