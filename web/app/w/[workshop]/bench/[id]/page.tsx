import { pouredAt } from "@hearth/core";
import { Pot } from "@/features/bench/pot";
import { batchProps } from "@/server/batches/batch-page";
import { typicalCooling } from "@/server/batches/typical-cooling";
import { pourFinding } from "@/server/findings/pour-finding";
import { requestContext } from "@/server/http/context";

export const metadata = { title: "Pot" };

export default async function PotPage({ params }: { params: Promise<{ id: string }> }) {
  const [props, { db, workshop }] = await Promise.all([batchProps(params), requestContext()]);
  const [usual, finding] = await Promise.all([
    typicalCooling(db, workshop.id),
    pouredAt(props.batch.plan, props.batch.state) ? null : pourFinding(db, workshop.id, props.batch.plan),
  ]);
  return <Pot key={props.batch.id} {...props} usual={usual} finding={finding} />;
}
