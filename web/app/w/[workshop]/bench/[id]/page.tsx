import { Pot } from "@/features/bench/pot";
import { batchProps } from "@/server/batches/batch-page";
import { typicalCooling } from "@/server/batches/typical-cooling";
import { requestContext } from "@/server/http/context";

export const metadata = { title: "Pot" };

export default async function PotPage({ params }: { params: Promise<{ id: string }> }) {
  const [props, { db, workshop }] = await Promise.all([batchProps(params), requestContext()]);
  return <Pot key={props.batch.id} {...props} usual={await typicalCooling(db, workshop.id)} />;
}
