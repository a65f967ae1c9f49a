import { FormulaEditor } from "@/stations/formulas/editor";
import { here } from "@/stations/frame/context";
import { readShelf, readStocks } from "@/stations/shelf/read";

export const metadata = { title: "New formula" };

export default async function NewFormulaPage() {
  const { db, workshop } = await here();
  const [shelf, stocks] = await Promise.all([readShelf(db, workshop.id), readStocks(db, workshop.id)]);
  return <FormulaEditor formula={null} versions={[]} shelf={shelf} stocks={stocks} />;
}
