import { batchProps } from "@/stations/batch/page";
import { RecordView } from "@/stations/records/record";

export const metadata = { title: "Record" };

export default async function RecordPage({ params }: { params: Promise<{ id: string }> }) {
  const props = await batchProps(params);
  return <RecordView key={props.batch.id} {...props} />;
}
