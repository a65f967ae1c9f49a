import { FormulaEditor } from "@/features/formulas/editor";
import { listColors } from "@/server/formulas/colors";
import { listOilTests } from "@/server/formulas/oil-tests";
import { listProcesses } from "@/server/formulas/processes";
import { requestContext } from "@/server/http/context";
import { pickList } from "@/server/inventory/shelf";

export const metadata = { title: "New formula" };

export default async function NewFormulaPage() {
  const { db, workshop } = await requestContext();
  const colors = await listColors(db, workshop.id);
  const dyes = [...new Set(colors.flatMap((color) => color.recipe.dyes.map((dye) => dye.id)))];
  const [few, processes] = await Promise.all([pickList(db, workshop, dyes), listProcesses(db, workshop.id)]);
  return <FormulaEditor formula={null} versions={[]} few={few} processes={processes} colors={colors} oilTests={await listOilTests(db, workshop.id)} />;
}
