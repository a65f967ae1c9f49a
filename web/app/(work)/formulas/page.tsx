import { here } from "@/server/context";
import { listFormulas } from "@/server/formulas";
import { readShelf } from "@/server/shelf";
import { FormulaList } from "@/stations/formulas/list";

export const metadata = { title: "Formulas" };

export default async function FormulasPage({ searchParams }: { searchParams: Promise<{ after?: string | string[] }> }) {
  const { db, workshop } = await here();
  const [{ formulas, more }, shelf] = await Promise.all([listFormulas(db, workshop.id, [(await searchParams).after].flat()[0]), readShelf(db, workshop.id)]);
  const names = Object.fromEntries([...shelf.waxes, ...shelf.fragrances].map((one) => [one.id, one.name]));
  return <FormulaList formulas={formulas} names={names} more={more} />;
}
