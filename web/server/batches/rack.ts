import { dueReasons, type FormulaSpec, readFormula, testedOf, type WickTest } from "@hearth/core";
import { and, eq, inArray, sql } from "drizzle-orm";
import type { Database } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { formulaVersions } from "@/data/tables/formula";
import { products } from "@/data/tables/product";

/** Returns the state of the burn test for each product that a batch was poured for; nothing for containers that are no product. */
export async function wickTestsOf(
  db: Database,
  workshopId: string,
  batchId: string,
  containers: string[],
): Promise<{ id: string; product: string; containerId: string; test: WickTest }[]> {
  if (containers.length === 0) return [];
  const rows = await db
    .select({
      id: products.id,
      name: products.name,
      containerId: products.containerId,
      wickId: products.wickId,
      wicks: products.wicks,
      test: products.wickTest,
      testedAs: products.testedAs,
      spec: formulaVersions.spec,
    })
    .from(batches)
    .innerJoin(formulaVersions, and(eq(formulaVersions.workshopId, batches.workshopId), eq(formulaVersions.id, batches.formulaVersionId)))
    .innerJoin(products, and(eq(products.workshopId, formulaVersions.workshopId), eq(products.formulaId, formulaVersions.formulaId)))
    .where(and(eq(batches.workshopId, workshopId), eq(batches.id, batchId), inArray(products.containerId, containers), eq(products.archived, false)));
  return rows.flatMap((row) => {
    if (row.wickId === null) return [];
    const spec = readFormula(row.spec) as FormulaSpec;
    const due = row.testedAs && dueReasons(row.testedAs, testedOf(spec, row)).length > 0;
    return [{ id: row.id, product: row.name, containerId: row.containerId, test: due ? ("test due" as const) : row.test }];
  });
}

/** Shelf names that are in use, the newest first. */
export async function shelvesOf(db: Database, workshopId: string): Promise<string[]> {
  const rows = await db
    .select({ shelf: sql<string>`${batches.state}->'stands'->>'shelf'`, at: sql`max(${batches.startedAt})` })
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), eq(batches.stage, "rack"), sql`coalesce(${batches.state}->'stands'->>'shelf', '') <> ''`))
    .groupBy(sql`1`)
    .orderBy(sql`2 desc`);
  return rows.map((row) => row.shelf);
}
