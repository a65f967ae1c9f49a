import { FormulaList } from "@/stations/formulas/list";
import { listFormulas } from "@/stations/formulas/read";
import { here } from "@/stations/frame/context";
import { readShelf } from "@/stations/shelf/read";

export const metadata = { title: "Formulas" };

export default async function FormulasPage({ searchParams }: { searchParams: Promise<{ after?: string }> }) {
  const { db, workshop } = await here();
  const [{ formulas, more }, shelf] = await Promise.all([listFormulas(db, workshop.id, (await searchParams).after), readShelf(db, workshop.id)]);
  const names = Object.fromEntries([...shelf.waxes, ...shelf.fragrances].map((one) => [one.id, one.name]));
  return <FormulaList formulas={formulas} names={names} more={more} />;
}
