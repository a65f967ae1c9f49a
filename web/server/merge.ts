"use server";

import { and, eq, inArray, sql } from "drizzle-orm";
import type { AnyPgColumn } from "drizzle-orm/pg-core";
import { revalidatePath } from "next/cache";
import { z } from "zod";
import type { Transaction } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { colours } from "@/data/tables/colour";
import { formulaVersions } from "@/data/tables/formula";
import { merges } from "@/data/tables/merged";
import { notes } from "@/data/tables/note";
import { products } from "@/data/tables/product";
import { waxes } from "@/data/tables/shelf";
import { lots, stockCounts } from "@/data/tables/stock";
import { workshops } from "@/data/tables/workshop";
import { writeDraws } from "./draws";
import { tellPages } from "./live";
import { command, done, type Outcome, refused } from "./outcome";
import { tableOf } from "./tables";

/** The kinds of which two entries can be the same thing. */
const MERGED = ["wax", "fragrance", "dye", "additive", "wick", "vessel", "mould"] as const;

/** Where in the database a material's id stands in text that is not a column of its own. */
async function renameIn(tx: Transaction, workshopId: string, from: string, to: string, only?: { specs: string[]; blends: string[]; colours: string[] }) {
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
    .update(colours)
    .set({ recipe: sql`replace(${colours.recipe}::text, ${from}, ${to})::jsonb` })
    .where(and(eq(colours.workshopId, workshopId), sql`${colours.recipe}::text like ${`%${from}%`}`, among(colours.id, only?.colours)))
    .returning({ id: colours.id });
  const ids = (rows: { id: string }[]) => rows.map((row) => row.id);
  return { specs: ids(specs), blends: ids(blends), colours: ids(made) };
}

/** Books what batches drew of a material anew, under the name that now holds. */
async function drawAnew(tx: Transaction, workshopId: string, id: string): Promise<void> {
  const rows = await tx
    .select({ id: batches.id, facts: batches.facts })
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), eq(batches.drawsStock, true), sql`${batches.facts} -> 'drawn' ? ${id}`))
    .for("update");
  for (const row of rows) if (row.facts) await writeDraws(tx, workshopId, row.id, row.facts, null);
}

/** Makes two entries of the same thing one: lots, counts, use, formulas and products go over to the one that stays. */
export async function merge(place: unknown, input: unknown): Promise<Outcome<{ mergeId: string }>> {
  const wanted = z.object({ kind: z.enum(MERGED), goneId: z.uuid(), keptId: z.uuid(), mergeId: z.uuid() });
  return command("shelf", wanted, place, input, async ({ kind, goneId, keptId, mergeId }, { db, workshop, now }) => {
    const mine = workshop.id;
    const table = tableOf(kind);
    const outcome = await db.transaction(async (tx): Promise<Outcome<{ mergeId: string }>> => {
      await tx.select({ id: workshops.id }).from(workshops).where(eq(workshops.id, mine)).for("update");
      const [again] = await tx
        .select({ id: merges.id })
        .from(merges)
        .where(and(eq(merges.workshopId, mine), eq(merges.id, mergeId)));
      if (again) return done({ mergeId });
      if (goneId === keptId) return refused("Choose another entry: one cannot be merged with itself.");
      const both = await tx
        .select()
        .from(table)
        .where(and(eq(table.workshopId, mine), inArray(table.id, [goneId, keptId])));
      const [gone, kept] = [both.find((row) => row.id === goneId), both.find((row) => row.id === keptId)];
      if (!gone || !kept) return refused("That is not in this workshop any more.");
      if (kind === "wax" && (gone.blend !== null) !== (kept.blend !== null)) return refused("A blend and a wax as bought are not the same thing.");
      const inOne = await tx.execute(
        sql`select 1 from formula_version where workshop_id = ${mine} and spec::text like ${`%${goneId}%`} and spec::text like ${`%${keptId}%`} limit 1`,
      );
      if (inOne.rows.length > 0) return refused("A formula names both of them. Change that formula first, so that it names one.");
      const inColour = await tx.execute(
        sql`select name from colour where workshop_id = ${mine} and recipe::text like ${`%${goneId}%`} and recipe::text like ${`%${keptId}%`} limit 1`,
      );
      if (inColour.rows.length > 0) return refused("A colour recipe names both of them. Take that colour away first, or make it with one.");
      const at = <T extends { workshopId: AnyPgColumn }>(t: T, column: AnyPgColumn) => and(eq(t.workshopId, mine), eq(column, goneId));
      const moved: Record<string, string[]> = await renameIn(tx, mine, goneId, keptId);
      moved.lots = (await tx.update(lots).set({ materialId: keptId }).where(at(lots, lots.materialId)).returning({ id: lots.id })).map((row) => row.id);
      moved.counts = (
        await tx.update(stockCounts).set({ materialId: keptId }).where(at(stockCounts, stockCounts.materialId)).returning({ id: stockCounts.id })
      ).map((row) => row.id);
      moved.bodies = (await tx.update(products).set({ bodyId: keptId }).where(at(products, products.bodyId)).returning({ id: products.id })).map(
        (row) => row.id,
      );
      moved.wicks = (await tx.update(products).set({ wickId: keptId }).where(at(products, products.wickId)).returning({ id: products.id })).map(
        (row) => row.id,
      );
      moved.notes = (await tx.update(notes).set({ ofId: keptId }).where(at(notes, notes.ofId)).returning({ id: notes.id })).map((row) => row.id);
      await tx
        .update(table)
        .set({ putAway: true, version: sql`${table.version} + 1` })
        .where(and(eq(table.workshopId, mine), eq(table.id, goneId)));
      await tx.insert(merges).values({ workshopId: mine, id: mergeId, kind, goneId, keptId, at: now, moved });
      await drawAnew(tx, mine, goneId);
      await tellPages(tx, { workshop: mine });
      return done({ mergeId });
    });
    if (outcome.ok) revalidatePath("/", "layout");
    return outcome;
  });
}

/** Parts again what was merged: everything that had gone over goes back. */
export async function undoMerge(place: unknown, input: unknown): Promise<Outcome<{ id: string }>> {
  return command("shelf", z.object({ mergeId: z.uuid() }), place, input, async ({ mergeId }, { db, workshop }) => {
    const mine = workshop.id;
    const outcome = await db.transaction(async (tx): Promise<Outcome<{ id: string }>> => {
      const [merged] = await tx
        .update(merges)
        .set({ undone: true })
        .where(and(eq(merges.workshopId, mine), eq(merges.id, mergeId), eq(merges.undone, false)))
        .returning();
      if (!merged) return refused("This was parted again already.");
      const { goneId, keptId, moved } = merged;
      const table = tableOf(merged.kind as (typeof MERGED)[number]);
      const ids = (name: string) => moved[name] ?? [];
      const among = (column: AnyPgColumn, name: string) => (ids(name).length ? inArray(column, ids(name)) : sql`false`);
      await renameIn(tx, mine, keptId, goneId, { specs: ids("specs"), blends: ids("blends"), colours: ids("colours") });
      await tx
        .update(lots)
        .set({ materialId: goneId })
        .where(and(eq(lots.workshopId, mine), among(lots.id, "lots")));
      await tx
        .update(stockCounts)
        .set({ materialId: goneId })
        .where(and(eq(stockCounts.workshopId, mine), among(stockCounts.id, "counts")));
      await tx
        .update(products)
        .set({ bodyId: goneId })
        .where(and(eq(products.workshopId, mine), among(products.id, "bodies")));
      await tx
        .update(products)
        .set({ wickId: goneId })
        .where(and(eq(products.workshopId, mine), among(products.id, "wicks")));
      await tx
        .update(notes)
        .set({ ofId: goneId })
        .where(and(eq(notes.workshopId, mine), among(notes.id, "notes")));
      await drawAnew(tx, mine, goneId);
      await tx
        .update(table)
        .set({ putAway: false, version: sql`${table.version} + 1` })
        .where(and(eq(table.workshopId, mine), eq(table.id, goneId)));
      await tellPages(tx, { workshop: mine });
      return done({ id: goneId });
    });
    if (outcome.ok) revalidatePath("/", "layout");
    return outcome;
  });
}
