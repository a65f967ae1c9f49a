import { FirstBatch } from "@/features/onboarding/first";
import { requestContext } from "@/server/http/context";
import { readFirst } from "@/server/workshops/onboarding";

export const metadata = { title: "First batch" };

export default async function FirstPage() {
  const { db, workshop } = await requestContext();
  return <FirstBatch first={await readFirst(db, workshop.id)} />;
}
