"use server";

import { isCounted, LARGEST_MASS_MG, readSheet, SHELF_FIELDS, SHELF_KINDS, STOCKED, shelfFaults, shelfValues } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { DateTime } from "luxon";
import { revalidatePath } from "next/cache";
import { v7 } from "uuid";
import { z } from "zod";
import { waxes } from "@/data/tables/shelf";
import { lots, stockCounts } from "@/data/tables/stock";
import { people, workshops } from "@/data/tables/workshop";
import type { Context } from "@/server/context";
import { command, done, type Outcome, refused } from "@/server/outcome";
import { tableOf } from "@/server/tables";

const saved = z.object({
  kind: z.enum(SHELF_KINDS, { error: "That does not go on the shelf." }),
  id: z.uuid().nullable(),
  expectedVersion: z.number().int().nullable(),
  values: z.record(z.string(), z.unknown()),
});

/** Puts a thing on the shelf, or changes one. A stale change is refused with what it is now. */
export async function saveOnShelf(place: unknown, input: unknown): Promise<Outcome<{ id: string }>> {
  return command(saved, place, input, async (wanted, { db, workshop }) => {
    const parsed = shelfValues(wanted.kind).safeParse(wanted.values);
    if (!parsed.success) {
      const fields: Record<string, string[]> = {};
      for (const issue of parsed.error.issues) {
        const path = `values.${String(issue.path[0])}`;
        fields[path] = [...(fields[path] ?? []), issue.message];
      }
      return refused(parsed.error.issues[0]?.message ?? "Something here cannot be read.", fields);
    }
    const faults = Object.entries(shelfFaults(wanted.kind, parsed.data));
    if (faults[0]) return refused(faults[0][1], Object.fromEntries(faults.map(([key, message]) => [`values.${key}`, [message]])));
    const id = wanted.id ?? v7();
    if (wanted.kind === "person") {
      const values = parsed.data as { name: string };
      await db
        .insert(people)
        .values({ workshopId: workshop.id, id, ...values })
        .onConflictDoUpdate({ target: [people.workshopId, people.id], set: values });
    } else {
      // One statement serves them all: they share key and version, and the schema above has matched kind and values.
      const table = tableOf(wanted.kind);
      const values = parsed.data as typeof table.$inferInsert;
      if (wanted.kind === "wax" && Array.isArray(parsed.data.blend)) {
        const parts = parsed.data.blend as { id: string }[];
        const known = await db.select({ id: table.id, blend: table.blend }).from(table).where(eq(table.workshopId, workshop.id));
        const bad = parts.some((part) => part.id === id || !known.some((one) => one.id === part.id && one.blend === null));
        if (bad) return refused("A blend is made of waxes as bought that stand on this shelf.", { "values.blend": ["Name waxes as bought, from this shelf."] });
      }
      if (wanted.id === null) await db.insert(table).values({ ...values, workshopId: workshop.id, id });
      else {
        const expected = wanted.expectedVersion ?? 0;
        const changed = await db
          .update(table)
          .set({ ...values, version: expected + 1 })
          .where(and(eq(table.workshopId, workshop.id), eq(table.id, id), eq(table.version, expected)))
          .returning({ id: table.id });
        if (changed.length === 0)
          return refused("Somebody else changed this in the meantime. Your typing is kept: look at the newer entry in another window, then save again.");
      }
    }
    revalidatePath("/", "layout");
    return done({ id });
  });
}

const material = { kind: z.enum(STOCKED), materialId: z.uuid() };
const received = z.object({
  ...material,
  /** Made where it was typed: sending it twice receives it once. */
  id: z.uuid(),
  expectedVersion: z.number().int().nullable(),
  code: z.string().trim().max(80, "A lot code has at most 80 letters."),
  amount: z.number().int().min(1, "A lot holds something.").max(LARGEST_MASS_MG),
  cost: z.number().int().min(0).max(1e12).nullable(),
  receivedOn: z.iso.date("Give the day, like 2026-03-14."),
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
export async function saveLot(place: unknown, input: unknown): Promise<Outcome<{ id: string }>> {
  return command(received, place, input, async ({ expectedVersion, ...given }, context) => {
    const { db, workshop, now } = context;
    const today = DateTime.fromISO(now, { zone: workshop.timeZone }).toISODate() ?? "";
    // The moment of what came today is now; of another day only the day is known, unless a time was given.
    const receivedAt = given.receivedAt ?? (given.receivedOn === today && expectedVersion === null ? now : null);
    const { receivedAt: _given, ...rest } = given;
    const lot = expectedVersion === null || given.receivedAt ? { ...rest, receivedAt } : rest;
    if (lot.receivedOn > today) return refused("That day is still to come.", { receivedOn: ["That day is still to come."] });
    if (!(await isThere(context, lot.kind, lot.materialId))) return refused("That is not on this shelf.");
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
      if (changed.length === 0) return refused("Somebody else changed this lot in the meantime. Your typing is kept: look at it again, then save.");
    }
    revalidatePath("/", "layout");
    return done({ id: lot.id });
  });
}

const counted = z.object({
  ...material,
  id: z.uuid(),
  amount: z.number().int().min(0, "There cannot be less than nothing.").max(LARGEST_MASS_MG),
  withdrawn: z.boolean().default(false),
});

/** Sets the stock of a material to what was counted, now; or takes a count back. */
export async function saveCount(place: unknown, input: unknown): Promise<Outcome<{ id: string }>> {
  return command(counted, place, input, async ({ kind, ...count }, context) => {
    const { db, workshop, person, now } = context;
    if (!(await isThere(context, kind, count.materialId))) return refused("That is not on this shelf.");
    if (isCounted(kind) && count.amount > 10_000_000) return refused("That is more pieces than can be kept here.", { amount: ["Too many."] });
    await db
      .insert(stockCounts)
      .values({ ...count, workshopId: workshop.id, at: now, personId: person?.id ?? null })
      .onConflictDoUpdate({ target: [stockCounts.workshopId, stockCounts.id], set: { withdrawn: count.withdrawn } });
    revalidatePath("/", "layout");
    return done({ id: count.id });
  });
}

const cells = z.array(z.string().max(4_000)).max(100);
const sheet = z.object({
  kind: z.enum(["wax", "fragrance", "dye", "additive", "wick", "vessel", "mould", "instrument"]),
  sheet: z.object({ heads: cells, rows: z.array(cells).max(2_000, "At most 2000 rows at once."), decimalComma: z.boolean() }),
  mapping: z.record(z.string(), z.number().int().min(0).max(99).nullable()),
  /** What the preview showed; anything else now is refused. */
  shown: z.object({ new: z.number().int(), changed: z.number().int(), same: z.number().int() }),
});

/** Takes the rows of a file onto the shelf: all of them, or none where one is refused or the shelf has changed since the preview. */
export async function takeSheet(place: unknown, input: unknown): Promise<Outcome<{ new: number; changed: number; same: number }>> {
  return command(sheet, place, input, async (wanted, { db, workshop }) => {
    const mine = workshop.id;
    const table = tableOf(wanted.kind);
    const outcome = await db.transaction(async (tx): Promise<Outcome<{ new: number; changed: number; same: number }>> => {
      await tx.select({ id: workshops.id }).from(workshops).where(eq(workshops.id, mine)).for("update");
      const kept = await tx.select().from(table).where(eq(table.workshopId, mine)).for("update");
      const known = wanted.kind === "wax" ? kept : await tx.select().from(waxes).where(eq(waxes.workshopId, mine));
      const rows = readSheet(wanted.kind, wanted.sheet, wanted.mapping, kept, { waxes: known });
      const refusedRow = rows.find((row) => row.fate.is === "refused");
      if (refusedRow?.fate.is === "refused") return refused(`Row ${refusedRow.line} cannot be taken: ${refusedRow.fate.why.join(" ")} Nothing was taken in.`);
      const tally = { new: 0, changed: 0, same: 0 };
      for (const row of rows) if (row.fate.is !== "refused") tally[row.fate.is] += 1;
      if (tally.new !== wanted.shown.new || tally.changed !== wanted.shown.changed || tally.same !== wanted.shown.same)
        return refused("The shelf has changed since this preview. Nothing was taken in: look at the preview again.");
      for (const row of rows) {
        const values = Object.fromEntries(SHELF_FIELDS[wanted.kind].map((field) => [field.key, row.values[field.key]])) as typeof table.$inferInsert;
        if (row.fate.is === "new") await tx.insert(table).values({ ...values, workshopId: mine, id: v7() });
        else if (row.fate.is === "changed" && row.id)
          await tx
            .update(table)
            .set({ ...values, version: (kept.find((one) => one.id === row.id)?.version ?? 1) + 1 })
            .where(and(eq(table.workshopId, mine), eq(table.id, row.id)));
      }
      return done(tally);
    });
    if (outcome.ok) revalidatePath("/", "layout");
    return outcome;
  });
}
