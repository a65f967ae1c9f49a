import { here } from "@/server/context";
import { readShelf, readStocks } from "@/server/shelf";
import { ShelfView } from "@/stations/shelf/shelf";

export const metadata = { title: "Shelf" };

export default async function ShelfPage() {
  const { db, workshop } = await here();
  const [shelf, stocks] = await Promise.all([readShelf(db, workshop.id), readStocks(db, workshop.id, workshop.timeZone)]);
  return <ShelfView shelf={shelf} stocks={stocks} />;
}
