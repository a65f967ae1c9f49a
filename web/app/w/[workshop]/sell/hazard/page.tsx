import { notFound } from "next/navigation";
import { z } from "zod";
import { HazardView } from "@/features/sell/hazard";
import { requestContext } from "@/server/http/context";
import { parseQuery } from "@/server/http/query";
import { batchesOfFormula, hazardOfBatch, hazardOfRecipe } from "@/server/inventory/safety-data-sheets";
import { listProducts, newestSpecs, readProduct } from "@/server/products/products";
import { readLabelling } from "@/server/sales/label-settings";
import { formulaNames } from "@/server/workshops/search-index";

export const metadata = { title: "Hazard label" };

export default async function HazardPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await requestContext();
  const asked = await parseQuery(searchParams, { formula: z.uuid(), product: z.uuid(), batch: z.uuid() });
  const [formulas, products, labelling] = await Promise.all([
    formulaNames(db, workshop.id, 500, []),
    listProducts(db, workshop.id),
    readLabelling(db, workshop.id),
  ]);
  const common = { ...labelling, formulas, products: products.filter((product) => !product.archived).map(({ id, name }) => ({ id, name })) };
  if (asked.batch) {
    const batch = await hazardOfBatch(db, workshop.id, asked.batch);
    if (!batch) notFound();
    return (
      <HazardView
        {...common}
        of={{ kind: "batch", id: asked.batch, name: `batch ${batch.number}` }}
        hazard={batch.whole}
        loads={[]}
        load={null}
        planned={batch.pots.flatMap((pot) => pot.planned)}
        batches={[]}
      />
    );
  }
  const product = asked.product ? await readProduct(db, workshop.id, asked.product) : null;
  const formulaId = product?.formulaId ?? asked.formula;
  const spec = formulaId ? (await newestSpecs(db, workshop.id, [formulaId])).get(formulaId) : undefined;
  if (!formulaId || !spec) return <HazardView {...common} of={null} hazard={null} loads={[]} load={null} planned={[]} batches={[]} />;
  const hazard = await hazardOfRecipe(db, workshop.id, spec);
  const name = product?.name ?? formulas.find((formula) => formula.id === formulaId)?.name ?? "formula";
  return (
    <HazardView
      {...common}
      of={{ kind: "formula", id: formulaId, name }}
      hazard={hazard}
      loads={hazard.loads}
      load={spec.fragrances.length > 0 ? { ppm: spec.loadPpm, basis: spec.basis } : null}
      planned={[]}
      batches={await batchesOfFormula(db, workshop.id, formulaId, hazard)}
    />
  );
}
