import { packagingDraw } from "@hearth/core";
import { notFound } from "next/navigation";
import { z } from "zod";
import { SetEditor } from "@/features/sell/set-editor";
import { requestContext } from "@/server/http/context";
import { pickList } from "@/server/inventory/shelf";
import { listProducts } from "@/server/products/products";
import { asSellable, insidesOf, readSet } from "@/server/sales/finished-goods";

export const metadata = { title: "Set" };

export default async function SetPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) notFound();
  const { db, workshop } = await requestContext();
  const set = await readSet(db, workshop.id, id);
  if (!set) notFound();
  const products = (await listProducts(db, workshop.id)).filter((product) => !product.archived || set.contents.some((each) => each.productId === product.id));
  const [inside, few] = await Promise.all([
    insidesOf(db, workshop.id, products),
    pickList(
      db,
      workshop,
      packagingDraw(set.packaging, 1).map((item) => item.id),
    ),
  ]);
  return <SetEditor key={`${set.id} ${set.version}`} set={set} products={products.map(asSellable)} inside={inside} few={few} />;
}
