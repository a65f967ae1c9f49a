import { MoldBoard } from "@/features/bench/mold-board";
import { moldBoard } from "@/server/batches/molds";
import { requestContext } from "@/server/http/context";

export const metadata = { title: "Molds" };

export default async function MoldsPage() {
  const { db, workshop, now } = await requestContext();
  return <MoldBoard rows={await moldBoard(db, workshop.id, now)} />;
}
