import { z } from "zod";
import { LabelsView } from "@/features/sell/labels";
import { requestContext } from "@/server/http/context";
import { parseQuery } from "@/server/http/query";
import { batchesFor } from "@/server/inventory/safety-data-sheets";
import { listProducts } from "@/server/products/products";
import { packRunAt, piecesIn } from "@/server/sales/finished-goods";
import { labelFacts } from "@/server/sales/label-content";
import { listLabelSheets, readLabelling } from "@/server/sales/label-settings";

export const metadata = { title: "Labels" };

export default async function LabelsPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await requestContext();
  const asked = await parseQuery(searchParams, { packRun: z.uuid(), product: z.uuid(), batch: z.uuid() });
  const products = (await listProducts(db, workshop.id)).filter((product) => !product.archived || product.id === asked.product);
  const [packRun, pieces, labelling, sheets] = await Promise.all([
    asked.packRun ? packRunAt(db, workshop.id, asked.packRun) : null,
    asked.packRun ? piecesIn(db, workshop.id, [asked.packRun]) : [],
    readLabelling(db, workshop.id),
    listLabelSheets(db, workshop.id),
  ]);
  const packed = packRun
    ? pieces.flatMap((piece) => {
        const product = products.find((each) => each.id === piece.productId);
        return product
          ? [{ productId: product.id, name: product.name, batchId: piece.batchId, number: piece.number, pieces: piece.pieces, pack: product.pack }]
          : [];
      })
    : [];
  const poured = asked.product ? await batchesFor(db, workshop.id, products.find((product) => product.id === asked.product)?.formulaId ?? asked.product) : [];
  const choices = [
    ...packed,
    ...poured.flatMap((batch) => {
      const product = products.find((product) => product.id === asked.product);
      return product ? [{ productId: product.id, name: product.name, batchId: batch.id, number: batch.number, pieces: batch.pieces, pack: product.pack }] : [];
    }),
    ...products.map((product) => ({ productId: product.id, name: product.name, batchId: null, number: null, pieces: 1, pack: product.pack })),
  ].filter((item, index, all) => all.findIndex((other) => other.productId === item.productId && other.batchId === item.batchId) === index);
  const first =
    choices.find((choice) => choice.productId === asked.product && choice.batchId === (asked.batch ?? null)) ??
    choices.find((choice) => choice.productId === asked.product) ??
    choices[0];
  const facts = first ? await labelFacts(db, workshop, { productId: first.productId, batchId: first.batchId }) : null;
  return (
    <LabelsView
      key={first ? `${first.productId} ${first.batchId}` : ""}
      choices={choices}
      chosen={first ? `${first.productId} ${first.batchId ?? ""}` : ""}
      sheets={sheets}
      settings={labelling.settings}
      version={labelling.version}
      paper={["en-US", "en-CA"].includes(workshop.locale) ? "letter" : "a4"}
      facts={
        facts
          ? {
              without: facts.hazard.without.map((mixPart) => mixPart.name),
              testCandles: facts.hours?.testCandles ?? 0,
              classes: facts.hazard.answer.classes,
              ufi: facts.ufi,
            }
          : null
      }
    />
  );
}
