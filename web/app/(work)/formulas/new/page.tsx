import { here } from "@/server/context";
import { listProcesses } from "@/server/processes";
import { readShelf, readStocks } from "@/server/shelf";
import { FormulaEditor } from "@/stations/formulas/editor";

export const metadata = { title: "New formula" };

export default async function NewFormulaPage() {
  const { db, workshop } = await here();
  const [shelf, stocks, processes] = await Promise.all([
    readShelf(db, workshop.id),
    readStocks(db, workshop.id, workshop.timeZone),
    listProcesses(db, workshop.id),
  ]);
  return <FormulaEditor formula={null} versions={[]} shelf={shelf} stocks={stocks} processes={processes} />;
}
