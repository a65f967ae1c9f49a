import { dayAt, packagingDraw } from "@hearth/core";
import { z } from "zod";
import { PackView } from "@/features/sell/pack";
import { requestContext } from "@/server/http/context";
import { parseQuery } from "@/server/http/query";
import { readStocks } from "@/server/inventory/shelf";
import { listProducts } from "@/server/products/products";
import { insidesOf, listPacks, readFinishedGoods, recentlyPacked } from "@/server/sales/finished-goods";

export const metadata = { title: "Pack" };

export default async function PackPage({ searchParams }: { searchParams: Promise<Record<string, string | string[]>> }) {
  const { db, workshop, now } = await requestContext();
  const asked = await parseQuery(searchParams, { of: z.uuid() });
  const since = new Date(Date.parse(now) - 60 * 86_400_000).toISOString();
  const [finishedGoods, products, packs, recentPacks] = await Promise.all([
    readFinishedGoods(db, workshop.id, dayAt(now, workshop.timeZone), workshop.timeZone),
    listProducts(db, workshop.id),
    listPacks(db, workshop.id),
    recentlyPacked(db, workshop.id, since),
  ]);
  const shown = finishedGoods.filter((stocked) => stocked.loose > 0 || stocked.packed > 0 || stocked.sellable.id === asked.of);
  const named = new Set(shown.flatMap((finishedGoods) => finishedGoods.sellable.contents.map((each) => each.productId)));
  const parts = [...new Set(shown.flatMap((finishedGoods) => packagingDraw(finishedGoods.sellable.packaging, 1).map((each) => each.id)))];
  const [inside, stocks] = await Promise.all([
    insidesOf(
      db,
      workshop.id,
      products.filter((product) => named.has(product.id)),
    ),
    readStocks(db, workshop.id, workshop.timeZone, parts),
  ]);
  return <PackView key={asked.of ?? ""} finishedGoods={shown} of={asked.of ?? null} inside={inside} packs={packs} stocks={stocks} recentPacks={recentPacks} />;
}
