import { and, desc, eq, inArray, max, or, sql } from "drizzle-orm";
import type { Database } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { formulas, formulaVersions } from "@/data/tables/formula";
import { readRecentlyUsed, readShelf, readStocks, stockedIn } from "@/server/inventory/shelf";
import { listProducts } from "@/server/products/products";
import { naturalSort } from "@/server/shared/natural-sort";

/** Returns the formulas by name, lately used first: what choosers need of them, and no more. */
export async function formulaNames(
  db: Database,
  workshopId: string,
  most?: number,
  also: readonly string[] = [],
): Promise<{ id: string; name: string; usedAt: string | null }[]> {
  const used = db
    .select({ formulaId: formulaVersions.formulaId, at: max(batches.startedAt).as("at") })
    .from(batches)
    .innerJoin(formulaVersions, and(eq(formulaVersions.workshopId, batches.workshopId), eq(formulaVersions.id, batches.formulaVersionId)))
    .where(eq(batches.workshopId, workshopId))
    .groupBy(formulaVersions.formulaId)
    .as("used");
  const all = db
    .select({ id: formulas.id, name: formulas.name, usedAt: used.at })
    .from(formulas)
    .leftJoin(used, eq(used.formulaId, formulas.id))
    .where(
      and(
        eq(formulas.workshopId, workshopId),
        also.length > 0 ? or(eq(formulas.archived, false), inArray(formulas.id, [...also])) : eq(formulas.archived, false),
      ),
    )
    .orderBy(...(also.length > 0 ? [desc(inArray(formulas.id, [...also]))] : []), sql`${used.at} desc nulls last`, naturalSort(formulas.name));
  const rows = await (most === undefined ? all : all.limit(most));
  return rows.map((row) => ({ ...row, usedAt: row.usedAt ? new Date(row.usedAt).toISOString() : null }));
}

/** Returns everything of a workshop that can be chosen. */
export async function readCatalogue(db: Database, workshopId: string, zone: string) {
  const shelf = await readShelf(db, workshopId);
  const [stocks, recentlyUsed, names, products] = await Promise.all([
    readStocks(db, workshopId, zone),
    readRecentlyUsed(db, workshopId, stockedIn(shelf)),
    formulaNames(db, workshopId),
    listProducts(db, workshopId),
  ]);
  return { shelf, stocks, recentlyUsed, formulas: names, products };
}
export type Catalogue = Awaited<ReturnType<typeof readCatalogue>>;
