import { listFormulas } from "@/stations/formulas/read";
import { here } from "@/stations/frame/context";
import { FillFromShelf } from "@/stations/plan/fill";
import { readShelf, readStocks } from "@/stations/shelf/read";

export const metadata = { title: "What can I fill?" };

export default async function FillPage() {
  const { db, workshop } = await here();
  const [{ formulas }, shelf, stocks] = await Promise.all([listFormulas(db, workshop.id), readShelf(db, workshop.id), readStocks(db, workshop.id)]);
  return <FillFromShelf formulas={formulas.map(({ id, name, spec }) => ({ id, name, spec }))} shelf={shelf} stocks={stocks} />;
}
