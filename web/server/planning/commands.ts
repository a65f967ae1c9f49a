"use server";

import { randomBytes } from "node:crypto";
import { dayRecord, isoDay, ok, planningSettings, type Result, reject } from "@hearth/core";
import { and, eq, inArray, sql } from "drizzle-orm";
import { z } from "zod";
import { dayPlans, demandLines, planningSettingRows } from "@/data/tables/plan";
import { products } from "@/data/tables/product";
import { command } from "@/server/http/command";

const line = z.object({
  id: z.uuid(),
  productId: z.uuid(),
  count: z.number().int().min(1, "At least one candle.").max(100_000, "At most 100000 pieces."),
  wantedOn: isoDay().nullable(),
  note: z.string().trim().max(200, "At most 200 letters."),
  /** Of a line that stands already: what it was when it was read. */
  version: z.number().int().nullable().default(null),
});

/** Puts a line on the list of what is wanted, or changes one. */
export async function saveDemand(workshopRef: unknown, input: unknown): Promise<Result<{ id: string }>> {
  return command("plan", line, workshopRef, input, async ({ version, ...row }, { db, workshop }) => {
    const [product] = await db
      .select({ id: products.id })
      .from(products)
      .where(and(eq(products.workshopId, workshop.id), eq(products.id, row.productId)));
    if (!product) return reject("This product is no longer in this workshop. Choose another.", { productId: ["Choose another."] });
    const changed =
      version === null
        ? await db
            .insert(demandLines)
            .values({ ...row, workshopId: workshop.id })
            .onConflictDoNothing()
            .returning({ id: demandLines.id })
        : await db
            .update(demandLines)
            .set({ ...row, version: version + 1 })
            .where(and(eq(demandLines.workshopId, workshop.id), eq(demandLines.id, row.id), eq(demandLines.version, version)))
            .returning({ id: demandLines.id });
    if (version !== null && changed.length === 0) return reject("Somebody else changed this line. Check it, then save.");
    return ok({ id: row.id });
  });
}

/** Takes lines off the list, or puts them back. */
export async function takeOff(workshopRef: unknown, input: unknown): Promise<Result<{ lines: number }>> {
  return command(
    "plan",
    z.object({ ids: z.array(z.uuid()).min(1).max(2_000), gone: z.boolean() }),
    workshopRef,
    input,
    async ({ ids, gone }, { db, workshop }) => {
      const rows = await db
        .update(demandLines)
        .set({ deleted: gone, version: sql`${demandLines.version} + 1` })
        .where(and(eq(demandLines.workshopId, workshop.id), inArray(demandLines.id, ids)))
        .returning({ id: demandLines.id });
      return ok({ lines: rows.length });
    },
  );
}

const poured = z.object({
  lines: z
    .array(z.object({ id: z.uuid(), count: z.number().int().min(-100_000).max(100_000) }))
    .min(1)
    .max(500),
});

/** Counts pieces as poured, so that they are not planned any more; a negative count takes that back. */
export async function countPoured(workshopRef: unknown, input: unknown): Promise<Result<{ lines: number }>> {
  return command("plan", poured, workshopRef, input, async ({ lines }, { db, workshop }) => {
    for (const line of lines)
      await db
        .update(demandLines)
        .set({ made: sql`greatest(0, ${demandLines.made} + ${line.count})`, version: sql`${demandLines.version} + 1` })
        .where(and(eq(demandLines.workshopId, workshop.id), eq(demandLines.id, line.id)));
    return ok({ lines: lines.length });
  });
}

/** Sets what the workshop plans with. */
export async function savePlanning(workshopRef: unknown, input: unknown): Promise<Result<{ version: number }>> {
  return command(
    "plan",
    z.object({ settings: planningSettings, version: z.number().int() }),
    workshopRef,
    input,
    async ({ settings, version }, { db, workshop }) => {
      const rows =
        version === 0
          ? await db
              .insert(planningSettingRows)
              .values({ workshopId: workshop.id, settings })
              .onConflictDoNothing()
              .returning({ version: planningSettingRows.version })
          : await db
              .update(planningSettingRows)
              .set({ settings, version: version + 1 })
              .where(and(eq(planningSettingRows.workshopId, workshop.id), eq(planningSettingRows.version, version)))
              .returning({ version: planningSettingRows.version });
      if (!rows[0]) return reject("Somebody else changed this. Reload the page, then save.");
      return ok({ version: rows[0].version });
    },
  );
}

/** Gives the calendar an address that nobody can guess; a new one makes the old one open nothing any more. */
export async function renewCalendar(workshopRef: unknown, input: unknown): Promise<Result<{ key: string }>> {
  return command("plan", z.object({}), workshopRef, input, async (_none, { db, workshop }) => {
    const key = randomBytes(24).toString("base64url");
    await db
      .insert(planningSettingRows)
      .values({ workshopId: workshop.id, settings: planningSettings.parse({}), calendarKey: key })
      .onConflictDoUpdate({ target: planningSettingRows.workshopId, set: { calendarKey: key } });
    return ok({ key });
  });
}

/** Keeps a day at the pots as it was left. */
export async function saveDay(workshopRef: unknown, input: unknown): Promise<Result<{ version: number }>> {
  return command(
    "plan",
    z.object({ on: isoDay(), data: dayRecord, version: z.number().int().min(0) }),
    workshopRef,
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
      if (!rows[0]) return reject("Somebody else changed this day. Reload the page to continue.");
      return ok({ version: rows[0].version });
    },
  );
}
