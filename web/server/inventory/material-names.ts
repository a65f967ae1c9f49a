import { eq, sql } from "drizzle-orm";
import { unionAll } from "drizzle-orm/pg-core";
import type { Database, Transaction } from "@/data/client";
import { additives, dyes, waxes } from "@/data/tables/shelf";

/** Returns the waxes, additives and dyes of a workshop by their ids. */
export async function readMaterialNames(db: Database | Transaction, workshopId: string): Promise<{ id: string; name: string }[]> {
  const of = (table: typeof waxes | typeof additives | typeof dyes) =>
    db
      .select({ id: sql<string>`${table.id}`, name: sql<string>`${table.name}` })
      .from(table as typeof waxes)
      .where(eq(table.workshopId, workshopId));
  return unionAll(of(waxes), of(additives), of(dyes));
}
