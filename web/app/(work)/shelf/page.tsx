import { here } from "@/stations/frame/context";
import { readShelf } from "@/stations/shelf/read";
import { ShelfView } from "@/stations/shelf/shelf";

export const metadata = { title: "Shelf" };

export default async function ShelfPage() {
  const { db, workshop } = await here();
  return <ShelfView shelf={await readShelf(db, workshop.id)} />;
}
