import { and, desc, eq } from "drizzle-orm";
import type { Database } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { formulas } from "@/data/tables/formula";
import { products } from "@/data/tables/product";
import { fragrances, instruments, vessels, waxes, wicks } from "@/data/tables/shelf";
import type { ThingTable } from "@/server/inventory/tables";

/** Returns what a workshop has of what its first batch needs: the newest of each, or nothing yet. */
export async function readFirst(db: Database, workshopId: string) {
  const newest = async <T extends ThingTable>(table: T): Promise<T["$inferSelect"] | null> => {
    const [row] = await db
      .select()
      .from(table as ThingTable)
      .where(and(eq(table.workshopId, workshopId), eq(table.archived, false)))
      .orderBy(desc(table.id))
      .limit(1);
    return row ?? null;
  };
  const [tools, wax, vessel, fragrance, wick, formula, product, batch] = await Promise.all([
    db
      .select()
      .from(instruments)
      .where(and(eq(instruments.workshopId, workshopId), eq(instruments.archived, false)))
      .limit(20),
    newest(waxes),
    newest(vessels),
    newest(fragrances),
    newest(wicks),
    newest(formulas),
    newest(products),
    db.select({ id: batches.id }).from(batches).where(eq(batches.workshopId, workshopId)).limit(1),
  ]);
  return {
    scale: tools.find((tool) => tool.kind === "scale" && tool.resolutionUg !== null) ?? null,
    thermometer: tools.find((tool) => tool.kind !== "scale" && tool.kind !== "tool") ?? null,
    wax,
    vessel,
    fragrance,
    wick,
    formula: formula && { id: formula.id, name: formula.name },
    product: product && { id: product.id, name: product.name },
    started: batch.length > 0,
  };
}
export type First = Awaited<ReturnType<typeof readFirst>>;
