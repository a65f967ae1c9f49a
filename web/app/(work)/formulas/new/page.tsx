import { here } from "@/server/context";
import { listProcesses } from "@/server/processes";
import { fewFor } from "@/server/shelf";
import { FormulaEditor } from "@/stations/formulas/editor";

export const metadata = { title: "New formula" };

export default async function NewFormulaPage() {
  const { db, workshop } = await here();
  const [few, processes] = await Promise.all([fewFor(db, workshop, []), listProcesses(db, workshop.id)]);
  return <FormulaEditor formula={null} versions={[]} few={few} processes={processes} />;
}
