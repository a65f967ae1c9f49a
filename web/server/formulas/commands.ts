"use server";

import { colorRecipe, ok, process as processSchema, type Result, reject } from "@hearth/core";
import { and, desc, eq, inArray } from "drizzle-orm";
import { v7 } from "uuid";
import { z } from "zod";
import { colors } from "@/data/tables/color";
import { processes, processVersions } from "@/data/tables/process";
import { dyes, fragrances, waxes } from "@/data/tables/shelf";
import { command } from "@/server/http/command";
import { canonical } from "@/server/shared/canonical-json";
import { setDeleted } from "@/server/workshops/soft-delete";

const savedProcess = z.object({
  id: z.uuid().nullable(),
  expectedVersion: z.number().int().nullable(),
  process: processSchema,
});

/** Keeps a process of the workshop's own. A change makes the next version; formulas keep the one they were made with. */
export async function saveProcess(workshopRef: unknown, input: unknown): Promise<Result<{ id: string; number: number; version: number }>> {
  return command("formulas", savedProcess, workshopRef, input, async (wanted, { db, workshop, person, now }) => {
    const workshopId = workshop.id;
    const { from: _from, ...kept } = wanted.process;
    if (wanted.id === null) {
      const id = v7();
      await db.insert(processes).values({ workshopId, id, name: kept.name, updatedAt: now, updatedBy: person?.id ?? null });
      await db.insert(processVersions).values({ workshopId, processId: id, number: 1, process: kept, createdAt: now });
      return ok({ id, number: 1, version: 1 });
    }
    const [row] = await db
      .select()
      .from(processes)
      .where(and(eq(processes.workshopId, workshopId), eq(processes.id, wanted.id)))
      .for("no key update");
    if (!row) return reject("This process is not in this workshop.");
    if (row.version !== wanted.expectedVersion)
      return reject("Somebody else changed this process. Your typing is kept: check the newer version in another window, then save again.");
    const [newest] = await db
      .select()
      .from(processVersions)
      .where(and(eq(processVersions.workshopId, workshopId), eq(processVersions.processId, wanted.id)))
      .orderBy(desc(processVersions.number))
      .limit(1);
    const changed = canonical(newest?.process) !== canonical(kept);
    const number = (newest?.number ?? 0) + (changed ? 1 : 0);
    if (changed) await db.insert(processVersions).values({ workshopId, processId: wanted.id, number, process: kept, createdAt: now });
    const version = row.version + 1;
    await db
      .update(processes)
      .set({ name: kept.name, version, updatedAt: now, updatedBy: person?.id ?? null })
      .where(and(eq(processes.workshopId, workshopId), eq(processes.id, wanted.id)));
    return ok({ id: wanted.id, number, version });
  });
}

const savedColor = z.object({
  /** Made where the button was pressed: pressing it twice makes one. */
  id: z.uuid(),
  name: z.string().trim().min(1, "Give the color a name.").max(120),
  recipe: colorRecipe,
});

/** Saves the recipe of a color. */
export async function saveColor(workshopRef: unknown, input: unknown): Promise<Result<{ id: string }>> {
  return command("formulas", savedColor, workshopRef, input, async ({ id, name, recipe }, { db, workshop, now }) => {
    const workshopId = workshop.id;
    for (const [table, ids, what] of [
      [waxes, recipe.waxId ? [recipe.waxId] : [], "wax"],
      [fragrances, recipe.fragranceId ? [recipe.fragranceId] : [], "scent"],
      [dyes, recipe.dyes.map((dye) => dye.id), "dye"],
    ] as const) {
      const any = table as typeof waxes;
      const rows = ids.length
        ? await db
            .select({ id: any.id })
            .from(any)
            .where(and(eq(any.workshopId, workshopId), inArray(any.id, [...ids])))
        : [];
      if (rows.length < new Set(ids).size) return reject(`That ${what} is not on this shelf.`);
    }
    await db
      .insert(colors)
      .values({ workshopId, id, name, recipe, at: now })
      .onConflictDoNothing({ target: [colors.workshopId, colors.id] });
    return ok({ id });
  });
}

/** Takes a color away, or puts it back. */
export async function takeColorAway(workshopRef: unknown, input: unknown): Promise<Result<{ id: string }>> {
  return setDeleted("formulas", colors, "This color is no longer in this workshop.", workshopRef, input);
}
