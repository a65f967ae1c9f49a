import { here } from "@/server/context";
import { readShelf } from "@/server/shelf";
import { ShelfFile } from "@/stations/shelf/file";

export const metadata = { title: "Shelf file" };

export default async function ShelfFilePage() {
  const { db, workshop } = await here();
  return <ShelfFile shelf={await readShelf(db, workshop.id)} />;
}
