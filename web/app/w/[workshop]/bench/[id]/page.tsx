import { batchProps } from "@/server/batch-page";
import { here } from "@/server/context";
import { usualOf } from "@/server/usual";
import { Pot } from "@/stations/bench/pot";

export const metadata = { title: "Pot" };

export default async function PotPage({ params }: { params: Promise<{ id: string }> }) {
  const [props, { db, workshop }] = await Promise.all([batchProps(params), here()]);
  return <Pot key={props.batch.id} {...props} usual={await usualOf(db, workshop.id)} />;
}
