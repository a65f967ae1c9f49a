import { Notebook } from "@/catalogue/notebook";
import { batchProps } from "@/server/batch-page";
import { here } from "@/server/context";
import { notesOf } from "@/server/notes";
import { shelvesOf, wickTestsOf } from "@/server/rack";
import { OnRack } from "@/stations/rack/on-rack";

export const metadata = { title: "On the rack" };

export default async function OnRackPage({ params }: { params: Promise<{ id: string }> }) {
  const props = await batchProps(params);
  const { db, workshop } = await here();
  const bodies = props.batch.plan.products.map((one) => one.bodyId);
  const [notes, shelves, tests] = await Promise.all([
    notesOf(db, workshop.id, "batch", props.batch.id),
    shelvesOf(db, workshop.id),
    wickTestsOf(db, workshop.id, props.batch.id, bodies),
  ]);
  return <OnRack key={props.batch.id} {...props} shelves={shelves} tests={tests} notes={<Notebook kind="batch" of={props.batch.id} notes={notes} />} />;
}
