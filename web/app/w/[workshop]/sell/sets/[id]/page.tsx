import { packingDraw } from "@hearth/core";
import { notFound } from "next/navigation";
import { z } from "zod";
import { here } from "@/server/context";
import { asSellable, insidesOf, readSet } from "@/server/goods";
import { listProducts } from "@/server/products";
import { fewFor } from "@/server/shelf";
import { SetEditor } from "@/stations/sell/set-editor";

export const metadata = { title: "Set" };

export default async function SetPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) notFound();
  const { db, workshop } = await here();
  const set = await readSet(db, workshop.id, id);
  if (!set) notFound();
  const products = (await listProducts(db, workshop.id)).filter((one) => !one.putAway || set.contents.some((each) => each.productId === one.id));
  const [inside, few] = await Promise.all([
    insidesOf(db, workshop.id, products),
    fewFor(
      db,
      workshop,
      packingDraw(set.packing, 1).map((one) => one.id),
    ),
  ]);
  return <SetEditor key={`${set.id} ${set.version}`} set={set} products={products.map(asSellable)} inside={inside} few={few} />;
}
