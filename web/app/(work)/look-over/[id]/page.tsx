import { Notebook } from "@/catalogue/notebook";
import { batchProps } from "@/server/batch-page";
import { here } from "@/server/context";
import { notesOf } from "@/server/notes";
import { LookOver } from "@/stations/lookover/look-over";

export const metadata = { title: "Look over" };

export default async function LookOverOnePage({ params }: { params: Promise<{ id: string }> }) {
  const props = await batchProps(params);
  const { db, workshop } = await here();
  const notes = await notesOf(db, workshop.id, "batch", props.batch.id);
  return <LookOver key={props.batch.id} {...props} notes={<Notebook kind="batch" of={props.batch.id} notes={notes} />} />;
}
