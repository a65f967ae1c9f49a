import { Notebook } from "@/catalogue/notebook";
import { OnRack } from "@/features/rack/on-rack";
import { batchProps } from "@/server/batches/batch-page";
import { shelvesOf, wickTestsOf } from "@/server/batches/rack";
import { requestContext } from "@/server/http/context";
import { notesOf } from "@/server/workshops/notes";

export const metadata = { title: "On the rack" };

export default async function OnRackPage({ params }: { params: Promise<{ id: string }> }) {
  const props = await batchProps(params);
  const { db, workshop } = await requestContext();
  const containers = props.batch.plan.products.map((product) => product.containerId);
  const [notes, shelves, tests] = await Promise.all([
    notesOf(db, workshop.id, "batch", props.batch.id),
    shelvesOf(db, workshop.id),
    wickTestsOf(db, workshop.id, props.batch.id, containers),
  ]);
  return <OnRack key={props.batch.id} {...props} shelves={shelves} tests={tests} notes={<Notebook kind="batch" of={props.batch.id} notes={notes} />} />;
}
