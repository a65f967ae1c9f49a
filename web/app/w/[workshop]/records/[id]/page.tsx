import { BurnedIn } from "@/catalogue/burned";
import { Notebook } from "@/catalogue/notebook";
import { batchProps } from "@/server/batch-page";
import { here } from "@/server/context";
import { notesOf } from "@/server/notes";
import { readTakenBy } from "@/server/shelf";
import { burnedOf } from "@/server/trials";
import { RecordView } from "@/stations/records/record";

export const metadata = { title: "Record" };

export default async function RecordPage({ params }: { params: Promise<{ id: string }> }) {
  const props = await batchProps(params);
  const { db, workshop } = await here();
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
