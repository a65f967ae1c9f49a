import { Proven } from "@/features/burn/proven";
import { provenGrid } from "@/server/burn/proven";
import { requestContext } from "@/server/http/context";

export const metadata = { title: "What is proven" };

export default async function ProvenPage() {
  const { db, workshop } = await requestContext();
  return <Proven grid={await provenGrid(db, workshop.id)} />;
}
