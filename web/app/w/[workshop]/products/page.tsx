import { namedIn } from "@hearth/core";
import { z } from "zod";
import { ProductList } from "@/features/products/list";
import { requestContext } from "@/server/http/context";
import { parseQuery } from "@/server/http/query";
import { readPickList, readStocks, stockedIn } from "@/server/inventory/shelf";
import { findProducts, newestSpecs, takenByProduct } from "@/server/products/products";
import { readRates } from "@/server/products/rates";

export const metadata = { title: "Products" };

export default async function ProductsPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop } = await requestContext();
  const asked = await parseQuery(searchParams, { test: z.enum(["tested", "test due", "failed"]), away: z.literal("1") });
  const { products, found, pages } = await findProducts(db, workshop.id, { ...asked, away: asked.away === "1" });
  const specs = await newestSpecs(
    db,
    workshop.id,
    products.map((product) => product.formulaId),
  );
  const named = [...specs.values()].flatMap(namedIn);
  const shelf = await readPickList(db, workshop.id, [...named, ...products.flatMap(takenByProduct)], 0);
  const stocks = await readStocks(db, workshop.id, workshop.timeZone, stockedIn(shelf));
  return (
    <ProductList
      products={products}
      specs={Object.fromEntries(specs)}
      shelf={shelf}
      stocks={stocks}
      rates={await readRates(db, workshop)}
      found={found}
      page={Math.min(asked.page ?? 1, pages)}
      pages={pages}
      narrowed={Boolean(asked.q || asked.test || asked.away)}
    />
  );
}
