import { batchProps } from "@/server/batch-page";
import { here } from "@/server/context";
import { readTakenBy } from "@/server/shelf";
import { RecordView } from "@/stations/records/record";

export const metadata = { title: "Record" };

export default async function RecordPage({ params }: { params: Promise<{ id: string }> }) {
  const props = await batchProps(params);
  const { db, workshop } = await here();
  return <RecordView key={props.batch.id} {...props} taken={await readTakenBy(db, workshop.id, props.batch.id, workshop.timeZone)} />;
}
