import { FormulaEditor } from "@/stations/formulas/editor";
import { here } from "@/stations/frame/context";
import { readShelf } from "@/stations/shelf/read";

export const metadata = { title: "New formula" };

export default async function NewFormulaPage() {
  const { db, workshop } = await here();
  const { waxes, fragrances } = await readShelf(db, workshop.id);
  return <FormulaEditor formula={null} versions={[]} waxes={waxes} fragrances={fragrances} />;
}
