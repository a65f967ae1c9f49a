import { Notebook } from "@/catalogue/notebook";
import { batchProps } from "@/server/batch-page";
import { here } from "@/server/context";
import { causeWords, readGrades } from "@/server/finding-rules";
import { notesOf } from "@/server/notes";
import { LookOver } from "@/stations/lookover/look-over";

export const metadata = { title: "Look over" };

export default async function LookOverOnePage({ params }: { params: Promise<{ id: string }> }) {
  const props = await batchProps(params);
  const { db, workshop } = await here();
  const [notes, { rules }, causes] = await Promise.all([
    notesOf(db, workshop.id, "batch", props.batch.id),
    readGrades(db, workshop.id),
    causeWords(db, workshop.id),
  ]);
  return <LookOver key={props.batch.id} {...props} rules={rules} causes={causes} notes={<Notebook kind="batch" of={props.batch.id} notes={notes} />} />;
}
