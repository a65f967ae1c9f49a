import { namedIn } from "@hearth/core";
import { FillFromShelf } from "@/features/plan/fill";
import { requestContext } from "@/server/http/context";
import { pickList } from "@/server/inventory/shelf";
import { findProducts, newestSpecs, takenByProduct } from "@/server/products/products";
import { readRates } from "@/server/products/rates";
import { formulaNames } from "@/server/workshops/search-index";

export const metadata = { title: "What can I make?" };

/** So many products the page begins with; others are looked for. */
const MAX_SHOWN = 16;

export default async function FillPage() {
  const { db, workshop } = await requestContext();
  const [{ products }, names] = await Promise.all([findProducts(db, workshop.id, {}), formulaNames(db, workshop.id, 12)]);
  const shown = products.slice(0, MAX_SHOWN);
  const specs = await newestSpecs(db, workshop.id, [...shown.map((product) => product.formulaId), ...names.slice(0, 2).map((name) => name.id)]);
  const named = [...specs.values()].flatMap(namedIn);
  const few = await pickList(db, workshop, [...named, ...shown.flatMap(takenByProduct)]);
  return <FillFromShelf products={shown} names={names} specs={Object.fromEntries(specs)} few={few} rates={await readRates(db, workshop)} />;
}
