"use server";

import { colourRecipe, process as processSchema } from "@hearth/core";
import { and, desc, eq, inArray } from "drizzle-orm";
import { v7 } from "uuid";
import { z } from "zod";
import { colours } from "@/data/tables/colour";
import { processes, processVersions } from "@/data/tables/process";
import { dyes, fragrances, waxes } from "@/data/tables/shelf";
import { canonical } from "@/server/canonical";
import { turnGone } from "@/server/gone";
import { command, done, type Outcome, refused } from "@/server/outcome";

const savedProcess = z.object({
  id: z.uuid().nullable(),
  expectedVersion: z.number().int().nullable(),
  process: processSchema,
});

/** Keeps a process of the workshop's own. A change makes the next version; formulas keep the one they were made with. */
export async function saveProcess(place: unknown, input: unknown): Promise<Outcome<{ id: string; number: number; version: number }>> {
  return command("formulas", savedProcess, place, input, async (wanted, { db, workshop, person, now }) => {
    const mine = workshop.id;
    const { from: _from, ...kept } = wanted.process;
    return db.transaction(async (tx): Promise<Outcome<{ id: string; number: number; version: number }>> => {
      if (wanted.id === null) {
        const id = v7();
        await tx.insert(processes).values({ workshopId: mine, id, name: kept.name, updatedAt: now, updatedBy: person?.id ?? null });
        await tx.insert(processVersions).values({ workshopId: mine, processId: id, number: 1, process: kept, createdAt: now });
        return done({ id, number: 1, version: 1 });
      }
      const [row] = await tx
        .select()
        .from(processes)
        .where(and(eq(processes.workshopId, mine), eq(processes.id, wanted.id)))
        .for("no key update");
      if (!row) return refused("This process is not in this workshop.");
      if (row.version !== wanted.expectedVersion)
        return refused("Somebody else changed this process in the meantime. Your typing is kept: look at the newer one in another window, then save again.");
      const [newest] = await tx
        .select()
        .from(processVersions)
        .where(and(eq(processVersions.workshopId, mine), eq(processVersions.processId, wanted.id)))
        .orderBy(desc(processVersions.number))
        .limit(1);
      const changed = canonical(newest?.process) !== canonical(kept);
      const number = (newest?.number ?? 0) + (changed ? 1 : 0);
      if (changed) await tx.insert(processVersions).values({ workshopId: mine, processId: wanted.id, number, process: kept, createdAt: now });
      const version = row.version + 1;
      await tx
        .update(processes)
        .set({ name: kept.name, version, updatedAt: now, updatedBy: person?.id ?? null })
        .where(and(eq(processes.workshopId, mine), eq(processes.id, wanted.id)));
      return done({ id: wanted.id, number, version });
    });
  });
}

const savedColour = z.object({
  /** Made where the button was pressed: pressing it twice makes one. */
  id: z.uuid(),
  name: z.string().trim().min(1, "Give the colour a name.").max(120),
  recipe: colourRecipe,
});

/** Keeps how a colour is made. */
export async function saveColour(place: unknown, input: unknown): Promise<Outcome<{ id: string }>> {
  return command("formulas", savedColour, place, input, async ({ id, name, recipe }, { db, workshop, now }) => {
    const mine = workshop.id;
    return db.transaction(async (tx): Promise<Outcome<{ id: string }>> => {
      for (const [table, ids, what] of [
        [waxes, recipe.waxId ? [recipe.waxId] : [], "wax"],
        [fragrances, recipe.fragranceId ? [recipe.fragranceId] : [], "scent"],
        [dyes, recipe.dyes.map((one) => one.id), "dye"],
      ] as const) {
        const any = table as typeof waxes;
        const rows = ids.length
          ? await tx
              .select({ id: any.id })
              .from(any)
              .where(and(eq(any.workshopId, mine), inArray(any.id, [...ids])))
          : [];
        if (rows.length < new Set(ids).size) return refused(`That ${what} is not on this shelf.`);
      }
      await tx
        .insert(colours)
        .values({ workshopId: mine, id, name, recipe, at: now })
        .onConflictDoNothing({ target: [colours.workshopId, colours.id] });
      return done({ id });
    });
  });
}

/** Takes a colour away, or puts it back. */
export async function takeColourAway(place: unknown, input: unknown): Promise<Outcome<{ id: string }>> {
  return turnGone("formulas", colours, "This colour is not in this workshop any more.", place, input);
}
