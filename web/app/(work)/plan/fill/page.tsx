import { here } from "@/server/context";
import { listFormulas } from "@/server/formulas";
import { readShelf, readStocks } from "@/server/shelf";
import { FillFromShelf } from "@/stations/plan/fill";

export const metadata = { title: "What can I fill?" };

export default async function FillPage() {
  const { db, workshop } = await here();
  const [{ formulas }, shelf, stocks] = await Promise.all([
    listFormulas(db, workshop.id),
    readShelf(db, workshop.id),
    readStocks(db, workshop.id, workshop.timeZone),
  ]);
  return <FillFromShelf formulas={formulas.map(({ id, name, spec }) => ({ id, name, spec }))} shelf={shelf} stocks={stocks} />;
}
