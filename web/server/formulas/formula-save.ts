"use server";

import { type FormulaSpec, formulaSpec, ok, type Result, readFormula, reject, stopOf } from "@hearth/core";
import { and, desc, eq } from "drizzle-orm";
import { v7 } from "uuid";
import { z } from "zod";
import { batches } from "@/data/tables/batch";
import { formulas, formulaVersions } from "@/data/tables/formula";
import { command } from "@/server/http/command";
import { readMaterials } from "@/server/inventory/shelf";
import { markTestsDue } from "@/server/products/products";
import { canonical } from "@/server/shared/canonical-json";

const saved = z.object({
  id: z.uuid().nullable(),
  /** The id of a new one, made where the button was pressed: pressing it twice makes one. */
  freshId: z.uuid().optional(),
  /** The edit that this one was made from; a newer one refuses it. */
  expectedVersion: z.number().int().nullable(),
  name: z.string().trim().min(1, "Give the formula a name.").max(120),
  spec: formulaSpec,
});

export interface Saved {
  id: string;
  version: number;
  /** The version number it was written into. */
  number: number;
  /** Whether that version is new, because the one before had been used. */
  next: boolean;
  /** Products whose wick test is due again by this change. */
  due: string[];
  /** Set where somebody else saved in between: what the formula says now. Nothing was written. */
  stale: { version: number; name: string; spec: FormulaSpec; by: string | null } | null;
}

/** Saves a formula. A version that a batch was made from stays as it is: the edit becomes the next one. */
export async function saveFormula(workshopRef: unknown, input: unknown): Promise<Result<Saved>> {
  return command("formulas", saved, workshopRef, input, async (wanted, { db, workshop, person, people, now }): Promise<Result<Saved>> => {
    const workshopId = workshop.id;
    const shelf = await readMaterials(db, workshopId);
    for (const [field, parts, rows] of [
      ["wax", wanted.spec.waxes, shelf.waxes],
      ["fragrance", wanted.spec.fragrances, shelf.fragrances],
      ["additive", wanted.spec.additives ?? [], shelf.additives],
      ["dye", wanted.spec.dyes ?? [], shelf.dyes],
    ] as const) {
      if (parts.some((part) => !rows.some((row) => row.id === part.id)))
        return reject(`That ${field} is not on this shelf.`, { [field]: [`Choose ${field === "additive" ? "an" : "a"} ${field} from the shelf.`] });
    }
    const stop = stopOf(wanted.spec, shelf, workshop.temperatureUnit);
    if (stop) return reject(stop.message, { [stop.of]: [stop.message] });
    if (wanted.id === null) {
      const id = wanted.freshId ?? v7();
      const made = await db
        .insert(formulas)
        .values({ workshopId, id, name: wanted.name, updatedAt: now, updatedBy: person?.id ?? null })
        .onConflictDoNothing()
        .returning({ id: formulas.id });
      if (made.length === 0) return ok({ id, version: 1, number: 1, next: false, due: [], stale: null });
      await db.insert(formulaVersions).values({ workshopId, id: v7(), formulaId: id, number: 1, spec: wanted.spec, createdAt: now });
      return ok({ id, version: 1, number: 1, next: false, due: [], stale: null });
    }
    const [formula] = await db
      .select()
      .from(formulas)
      .where(and(eq(formulas.workshopId, workshopId), eq(formulas.id, wanted.id)))
      .for("no key update");
    if (!formula) return reject("This formula is not in this workshop.");
    const [newest] = await db
      .select()
      .from(formulaVersions)
      .where(and(eq(formulaVersions.workshopId, workshopId), eq(formulaVersions.formulaId, wanted.id)))
      .orderBy(desc(formulaVersions.number))
      .limit(1);
    if (!newest) return reject("This formula has no version.");
    if (formula.version !== wanted.expectedVersion) {
      const by = people.find((item) => item.id === formula.updatedBy)?.name ?? null;
      return ok({
        id: formula.id,
        version: formula.version,
        number: newest.number,
        next: false,
        due: [],
        stale: { version: formula.version, name: formula.name, spec: readFormula(newest.spec), by },
      });
    }
    const used = await db
      .select({ id: batches.id })
      .from(batches)
      .where(and(eq(batches.workshopId, workshopId), eq(batches.formulaVersionId, newest.id)))
      .limit(1);
    const version = formula.version + 1;
    await db
      .update(formulas)
      .set({ name: wanted.name, version, updatedAt: now, updatedBy: person?.id ?? null })
      .where(and(eq(formulas.workshopId, workshopId), eq(formulas.id, formula.id)));
    const changed = canonical(readFormula(newest.spec)) !== canonical(wanted.spec);
    const due = changed ? await markTestsDue(db, workshopId, formula.id, wanted.spec) : [];
    if (used.length > 0 && changed) {
      await db.insert(formulaVersions).values({ workshopId, id: v7(), formulaId: formula.id, number: newest.number + 1, spec: wanted.spec, createdAt: now });
      return ok({ id: formula.id, version, number: newest.number + 1, next: true, due, stale: null });
    }
    if (changed)
      await db
        .update(formulaVersions)
        .set({ spec: wanted.spec })
        .where(and(eq(formulaVersions.workshopId, workshopId), eq(formulaVersions.id, newest.id)));
    return ok({ id: formula.id, version, number: newest.number, next: false, due, stale: null });
  });
}
