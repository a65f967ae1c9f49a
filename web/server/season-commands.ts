"use server";

import { randomBytes } from "node:crypto";
import { dayRecord, isoDay, planningSettings } from "@hearth/core";
import { and, eq, inArray, sql } from "drizzle-orm";
import { z } from "zod";
import { dayPlans, planning, wanted } from "@/data/tables/plan";
import { products } from "@/data/tables/product";
import { command, done, type Outcome, refused } from "./outcome";

const line = z.object({
  id: z.uuid(),
  productId: z.uuid(),
  count: z.number().int().min(1, "At least one piece.").max(100_000, "At most 100000 pieces."),
  wantedOn: isoDay().nullable(),
  note: z.string().trim().max(200, "At most 200 letters."),
  /** Of a line that stands already: what it was when it was read. */
  version: z.number().int().nullable().default(null),
});

/** Puts a line on the list of what is wanted, or changes one. */
export async function saveWanted(place: unknown, input: unknown): Promise<Outcome<{ id: string }>> {
  return command("plan", line, place, input, async ({ version, ...row }, { db, workshop }) => {
    const [product] = await db
      .select({ id: products.id })
      .from(products)
      .where(and(eq(products.workshopId, workshop.id), eq(products.id, row.productId)));
    if (!product) return refused("This product is not in this workshop any more. Choose another.", { productId: ["Choose another."] });
    const changed =
      version === null
        ? await db
            .insert(wanted)
            .values({ ...row, workshopId: workshop.id })
            .onConflictDoNothing()
            .returning({ id: wanted.id })
        : await db
            .update(wanted)
            .set({ ...row, version: version + 1 })
            .where(and(eq(wanted.workshopId, workshop.id), eq(wanted.id, row.id), eq(wanted.version, version)))
            .returning({ id: wanted.id });
    if (version !== null && changed.length === 0) return refused("Somebody else changed this line in the meantime. Look at it again, then save.");
    return done({ id: row.id });
  });
}

/** Takes lines off the list, or puts them back. */
export async function takeOff(place: unknown, input: unknown): Promise<Outcome<{ lines: number }>> {
  return command("plan", z.object({ ids: z.array(z.uuid()).min(1).max(2_000), gone: z.boolean() }), place, input, async ({ ids, gone }, { db, workshop }) => {
    const rows = await db
      .update(wanted)
      .set({ gone, version: sql`${wanted.version} + 1` })
      .where(and(eq(wanted.workshopId, workshop.id), inArray(wanted.id, ids)))
      .returning({ id: wanted.id });
    return done({ lines: rows.length });
  });
}

const poured = z.object({
  lines: z
    .array(z.object({ id: z.uuid(), count: z.number().int().min(-100_000).max(100_000) }))
    .min(1)
    .max(500),
});

/** Counts pieces as poured, so that they are not planned any more; a negative count takes that back. */
export async function countPoured(place: unknown, input: unknown): Promise<Outcome<{ lines: number }>> {
  return command("plan", poured, place, input, async ({ lines }, { db, workshop }) => {
    await db.transaction(async (tx) => {
      for (const one of lines)
        await tx
          .update(wanted)
          .set({ made: sql`greatest(0, ${wanted.made} + ${one.count})`, version: sql`${wanted.version} + 1` })
          .where(and(eq(wanted.workshopId, workshop.id), eq(wanted.id, one.id)));
    });
    return done({ lines: lines.length });
  });
}

/** Sets what the workshop plans with. */
export async function savePlanning(place: unknown, input: unknown): Promise<Outcome<{ version: number }>> {
  return command("plan", z.object({ settings: planningSettings, version: z.number().int() }), place, input, async ({ settings, version }, { db, workshop }) => {
    const rows =
      version === 0
        ? await db.insert(planning).values({ workshopId: workshop.id, settings }).onConflictDoNothing().returning({ version: planning.version })
        : await db
            .update(planning)
            .set({ settings, version: version + 1 })
            .where(and(eq(planning.workshopId, workshop.id), eq(planning.version, version)))
            .returning({ version: planning.version });
    if (!rows[0]) return refused("Somebody else changed this in the meantime. Load the page again, then save.");
    return done({ version: rows[0].version });
  });
}

/** Gives the calendar an address that nobody can guess; a new one makes the old one open nothing any more. */
export async function renewCalendar(place: unknown, input: unknown): Promise<Outcome<{ key: string }>> {
  return command("plan", z.object({}), place, input, async (_none, { db, workshop }) => {
    const key = randomBytes(24).toString("base64url");
    await db
      .insert(planning)
      .values({ workshopId: workshop.id, settings: planningSettings.parse({}), calendarKey: key })
      .onConflictDoUpdate({ target: planning.workshopId, set: { calendarKey: key } });
    return done({ key });
  });
}

/** Keeps a day at the pots as it was left. */
export async function saveDay(place: unknown, input: unknown): Promise<Outcome<{ version: number }>> {
  return command(
    "plan",
    z.object({ on: isoDay(), data: dayRecord, version: z.number().int().min(0) }),
    place,
    input,
    async ({ on, data, version }, { db, workshop }) => {
      const rows =
        version === 0
          ? await db.insert(dayPlans).values({ workshopId: workshop.id, on, data }).onConflictDoNothing().returning({ version: dayPlans.version })
          : await db
              .update(dayPlans)
              .set({ data, version: version + 1 })
              .where(and(eq(dayPlans.workshopId, workshop.id), eq(dayPlans.on, on), eq(dayPlans.version, version)))
              .returning({ version: dayPlans.version });
      if (!rows[0]) return refused("Somebody else changed this day in the meantime. Load the page again to go on from there.");
      return done({ version: rows[0].version });
    },
  );
}
