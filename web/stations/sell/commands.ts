"use server";

import { labelSheet, packContents, packing } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { revalidatePath } from "next/cache";
import { z } from "zod";
import { sets } from "@/data/tables/goods";
import { labelling, labelSheets } from "@/data/tables/label";
import { wanted } from "@/data/tables/plan";
import { readSet } from "@/server/goods";
import { labelSettings } from "@/server/labels";
import { tellPages } from "@/server/live";
import { beginOrderIn, orderWanted, outWanted, takeOutIn } from "@/server/orders";
import { command, done, type Outcome, refused } from "@/server/outcome";
import { costsNow, packIn, unpackIn } from "@/server/packing";

/** Rolls a transaction back where what was asked for is refused in the middle of it. */
class NotDone extends Error {
  constructor(readonly outcome: Outcome<never>) {
    super("not done");
  }
}
/** Runs within a transaction, all of it or nothing. */
async function wholly<T>(run: () => Promise<Outcome<T>>): Promise<Outcome<T>> {
  const outcome = await run().catch((error: unknown) => {
    if (error instanceof NotDone) return error.outcome;
    throw error;
  });
  if (outcome.ok) revalidatePath("/", "layout");
  return outcome;
}
const orNot = <T>(outcome: Outcome<T>): Outcome<T> => {
  if (!outcome.ok) throw new NotDone(outcome);
  return outcome;
};

/** Takes an order, or puts a market day into the calendar. */
export async function beginOrder(place: unknown, input: unknown): Promise<Outcome<{ id: string; number: number }>> {
  return command("sell", orderWanted, place, input, async (asked, context) =>
    wholly(() => context.db.transaction(async (tx) => orNot(await beginOrderIn(tx, context, asked)))),
  );
}

/** Takes packs out with an order or to a market; what lacks is packed there and then. */
export async function takeOut(place: unknown, input: unknown): Promise<Outcome<{ packed: number }>> {
  return command("sell", outWanted, place, input, async (asked, context) => {
    const costs = await costsNow(
      context,
      asked.lines.map((one) => one.sellableId),
    );
    return wholly(() => context.db.transaction(async (tx) => orNot(await takeOutIn(tx, context, asked, costs))));
  });
}

const packWanted = z.object({
  packingId: z.uuid(),
  sellableId: z.uuid({ error: "Choose what is packed." }),
  packs: z.number().int().min(1, "At least one pack.").max(10_000),
  weightsMg: z.array(z.number().int().min(1).max(100_000_000)).max(1_000).default([]),
  statedMg: z.number().int().min(1).nullable().default(null),
});

/** Packs what stands released: oldest batch first. */
export async function pack(place: unknown, input: unknown): Promise<Outcome<{ id: string }>> {
  return command("sell", packWanted, place, input, async (asked, context) => {
    const costs = await costsNow(context, [asked.sellableId]);
    return wholly(() => context.db.transaction(async (tx) => orNot(await packIn(tx, context, asked, costs))));
  });
}

/** Takes packs apart again. */
export async function unpack(place: unknown, input: unknown): Promise<Outcome<{ id: string }>> {
  return command("sell", z.object({ packingId: z.uuid() }), place, input, async ({ packingId }, context) =>
    wholly(() => context.db.transaction(async (tx) => orNot(await unpackIn(tx, context, packingId)))),
  );
}

const setValues = z.object({
  id: z.uuid(),
  expectedVersion: z.number().int().nullable(),
  name: z.string().trim().min(1, "Give the set a name.").max(120),
  contents: packContents,
  packing,
  price: z.number().int().min(0).max(1e12).nullable(),
  remarks: z.string().max(2_000).default(""),
  putAway: z.boolean().default(false),
});

/** Keeps a set of several products. */
export async function saveSet(place: unknown, input: unknown): Promise<Outcome<{ id: string; version: number }>> {
  return command("sell", setValues, place, input, async ({ id, expectedVersion, ...values }, { db, workshop }) =>
    wholly(async () => {
      const there = await readSet(db, workshop.id, id);
      if (expectedVersion === null) {
        if (!there) await db.insert(sets).values({ ...values, id, workshopId: workshop.id });
        return done({ id, version: there?.version ?? 1 });
      }
      const [row] = await db
        .update(sets)
        .set({ ...values, version: expectedVersion + 1 })
        .where(and(eq(sets.workshopId, workshop.id), eq(sets.id, id), eq(sets.version, expectedVersion)))
        .returning({ version: sets.version });
      if (!row)
        return refused("Somebody else changed this set in the meantime. Your typing is kept: look at the newer one in another window, then save again.");
      await tellPages(db, { workshop: workshop.id });
      return done({ id, version: row.version });
    }),
  );
}

const onPlan = z.object({
  id: z.uuid(),
  productId: z.uuid(),
  count: z.number().int().min(1).max(100_000),
  wantedOn: z.iso.date().nullable(),
  note: z.string().max(200),
});

/** Puts pieces that lack on the list of what is wanted, so that they are planned and poured. */
export async function putOnPlan(place: unknown, input: unknown): Promise<Outcome<{ id: string }>> {
  return command("sell", onPlan, place, input, async (row, { db, workshop }) =>
    wholly(async () => {
      await db
        .insert(wanted)
        .values({ ...row, workshopId: workshop.id })
        .onConflictDoNothing();
      await tellPages(db, { workshop: workshop.id });
      return done({ id: row.id });
    }),
  );
}

const keptSheet = z.object({
  id: z.uuid(),
  name: z.string().trim().min(1, "Give the sheet a name.").max(80),
  sheet: labelSheet,
  gone: z.boolean().default(false),
});

/** Keeps a sheet of labels as the workshop measured it, or puts it away. */
export async function saveLabelSheet(place: unknown, input: unknown): Promise<Outcome<{ id: string }>> {
  return command("sell", keptSheet, place, input, async (row, { db, workshop, now }) =>
    wholly(async () => {
      await db
        .insert(labelSheets)
        .values({ ...row, workshopId: workshop.id, at: now })
        .onConflictDoUpdate({ target: [labelSheets.workshopId, labelSheets.id], set: { name: row.name, sheet: row.sheet, gone: row.gone } });
      return done({ id: row.id });
    }),
  );
}

/** Sets the workshop's own words on its labels. */
export async function saveLabelling(place: unknown, input: unknown): Promise<Outcome<{ version: number }>> {
  return command("sell", z.object({ settings: labelSettings, version: z.number().int() }), place, input, async ({ settings, version }, { db, workshop }) =>
    wholly(async () => {
      const [row] =
        version === 0
          ? await db.insert(labelling).values({ workshopId: workshop.id, settings, version: 1 }).onConflictDoNothing().returning({ version: labelling.version })
          : await db
              .update(labelling)
              .set({ settings, version: version + 1 })
              .where(and(eq(labelling.workshopId, workshop.id), eq(labelling.version, version)))
              .returning({ version: labelling.version });
      if (!row) return refused("Somebody else changed these words in the meantime. Load the page again, then save.");
      return done({ version: row.version });
    }),
  );
}
