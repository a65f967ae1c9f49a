import { namedIn } from "@hearth/core";
import { formulaNames } from "@/server/catalogue";
import { here } from "@/server/context";
import { findProducts, newestSpecs } from "@/server/products";
import { fewFor } from "@/server/shelf";
import { FillFromShelf } from "@/stations/plan/fill";

export const metadata = { title: "What can I fill?" };

/** So many products the page begins with; others are looked for. */
const MOST = 16;

export default async function FillPage() {
  const { db, workshop } = await here();
  const [{ products }, names] = await Promise.all([findProducts(db, workshop.id, {}), formulaNames(db, workshop.id, 12)]);
  const shown = products.slice(0, MOST);
  const specs = await newestSpecs(db, workshop.id, [...shown.map((one) => one.formulaId), ...names.slice(0, 2).map((one) => one.id)]);
  const named = [...specs.values()].flatMap(namedIn);
  const few = await fewFor(db, workshop, [...named, ...shown.flatMap((one) => [one.bodyId, ...(one.wickId ? [one.wickId] : [])])]);
  return (
    <FillFromShelf
      products={shown}
      names={names}
      specs={Object.fromEntries(specs)}
      few={few}
      rates={{ handsCost: workshop.handsCost, heatCost: workshop.heatCost }}
    />
  );
}
