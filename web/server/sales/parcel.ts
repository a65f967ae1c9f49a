import { and, eq, inArray } from "drizzle-orm";
import type { Database } from "@/data/client";
import { fragrances, waxes } from "@/data/tables/shelf";
import { newestSpecs, type Product } from "@/server/products/products";

/** Returns what is to be minded of products on the way to the buyer: the melting point of their main wax, and the lowest flash point of their oils. */
export async function parcelCandles(db: Database, workshopId: string, products: readonly Pick<Product, "name" | "formulaId">[]) {
  const specs = await newestSpecs(
    db,
    workshopId,
    products.map((product) => product.formulaId),
  );
  const waxIds = [...specs.values()].flatMap((spec) => spec.waxes.slice(0, 1).map((part) => part.id));
  const oilIds = [...specs.values()].flatMap((spec) => spec.fragrances.map((part) => part.id));
  const [waxRows, oilRows] = await Promise.all([
    db
      .select({ id: waxes.id, melt: waxes.melt })
      .from(waxes)
      .where(and(eq(waxes.workshopId, workshopId), inArray(waxes.id, waxIds))),
    db
      .select({ id: fragrances.id, flashPoint: fragrances.flashPoint })
      .from(fragrances)
      .where(and(eq(fragrances.workshopId, workshopId), inArray(fragrances.id, oilIds))),
  ]);
  return products.map(({ name, formulaId }) => {
    const spec = specs.get(formulaId);
    const flashPoints = (spec?.fragrances ?? [])
      .map((part) => oilRows.find((row) => row.id === part.id)?.flashPoint)
      .filter((at): at is number => typeof at === "number");
    return {
      name,
      melt: waxRows.find((row) => row.id === spec?.waxes[0]?.id)?.melt ?? null,
      flashPoint: flashPoints.length > 0 ? Math.min(...flashPoints) : null,
    };
  });
}
