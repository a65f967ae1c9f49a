import { roomsOf } from "@hearth/core";
import { notFound } from "next/navigation";
import { z } from "zod";
import { Notebook } from "@/catalogue/notebook";
import { TrialView } from "@/features/burn/trial";
import { listInstruments } from "@/server/batches/batches";
import { readTrial } from "@/server/burn/trials";
import { requestContext } from "@/server/http/context";
import { readProduct } from "@/server/products/products";
import { notesOf } from "@/server/workshops/notes";

export const metadata = { title: "Burn trial" };

export default async function TrialPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) notFound();
  const { db, workshop, people } = await requestContext();
  const [trial, instruments, notes] = await Promise.all([
    readTrial(db, workshop.id, id),
    listInstruments(db, workshop.id),
    notesOf(db, workshop.id, "trial", id),
  ]);
  if (!trial) notFound();
  const productId = trial.plan.testCandles.find((testCandle) => testCandle.productId !== null)?.productId;
  const product = productId ? await readProduct(db, workshop.id, productId) : null;
  return (
    <TrialView
      key={id}
      people={people}
      rooms={roomsOf(workshop.rooms)}
      instruments={instruments}
      trial={trial}
      product={product ? { id: product.id, name: product.name, wickId: product.wickId, wicks: product.wicks } : null}
      notes={<Notebook kind="trial" of={id} notes={notes} />}
    />
  );
}
