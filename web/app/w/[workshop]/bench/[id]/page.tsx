import { pouredAt } from "@hearth/core";
import { Pot } from "@/features/bench/pot";
import { potTargets } from "@/features/bench/pot-targets";
import { batchProps } from "@/server/batches/batch-page";
import { potForecasts } from "@/server/batches/pot-forecast";
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
  const forecasts = await potForecasts(potTargets(props.batch.plan, props.batch.state, usual, finding));
  return <Pot key={props.batch.id} {...props} usual={usual} finding={finding} forecasts={forecasts} />;
}
