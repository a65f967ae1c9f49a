import { Notebook } from "@/catalogue/notebook";
import { Inspection } from "@/features/inspect/inspect";
import { batchProps } from "@/server/batches/batch-page";
import { causeWords, readGradingRules } from "@/server/findings/rules";
import { requestContext } from "@/server/http/context";
import { notesOf } from "@/server/workshops/notes";

export const metadata = { title: "Inspect a batch" };

export default async function InspectionOnePage({ params }: { params: Promise<{ id: string }> }) {
  const props = await batchProps(params);
  const { db, workshop } = await requestContext();
  const [notes, { rules }, causes] = await Promise.all([
    notesOf(db, workshop.id, "batch", props.batch.id),
    readGradingRules(db, workshop.id),
    causeWords(db, workshop.id),
  ]);
  return <Inspection key={props.batch.id} {...props} rules={rules} causes={causes} notes={<Notebook kind="batch" of={props.batch.id} notes={notes} />} />;
}
