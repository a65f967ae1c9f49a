import { here } from "@/stations/frame/context";
import { ShelfFile } from "@/stations/shelf/file";
import { readShelf } from "@/stations/shelf/read";

export const metadata = { title: "Shelf file" };

export default async function ShelfFilePage() {
  const { db, workshop } = await here();
  return <ShelfFile shelf={await readShelf(db, workshop.id)} workshopId={workshop.id} />;
}
