import { batchProps } from "@/server/batch-page";
import { LookOver } from "@/stations/lookover/look-over";

export const metadata = { title: "Look over" };

export default async function LookOverOnePage({ params }: { params: Promise<{ id: string }> }) {
  const props = await batchProps(params);
  return <LookOver key={props.batch.id} {...props} />;
}
