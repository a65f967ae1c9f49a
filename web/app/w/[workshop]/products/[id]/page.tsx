import { namedIn } from "@hearth/core";
import { notFound } from "next/navigation";
import { z } from "zod";
import { ProductEditor } from "@/features/products/editor";
import { requestContext } from "@/server/http/context";
import { pickList } from "@/server/inventory/shelf";
import { newestSpecs, readProduct, takenByProduct } from "@/server/products/products";
import { readRates } from "@/server/products/rates";
import { formulaNames } from "@/server/workshops/search-index";

export const metadata = { title: "Product" };

export default async function ProductPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) notFound();
  const { db, workshop } = await requestContext();
  const product = await readProduct(db, workshop.id, id);
  if (!product) notFound();
  const spec = (await newestSpecs(db, workshop.id, [product.formulaId])).get(product.formulaId) ?? null;
  const named = spec ? namedIn(spec) : [];
  const [few, formulas] = await Promise.all([
    pickList(db, workshop, [...named, ...takenByProduct(product)]),
    formulaNames(db, workshop.id, 12, [product.formulaId]),
  ]);
  return (
    <ProductEditor key={`${product.id} ${product.version}`} product={product} spec={spec} formulas={formulas} few={few} rates={await readRates(db, workshop)} />
  );
}
