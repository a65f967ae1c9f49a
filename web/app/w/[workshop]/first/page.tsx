import { here } from "@/server/context";
import { readFirst } from "@/server/first";
import { FirstBatch } from "@/stations/first/first";

export const metadata = { title: "First batch" };

export default async function FirstPage() {
  const { db, workshop } = await here();
  return <FirstBatch first={await readFirst(db, workshop.id)} />;
}
