"use server";

import { isoDay, isResold, labelSheet, ok, packaging, packagingDraw, packContents, type Result, reject } from "@hearth/core";
import { and, eq, sql } from "drizzle-orm";
import { z } from "zod";
import { labelling, labelSheets } from "@/data/tables/label";
import { demandLines } from "@/data/tables/plan";
import { sets } from "@/data/tables/sales";
import { orderStore } from "@/server/events/order-store";
import { command } from "@/server/http/command";
import { readProduct } from "@/server/products/products";
import { readSet } from "./finished-goods";
import { labelSettings } from "./label-settings";
import { beginOrderIn, orderWanted, outWanted, takeOutIn } from "./orders";
import { costsNow, packIn, unpackIn } from "./packing";

/** Takes an order, or puts a market day into the calendar. */
export async function beginOrder(workshopRef: unknown, input: unknown): Promise<Result<{ id: string; number: number }>> {
  return command("sell", orderWanted, workshopRef, input, (asked, context) => beginOrderIn(context.db, context, asked));
}

/** Takes packs out with an order or to a market; what is short is packed there and then. */
export async function takeOut(workshopRef: unknown, input: unknown): Promise<Result<{ packed: number }>> {
  return command("sell", outWanted, workshopRef, input, async (asked, context) => {
    const costs = await costsNow(
      context,
      asked.lines.map((line) => line.sellableId),
    );
    return takeOutIn(context.db, context, asked, costs);
  });
}

/** Erases a customer from an order for good: name, contact and notes. What was ordered, shipped and sold stays. */
export async function eraseCustomer(workshopRef: unknown, input: unknown): Promise<Result<{ name: string }>> {
  return command("sell", z.object({ orderId: z.uuid() }), workshopRef, input, async ({ orderId }, { db, workshop, notify }) => {
    const row = await orderStore.readRow(db, workshop.id, orderId, true);
    if (!row) return reject("This order is no longer in this workshop.");
    if (row.what === "market") return reject("A market day has no customer.");
    const name = "customer erased";
    await db.execute(sql`select erase_customer(${workshop.id}, ${orderId}, ${name})`);
    await db
      .update(demandLines)
      .set({ note: `order ${row.number}` })
      .where(and(eq(demandLines.workshopId, workshop.id), eq(demandLines.orderId, orderId)));
    notify({ order: orderId });
    return ok({ name });
  });
}

const packWanted = z.object({
  packRunId: z.uuid(),
  sellableId: z.uuid({ error: "Choose what is packed." }),
  packs: z.number().int().min(1, "At least one pack.").max(10_000),
  weightsMg: z.array(z.number().int().min(1).max(100_000_000)).max(1_000).default([]),
  statedMg: z.number().int().min(1).nullable().default(null),
});

/** Packs released jars, the oldest batch first. */
export async function pack(workshopRef: unknown, input: unknown): Promise<Result<{ id: string }>> {
  return command("sell", packWanted, workshopRef, input, async (asked, context) => {
    const costs = await costsNow(context, [asked.sellableId]);
    return packIn(context.db, context, asked, costs);
  });
}

/** Unpacks packs: their pieces are on the rack again. */
export async function unpack(workshopRef: unknown, input: unknown): Promise<Result<{ id: string }>> {
  return command("sell", z.object({ packRunId: z.uuid() }), workshopRef, input, ({ packRunId }, context) => unpackIn(context.db, context, packRunId));
}

const setValues = z.object({
  id: z.uuid(),
  expectedVersion: z.number().int().nullable(),
  name: z.string().trim().min(1, "Enter a name for the set.").max(120),
  contents: packContents,
  packaging,
  price: z.number().int().min(0).max(1e12).nullable(),
  remarks: z.string().max(2_000).default(""),
  archived: z.boolean().default(false),
});

/** Keeps a set of several products. */
export async function saveSet(workshopRef: unknown, input: unknown): Promise<Result<{ id: string; version: number }>> {
  return command("sell", setValues, workshopRef, input, async ({ id, expectedVersion, ...values }, { db, workshop }) => {
    if (isResold(values) && packagingDraw(values.packaging, 1).length === 0)
      return reject("Put at least one product in, or choose what you resell among the parts of the pack.", { contents: ["Put at least one product in."] });
    const there = await readSet(db, workshop.id, id);
    if (expectedVersion === null) {
      if (!there) await db.insert(sets).values({ ...values, id, workshopId: workshop.id });
      return ok({ id, version: there?.version ?? 1 });
    }
    const [row] = await db
      .update(sets)
      .set({ ...values, version: expectedVersion + 1 })
      .where(and(eq(sets.workshopId, workshop.id), eq(sets.id, id), eq(sets.version, expectedVersion)))
      .returning({ version: sets.version });
    if (!row) return reject("Somebody else changed this set. Your typing is kept: check the newer version in another window, then save again.");
    return ok({ id, version: row.version });
  });
}

const onPlan = z.object({
  id: z.uuid(),
  productId: z.uuid(),
  count: z.number().int().min(1).max(100_000),
  wantedOn: isoDay().nullable(),
  note: z.string().max(200),
  /** The order that is short of them: asked for again, its line is brought to what is short now. */
  orderId: z.uuid().nullable().default(null),
});

/** Puts pieces that are short on the list of what is wanted, so that they are planned and poured. */
export async function putOnPlan(workshopRef: unknown, input: unknown): Promise<Result<{ id: string }>> {
  return command("sell", onPlan, workshopRef, input, async (row, { db, workshop }) => {
    if (!(await readProduct(db, workshop.id, row.productId))) return reject("This product is no longer in this workshop. Choose another.");
    if (row.orderId === null) {
      await db
        .insert(demandLines)
        .values({ ...row, workshopId: workshop.id })
        .onConflictDoNothing();
      return ok({ id: row.id });
    }
    const [line] = await db
      .insert(demandLines)
      .values({ ...row, workshopId: workshop.id })
      .onConflictDoUpdate({
        target: [demandLines.workshopId, demandLines.orderId, demandLines.productId],
        targetWhere: sql`order_id is not null`,
        // What was poured of it already is not short any more.
        set: { count: sql`${demandLines.made} + excluded.count`, wantedOn: row.wantedOn, deleted: false, version: sql`${demandLines.version} + 1` },
      })
      .returning({ id: demandLines.id });
    return ok({ id: line?.id ?? row.id });
  });
}

const keptSheet = z.object({
  id: z.uuid(),
  name: z.string().trim().min(1, "Enter a name for the sheet.").max(80),
  sheet: labelSheet,
  gone: z.boolean().default(false),
});

/** Saves the measures of a label sheet, or deletes it; a deleted one can be restored. */
export async function saveLabelSheet(workshopRef: unknown, input: unknown): Promise<Result<{ id: string }>> {
  return command("sell", keptSheet, workshopRef, input, async (row, { db, workshop, now }) => {
    await db
      .insert(labelSheets)
      .values({ ...row, workshopId: workshop.id, at: now })
      .onConflictDoUpdate({ target: [labelSheets.workshopId, labelSheets.id], set: { name: row.name, sheet: row.sheet, deleted: row.gone } });
    return ok({ id: row.id });
  });
}

/** Sets the workshop's own words on its labels. */
export async function saveLabelling(workshopRef: unknown, input: unknown): Promise<Result<{ version: number }>> {
  return command(
    "sell",
    z.object({ settings: labelSettings, version: z.number().int() }),
    workshopRef,
    input,
    async ({ settings, version }, { db, workshop }) => {
      const [row] =
        version === 0
          ? await db.insert(labelling).values({ workshopId: workshop.id, settings, version: 1 }).onConflictDoNothing().returning({ version: labelling.version })
          : await db
              .update(labelling)
              .set({ settings, version: version + 1 })
              .where(and(eq(labelling.workshopId, workshop.id), eq(labelling.version, version)))
              .returning({ version: labelling.version });
      if (!row) return reject("Somebody else changed these words. Reload the page, then save.");
      return ok({ version: row.version });
    },
  );
}
