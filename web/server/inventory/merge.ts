"use server";

import { ok, type Result, reject } from "@hearth/core";
import { and, eq, inArray, sql } from "drizzle-orm";
import type { AnyPgColumn } from "drizzle-orm/pg-core";
import { v7 } from "uuid";
import { z } from "zod";
import type { Transaction } from "@/data/client";
import { renameStockUses } from "@/data/stock-uses";
import { colors } from "@/data/tables/color";
import { formulaVersions } from "@/data/tables/formula";
import { itemAliases } from "@/data/tables/item-alias";
import { oilTests } from "@/data/tables/oil-test";
import { waxes } from "@/data/tables/shelf";
import { stockCounts } from "@/data/tables/stock";
import { command } from "@/server/http/command";
import type { CommandContext } from "@/server/http/context";
import { lockWorkshop } from "@/server/workshops/workshops";
import { MATERIAL_COLUMNS, type MaterialColumn, renameColumn } from "./material-columns";
import { readStocks } from "./shelf";
import { tableOf } from "./tables";

/** The kinds of which two entries can be the same thing. */
const MERGED = ["wax", "fragrance", "dye", "additive", "wick", "vessel", "mold"] as const;

/** Returns where in the database a material's id stands in text that is not a column of its own. */
async function renameIn(
  tx: Transaction,
  workshopId: string,
  from: string,
  to: string,
  only?: { specs: string[]; blends: string[]; colors: string[]; oilTests: string[] },
) {
  const among = (column: AnyPgColumn, ids: string[] | undefined) =>
    ids ? inArray(column, ids.length ? ids : ["00000000-0000-0000-0000-000000000000"]) : undefined;
  const specs = await tx
    .update(formulaVersions)
    .set({ spec: sql`replace(${formulaVersions.spec}::text, ${from}, ${to})::jsonb` })
    .where(and(eq(formulaVersions.workshopId, workshopId), sql`${formulaVersions.spec}::text like ${`%${from}%`}`, among(formulaVersions.id, only?.specs)))
    .returning({ id: formulaVersions.id });
  const blends = await tx
    .update(waxes)
    .set({ blend: sql`replace(${waxes.blend}::text, ${from}, ${to})::jsonb` })
    .where(and(eq(waxes.workshopId, workshopId), sql`${waxes.blend}::text like ${`%${from}%`}`, among(waxes.id, only?.blends)))
    .returning({ id: waxes.id });
  const made = await tx
    .update(colors)
    .set({ recipe: sql`replace(${colors.recipe}::text, ${from}, ${to})::jsonb` })
    .where(and(eq(colors.workshopId, workshopId), sql`${colors.recipe}::text like ${`%${from}%`}`, among(colors.id, only?.colors)))
    .returning({ id: colors.id });
  const tested = await tx
    .update(oilTests)
    .set({ parts: sql`replace(${oilTests.parts}::text, ${from}, ${to})::jsonb` })
    .where(and(eq(oilTests.workshopId, workshopId), sql`${oilTests.parts}::text like ${`%${from}%`}`, among(oilTests.id, only?.oilTests)))
    .returning({ id: oilTests.id });
  const ids = (rows: { id: string }[]) => rows.map((row) => row.id);
  return { specs: ids(specs), blends: ids(blends), colors: ids(made), oilTests: ids(tested) };
}

/**
 * Returns where one of the two was ever counted, counts both together at this moment: a count of one says nothing of the other. Gives the ids of the counts
 * that were written.
 */
async function countTogether(tx: Transaction, context: CommandContext, goneId: string, keptId: string): Promise<string[]> {
  const { workshop, now, person } = context;
  const counted = await tx
    .select({ id: stockCounts.id })
    .from(stockCounts)
    .where(and(eq(stockCounts.workshopId, workshop.id), eq(stockCounts.withdrawn, false), inArray(stockCounts.materialId, [goneId, keptId])))
    .limit(1);
  if (counted.length === 0) return [];
  const stocks = await readStocks(tx, workshop.id, workshop.timeZone, [goneId, keptId]);
  const amount = Math.max(0, (stocks[goneId]?.onHand ?? 0) + (stocks[keptId]?.onHand ?? 0));
  const id = v7();
  await tx.insert(stockCounts).values({ workshopId: workshop.id, id, materialId: keptId, at: now, amount, personId: person?.id ?? null });
  return [id];
}

/** Makes two entries of the same thing one: lots, counts, use, formulas and products go over to the one that stays. */
export async function merge(workshopRef: unknown, input: unknown): Promise<Result<{ mergeId: string }>> {
  const wanted = z.object({ kind: z.enum(MERGED), goneId: z.uuid(), keptId: z.uuid(), mergeId: z.uuid() });
  return command("shelf", wanted, workshopRef, input, async ({ kind, goneId, keptId, mergeId }, context) => {
    const { db, workshop, now } = context;
    const workshopId = workshop.id;
    const table = tableOf(kind);
    await lockWorkshop(db, workshopId);
    const [existing] = await db
      .select({ id: itemAliases.id })
      .from(itemAliases)
      .where(and(eq(itemAliases.workshopId, workshopId), eq(itemAliases.id, mergeId)));
    if (existing) return ok({ mergeId });
    if (goneId === keptId) return reject("Choose another entry: one cannot be merged with itself.");
    const both = await db
      .select()
      .from(table)
      .where(and(eq(table.workshopId, workshopId), inArray(table.id, [goneId, keptId])));
    const [gone, kept] = [both.find((row) => row.id === goneId), both.find((row) => row.id === keptId)];
    if (!gone || !kept) return reject("That is no longer in this workshop.");
    if (kind === "wax" && (gone.blend !== null) !== (kept.blend !== null)) return reject("A blend and a wax as bought are not the same thing.");
    const inOne = await db.execute(
      sql`select 1 from formula_version where workshop_id = ${workshopId} and spec::text like ${`%${goneId}%`} and spec::text like ${`%${keptId}%`} limit 1`,
    );
    if (inOne.rows.length > 0) return reject("A formula names both of them. Change that formula first, so that it names one.");
    const inColor = await db.execute(
      sql`select name from color where workshop_id = ${workshopId} and recipe::text like ${`%${goneId}%`} and recipe::text like ${`%${keptId}%`} limit 1`,
    );
    if (inColor.rows.length > 0) return reject("A color recipe names both of them. Take that color away first, or make it with one.");
    const moved: Record<string, string[]> = await renameIn(db, workshopId, goneId, keptId);
    moved.together = await countTogether(db, context, goneId, keptId);
    for (const name of Object.keys(MATERIAL_COLUMNS) as MaterialColumn[]) moved[name] = await renameColumn(db, workshopId, name, goneId, keptId);
    await db
      .update(table)
      .set({ archived: true, version: sql`${table.version} + 1` })
      .where(and(eq(table.workshopId, workshopId), eq(table.id, goneId)));
    await db.insert(itemAliases).values({ workshopId, id: mergeId, kind, goneId, keptId, at: now, moved });
    await renameStockUses(db, workshopId, goneId);
    return ok({ mergeId });
  });
}

/** Parts again what was merged: everything that had gone over goes back. */
export async function undoMerge(workshopRef: unknown, input: unknown): Promise<Result<{ id: string }>> {
  return command("shelf", z.object({ mergeId: z.uuid() }), workshopRef, input, async ({ mergeId }, { db, workshop }) => {
    const workshopId = workshop.id;
    const [merged] = await db
      .update(itemAliases)
      .set({ deleted: true })
      .where(and(eq(itemAliases.workshopId, workshopId), eq(itemAliases.id, mergeId), eq(itemAliases.deleted, false)))
      .returning();
    if (!merged) return reject("This was parted again already.");
    const { goneId, keptId, moved } = merged;
    const table = tableOf(merged.kind as (typeof MERGED)[number]);
    const ids = (name: string) => moved[name] ?? [];
    await renameIn(db, workshopId, keptId, goneId, { specs: ids("specs"), blends: ids("blends"), colors: ids("colors"), oilTests: ids("oilTests") });
    for (const name of Object.keys(MATERIAL_COLUMNS) as MaterialColumn[]) await renameColumn(db, workshopId, name, keptId, goneId, ids(name));
    if (ids("together").length > 0)
      await db
        .update(stockCounts)
        .set({ withdrawn: true })
        .where(and(eq(stockCounts.workshopId, workshopId), inArray(stockCounts.id, ids("together"))));
    await renameStockUses(db, workshopId, goneId);
    await db
      .update(table)
      .set({ archived: false, version: sql`${table.version} + 1` })
      .where(and(eq(table.workshopId, workshopId), eq(table.id, goneId)));
    return ok({ id: goneId });
  });
}
