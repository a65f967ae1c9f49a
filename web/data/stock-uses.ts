import type { StockUse } from "@hearth/core";
import { and, eq, inArray, isNull, sql } from "drizzle-orm";
import type { Transaction } from "./client";
import { itemAliases } from "./tables/item-alias";
import { stockUses } from "./tables/stock";

/** The most merges one after another that are followed: each of them was made by hand. */
const MAX_MERGES = 8;

/** Under which name each of these is kept now, where it was merged with another, also by several merges one after another. */
export async function keptNames(tx: Transaction, workshopId: string, ids: readonly string[]): Promise<(id: string) => string> {
  const names = new Map<string, string>();
  let asked = [...ids];
  for (let step = 0; asked.length > 0 && step < MAX_MERGES; step++) {
    const rows = await tx
      .select({ gone: itemAliases.goneId, kept: itemAliases.keptId })
      .from(itemAliases)
      .where(and(eq(itemAliases.workshopId, workshopId), eq(itemAliases.deleted, false), inArray(itemAliases.goneId, asked)));
    for (const row of rows) names.set(row.gone, row.kept);
    asked = rows.map((row) => row.kept);
  }
  return (id) => {
    let name = id;
    for (let step = 0; step < MAX_MERGES && names.has(name); step++) name = names.get(name) as string;
    return name;
  };
}

/** Returns the ledger's rows of what events of a batch drew, or a lot of packs where it is null, each under the name that is kept now. */
export const stockUseRows = (workshopId: string, batchId: string | null, uses: readonly StockUse[], keptName: (id: string) => string = (id) => id) =>
  uses
    .filter((use) => use.amount > 0)
    .map(({ eventId, materialId, at, amount }) => ({ workshopId, batchId, eventId, namedId: materialId, materialId: keptName(materialId), at, amount }));

/** Writes what events of a batch drew from stock into the ledger, or a lot of packs where it is null; `whole` where these are all standing events of the batch. */
export async function writeStockUses(tx: Transaction, workshopId: string, batchId: string | null, uses: readonly StockUse[], whole: boolean): Promise<void> {
  if (whole && batchId !== null) await tx.delete(stockUses).where(and(eq(stockUses.workshopId, workshopId), eq(stockUses.batchId, batchId)));
  if (!uses.some((use) => use.amount > 0)) return;
  const rows = stockUseRows(workshopId, batchId, uses, await keptNames(tx, workshopId, [...new Set(uses.map((stockUse) => stockUse.materialId))]));
  for (let from = 0; from < rows.length; from += 1_000) await tx.insert(stockUses).values(rows.slice(from, from + 1_000));
}

/** Deletes from the ledger what a lot of packs drew, once it is unpacked. */
export const deleteDrawsOfPacks = (tx: Transaction, workshopId: string, packRunId: string) =>
  tx.delete(stockUses).where(and(eq(stockUses.workshopId, workshopId), isNull(stockUses.batchId), eq(stockUses.eventId, packRunId)));

/** Books what was drawn of a material, or of what was merged with it, anew under the name that is kept now. */
export async function renameStockUses(tx: Transaction, workshopId: string, id: string): Promise<void> {
  // All names that were merged into this one, by whatever way, and are not parted again.
  const { rows } = await tx.execute<{ id: string }>(sql`
    with recursive names as (
      select ${id}::uuid as id
      union select m.gone_id from item_alias m join names on m.kept_id = names.id where m.workshop_id = ${workshopId} and not m.deleted
    ) select id::text from names`);
  const keptName = await keptNames(tx, workshopId, [id]);
  await tx
    .update(stockUses)
    .set({ materialId: keptName(id) })
    .where(
      and(
        eq(stockUses.workshopId, workshopId),
        inArray(
          stockUses.namedId,
          rows.map((row) => row.id),
        ),
      ),
    );
}
