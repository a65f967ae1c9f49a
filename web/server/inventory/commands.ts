"use server";

import { dayAt, isCounted, isoDay, LARGEST_MASS_MG, ok, type Result, reject, SHEET_KINDS, STOCKED, supplierSheet } from "@hearth/core";
import { and, eq, ne, sql } from "drizzle-orm";
import { z } from "zod";
import { supplierSheets } from "@/data/tables/label";
import { wicks } from "@/data/tables/shelf";
import { lots, stockCounts } from "@/data/tables/stock";
import { command } from "@/server/http/command";
import type { Context } from "@/server/http/context";
import { tableOf } from "./tables";
import { type SheetTally, takeSheetRows } from "./take-sheet";

const material = { kind: z.enum(STOCKED), materialId: z.uuid() };
const received = z.object({
  ...material,
  /** Made where it was typed: sending it twice receives it once. */
  id: z.uuid(),
  expectedVersion: z.number().int().nullable(),
  code: z.string().trim().max(80, "A lot code has at most 80 letters."),
  amount: z.number().int().min(1, "A lot holds something.").max(LARGEST_MASS_MG),
  cost: z.number().int().min(0).max(1e12).nullable(),
  listCost: z.number().int().min(0).max(1e12).nullable().default(null),
  receivedOn: isoDay(),
  receivedAt: z.iso.datetime().nullable().default(null),
  withdrawn: z.boolean().default(false),
});

const isThere = async ({ db, workshop }: Context, kind: (typeof STOCKED)[number], id: string): Promise<boolean> => {
  const table = tableOf(kind);
  const rows = await db
    .select({ id: table.id })
    .from(table)
    .where(and(eq(table.workshopId, workshop.id), eq(table.id, id)));
  return rows.length > 0;
};

/** Writes down a received lot, changes one, or takes one back (and puts it back again). */
export async function saveLot(workshopRef: unknown, input: unknown): Promise<Result<{ id: string }>> {
  return command("shelf", received, workshopRef, input, async ({ expectedVersion, ...given }, context) => {
    const { db, workshop, now } = context;
    const today = dayAt(now, workshop.timeZone);
    // The moment of what came today is now; of another day only the day is known, unless a time was given.
    const receivedAt = given.receivedAt ?? (given.receivedOn === today && expectedVersion === null ? now : null);
    const { receivedAt: _given, ...rest } = given;
    const lot = expectedVersion === null || given.receivedAt ? { ...rest, receivedAt } : rest;
    if (lot.receivedOn > today) return reject("That day is still to come.", { receivedOn: ["That day is still to come."] });
    if (!(await isThere(context, lot.kind, lot.materialId))) return reject("That is not on this shelf.");
    if (expectedVersion === null) {
      await db
        .insert(lots)
        .values({ ...lot, workshopId: workshop.id })
        .onConflictDoNothing();
    } else {
      const changed = await db
        .update(lots)
        .set({ ...lot, version: expectedVersion + 1 })
        .where(and(eq(lots.workshopId, workshop.id), eq(lots.id, lot.id), eq(lots.version, expectedVersion)))
        .returning({ id: lots.id });
      if (changed.length === 0) return reject("Somebody else changed this lot. Your typing is kept: check it, then save.");
    }
    return ok({ id: lot.id });
  });
}

const named = z.object({ series: z.array(z.object({ id: z.uuid(), series: z.string().trim().max(120, "A series has at most 120 letters.") })).max(500) });

/** Names the series of several wicks in one go; an empty one stands for all wicks of its kind. */
export async function saveSeries(workshopRef: unknown, input: unknown): Promise<Result<{ changed: number }>> {
  return command("shelf", named, workshopRef, input, async ({ series }, { db, workshop }) => {
    let changed = 0;
    for (const item of series) {
      const rows = await db
        .update(wicks)
        .set({ series: item.series, version: sql`${wicks.version} + 1` })
        .where(and(eq(wicks.workshopId, workshop.id), eq(wicks.id, item.id), ne(wicks.series, item.series)))
        .returning({ id: wicks.id });
      changed += rows.length;
    }
    return ok({ changed });
  });
}

const counted = z.object({
  ...material,
  id: z.uuid(),
  amount: z.number().int().min(0, "There cannot be less than nothing.").max(LARGEST_MASS_MG),
  withdrawn: z.boolean().default(false),
});

/** Sets the stock of a material to what was counted, now; or takes a count back. */
export async function saveCount(workshopRef: unknown, input: unknown): Promise<Result<{ id: string }>> {
  return command("shelf", counted, workshopRef, input, async ({ kind, ...count }, context) => {
    const { db, workshop, person, now } = context;
    if (!(await isThere(context, kind, count.materialId))) return reject("That is not on this shelf.");
    if (isCounted(kind) && count.amount > 10_000_000) return reject("That is too many.", { amount: ["Too many."] });
    await db
      .insert(stockCounts)
      .values({ ...count, workshopId: workshop.id, at: now, personId: person?.id ?? null })
      .onConflictDoUpdate({ target: [stockCounts.workshopId, stockCounts.id], set: { withdrawn: count.withdrawn } });
    return ok({ id: count.id });
  });
}

const cells = z.array(z.string().max(4_000)).max(100);
const sheet = z.object({
  kind: z.enum(SHEET_KINDS),
  sheet: z.object({ heads: cells, rows: z.array(cells).max(2_000, "At most 2000 rows at once."), decimalComma: z.boolean() }),
  mapping: z.record(z.string(), z.number().int().min(0).max(99).nullable()),
  /** What the preview showed; anything else now is refused. */
  shown: z.object({ new: z.number().int(), changed: z.number().int(), same: z.number().int() }),
});

/** Takes the rows of a file onto the shelf: all of them, or none where one is refused or the shelf has changed since the preview. */
export async function takeSheet(workshopRef: unknown, input: unknown): Promise<Result<SheetTally>> {
  return command("shelf", sheet, workshopRef, input, async ({ shown, ...file }, { db, workshop }) => takeSheetRows(db, workshop, file, shown));
}

const supplied = z.object({ id: z.uuid(), kind: z.enum(["wax", "fragrance", "dye", "additive"]), materialId: z.uuid(), sheet: supplierSheet });

/** Keeps what a supplier's sheet says of a material; earlier sheets stay. */
export async function putSupplierSheet(workshopRef: unknown, input: unknown): Promise<Result<{ id: string }>> {
  return command("shelf", supplied, workshopRef, input, async ({ id, kind, materialId, sheet }, context) => {
    const { db, workshop, person, now } = context;
    if (!(await isThere(context, kind, materialId))) return reject("That is not on this shelf.");
    if (sheet.on > dayAt(now, workshop.timeZone)) return reject("That day is still to come.", { "sheet.on": ["That day is still to come."] });
    await db
      .insert(supplierSheets)
      .values({ workshopId: workshop.id, id, materialId, on: sheet.on, sheet, at: now, personId: person?.id ?? null })
      .onConflictDoNothing();
    return ok({ id });
  });
}

/** Deletes a safety data sheet, or restores it. */
export async function takeSupplierSheet(workshopRef: unknown, input: unknown): Promise<Result<{ id: string }>> {
  return command("shelf", z.object({ id: z.uuid(), gone: z.boolean() }), workshopRef, input, async ({ id, gone }, { db, workshop }) => {
    await db
      .update(supplierSheets)
      .set({ deleted: gone })
      .where(and(eq(supplierSheets.workshopId, workshop.id), eq(supplierSheets.id, id)));
    return ok({ id });
  });
}
