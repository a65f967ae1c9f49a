import { batchProps } from "@/stations/batch/page";
import { here } from "@/stations/frame/context";
import { RecordView } from "@/stations/records/record";
import { readTakenBy } from "@/stations/shelf/read";

export const metadata = { title: "Record" };

export default async function RecordPage({ params }: { params: Promise<{ id: string }> }) {
  const props = await batchProps(params);
  const { db, workshop } = await here();
  return <RecordView key={props.batch.id} {...props} taken={await readTakenBy(db, workshop.id, props.batch.id)} />;
}
