import { and, eq, getTableColumns, inArray } from "drizzle-orm";
import type { AnyPgColumn } from "drizzle-orm/pg-core";
import type { Transaction } from "@/data/client";
import { supplierSheets } from "@/data/tables/label";
import { notes } from "@/data/tables/note";
import { products } from "@/data/tables/product";
import { lots, stockCounts } from "@/data/tables/stock";
import type { OwnedTable } from "./tables";

/** Columns that name a material, a vessel or a wick, and what a maker is told that it is used in, where that keeps it from being deleted. A test holds that none is missing. */
export const MATERIAL_COLUMNS = {
  lots: { table: lots, column: lots.materialId, used: "lots" },
  counts: { table: stockCounts, column: stockCounts.materialId, used: "counts of the stock" },
  sheets: { table: supplierSheets, column: supplierSheets.materialId, used: null },
  containers: { table: products, column: products.containerId, used: "products" },
  wicks: { table: products, column: products.wickId, used: "products" },
  notes: { table: notes, column: notes.ofId, used: null },
} as const;
interface NamingColumn {
  table: OwnedTable;
  column: AnyPgColumn;
}
export type MaterialColumn = keyof typeof MATERIAL_COLUMNS;

/** Gives rows another material: all that name `from`, or only those with these ids. Gives the ids of those that were changed. */
export async function renameColumn(tx: Transaction, workshopId: string, name: MaterialColumn, from: string, to: string, only?: string[]): Promise<string[]> {
  const { table, column }: NamingColumn = MATERIAL_COLUMNS[name];
  if (only?.length === 0) return [];
  const key = Object.entries(getTableColumns(table)).find(([, pgColumn]) => pgColumn === column)?.[0] ?? "";
  const rows = await tx
    .update(table)
    .set({ [key]: to })
    .where(and(eq(table.workshopId, workshopId), only ? inArray(table.id, only) : eq(column, from)))
    .returning({ id: table.id });
  return rows.map((row) => row.id);
}
