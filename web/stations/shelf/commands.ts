"use server";

import { HOTTEST, LARGEST_MASS_MG } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { revalidatePath } from "next/cache";
import { v7 } from "uuid";
import { z } from "zod";
import { fragrances, instruments, vessels, waxes } from "@/data/tables/shelf";
import { people } from "@/data/tables/workshop";
import { here } from "../frame/context";
import { command, done, type Outcome, refused } from "../outcome";

const name = z.string().trim().min(1, "Give it a name.").max(120);
const load = z.number().int().positive().max(1_000_000).nullable();
const fill = z.number().int().min(1).max(LARGEST_MASS_MG);
const length = z.number().int().min(5_000, "At least 5 mm.").max(1_000_000, "At most 1 m.");

const item = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("wax"), values: z.object({ name, family: z.string().max(60), maxLoadPpm: load, remarks: z.string().max(2_000) }) }),
  z.object({
    kind: z.literal("fragrance"),
    values: z.object({
      name,
      kind: z.enum(["fragrance", "essential oil"]),
      maxLoadPpm: load,
      flashPoint: z
        .number()
        .int()
        .max(3 * HOTTEST)
        .nullable(),
      remarks: z.string().max(2_000),
    }),
  }),
  z.object({
    kind: z.literal("vessel"),
    values: z
      .object({
        name,
        material: z.string().max(60),
        statedFillMg: fill,
        workingFillMg: fill,
        soldByWeight: z.boolean(),
        innerTopUm: length,
        innerBottomUm: length,
        heightUm: length,
      })
      .refine((value) => !value.soldByWeight || value.workingFillMg >= value.statedFillMg, {
        path: ["workingFillMg"],
        error: "This vessel is sold by weight, so the working fill cannot be below the stated fill.",
      }),
  }),
  z.object({
    kind: z.literal("instrument"),
    values: z.object({
      name,
      kind: z.enum(["probe", "infrared", "glass", "scale"]),
      correction: z.number().int().min(-2_000).max(2_000),
      resolutionUg: z.number().int().positive().nullable(),
    }),
  }),
  z.object({ kind: z.literal("person"), values: z.object({ name }) }),
]);
const saved = z.intersection(z.object({ id: z.uuid().nullable(), expectedVersion: z.number().int().nullable() }), item);

const TABLES = { wax: waxes, fragrance: fragrances, vessel: vessels, instrument: instruments };

/** Puts a thing on the shelf, or changes one. A stale change is refused with what it is now. */
export async function saveOnShelf(input: unknown): Promise<Outcome<{ id: string }>> {
  return command(saved, input, async (wanted) => {
    const { db, workshop } = await here();
    const id = wanted.id ?? v7();
    if (wanted.kind === "person") {
      await db
        .insert(people)
        .values({ workshopId: workshop.id, id, ...wanted.values })
        .onConflictDoUpdate({ target: [people.workshopId, people.id], set: wanted.values });
    } else {
      // One statement serves all four: they share key and version, and the schema above has matched kind and values.
      const table = TABLES[wanted.kind] as typeof waxes;
      const values = wanted.values as unknown as typeof waxes.$inferInsert;
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
