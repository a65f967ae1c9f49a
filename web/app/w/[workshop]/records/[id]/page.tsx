import { BurnedIn } from "@/catalogue/burned";
import { Notebook } from "@/catalogue/notebook";
import { RecordView } from "@/features/records/record";
import { batchProps } from "@/server/batches/batch-page";
import { burnedOf } from "@/server/burn/trials";
import { requestContext } from "@/server/http/context";
import { readTakenBy } from "@/server/inventory/shelf";
import { notesOf } from "@/server/workshops/notes";

export const metadata = { title: "Record" };

export default async function RecordPage({ params }: { params: Promise<{ id: string }> }) {
  const props = await batchProps(params);
  const { db, workshop } = await requestContext();
  const [taken, notes, burned] = await Promise.all([
    readTakenBy(db, workshop.id, props.batch.id, workshop.timeZone),
    notesOf(db, workshop.id, "batch", props.batch.id),
    burnedOf(db, workshop.id, props.batch.id),
  ]);
  return (
    <RecordView
      key={props.batch.id}
      {...props}
      taken={taken}
      notes={
        <>
          <BurnedIn burned={burned} />
          <Notebook kind="batch" of={props.batch.id} notes={notes} />
        </>
      }
    />
  );
}
