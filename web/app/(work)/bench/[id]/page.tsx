import { batchProps } from "@/server/batch-page";
import { Pot } from "@/stations/bench/pot";

export const metadata = { title: "Pot" };

export default async function PotPage({ params }: { params: Promise<{ id: string }> }) {
  const props = await batchProps(params);
  return <Pot key={props.batch.id} {...props} />;
}
