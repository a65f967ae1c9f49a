import { listColours } from "@/server/colours";
import { here } from "@/server/context";
import { listProcesses } from "@/server/processes";
import { fewFor } from "@/server/shelf";
import { FormulaEditor } from "@/stations/formulas/editor";

export const metadata = { title: "New formula" };

export default async function NewFormulaPage() {
  const { db, workshop } = await here();
  const colours = await listColours(db, workshop.id);
  const dyes = [...new Set(colours.flatMap((one) => one.recipe.dyes.map((dye) => dye.id)))];
  const [few, processes] = await Promise.all([fewFor(db, workshop, dyes), listProcesses(db, workshop.id)]);
  return <FormulaEditor formula={null} versions={[]} few={few} processes={processes} colours={colours} />;
}
