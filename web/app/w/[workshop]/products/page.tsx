import { namedIn, packingDraw } from "@hearth/core";
import { z } from "zod";
import { here } from "@/server/context";
import { findProducts, newestSpecs } from "@/server/products";
import { askedOf } from "@/server/query";
import { readFewOf, readStocks, stockedIn } from "@/server/shelf";
import { ProductList } from "@/stations/products/list";

export const metadata = { title: "Products" };

export default async function ProductsPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await here();
  const asked = await askedOf(searchParams, { test: z.enum(["tested", "test due", "failed"]), away: z.literal("1") });
  const { products, found, pages } = await findProducts(db, workshop.id, { ...asked, away: asked.away === "1" });
  const specs = await newestSpecs(
    db,
    workshop.id,
    products.map((one) => one.formulaId),
  );
  const named = [...specs.values()].flatMap(namedIn);
  const shelf = await readFewOf(
    db,
    workshop.id,
    [...named, ...products.flatMap((one) => [one.bodyId, ...(one.wickId ? [one.wickId] : []), ...packingDraw(one.packing, 1).map((part) => part.id)])],
    0,
  );
  const stocks = await readStocks(db, workshop.id, workshop.timeZone, stockedIn(shelf));
  return (
    <ProductList
      products={products}
      specs={Object.fromEntries(specs)}
      shelf={shelf}
      stocks={stocks}
      rates={{ handsCost: workshop.handsCost, heatCost: workshop.heatCost }}
      found={found}
      page={Math.min(asked.page ?? 1, pages)}
      pages={pages}
      narrowed={Boolean(asked.q || asked.test || asked.away)}
    />
  );
}
