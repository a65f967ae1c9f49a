import { here } from "@/stations/frame/context";
import { readShelf, readStocks } from "@/stations/shelf/read";
import { ShelfView } from "@/stations/shelf/shelf";

export const metadata = { title: "Shelf" };

export default async function ShelfPage() {
  const { db, workshop } = await here();
  const [shelf, stocks] = await Promise.all([readShelf(db, workshop.id), readStocks(db, workshop.id)]);
  return <ShelfView shelf={shelf} stocks={stocks} />;
}
