import {
  type BatchPlan,
  hazardOf,
  joinParts,
  loadsWithout,
  type MixHazard,
  namedIn,
  partsOfPot,
  partsOfRecipe,
  potOfProduct,
  type Recipe,
  type SupplierSheet,
  supplierSheet,
} from "@hearth/core";
import { and, arrayContains, desc, eq, inArray, isNotNull, or } from "drizzle-orm";
import type { Database, Transaction } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { formulaVersions } from "@/data/tables/formula";
import { supplierSheets } from "@/data/tables/label";
import { readBatchState } from "@/server/events/read-events";
import { readLabelling } from "@/server/sales/label-settings";
import { readPickList } from "./shelf";

/** A supplier's sheet as it was put in. */
export interface KeptSheet {
  id: string;
  at: string;
  sheet: SupplierSheet;
}

/** Returns the sheets of a material, newest first by their own day. */
export async function sheetsOf(db: Database | Transaction, workshopId: string, materialId: string): Promise<KeptSheet[]> {
  const rows = await db
    .select()
    .from(supplierSheets)
    .where(and(eq(supplierSheets.workshopId, workshopId), eq(supplierSheets.materialId, materialId), eq(supplierSheets.deleted, false)))
    .orderBy(desc(supplierSheets.on), desc(supplierSheets.at));
  return rows.map((row) => ({ id: row.id, at: new Date(row.at).toISOString(), sheet: supplierSheet.parse(row.sheet) }));
}

/** The newest sheet of each of these materials, of those that have one. */
export async function newestSheets(db: Database | Transaction, workshopId: string, ids: readonly string[]): Promise<Map<string, SupplierSheet>> {
  if (ids.length === 0) return new Map();
  const rows = await db
    .selectDistinctOn([supplierSheets.materialId], { id: supplierSheets.materialId, sheet: supplierSheets.sheet })
    .from(supplierSheets)
    .where(and(eq(supplierSheets.workshopId, workshopId), inArray(supplierSheets.materialId, [...new Set(ids)]), eq(supplierSheets.deleted, false)))
    .orderBy(supplierSheets.materialId, desc(supplierSheets.on), desc(supplierSheets.at));
  return new Map(rows.map((row) => [row.id, supplierSheet.parse(row.sheet)]));
}

/** The hazard of a recipe as it is written, and up to which load each class of it is free. */
export interface RecipeHazard extends MixHazard {
  loads: { class: string; loadPpm: number | null }[];
}
export async function hazardOfRecipe(db: Database, workshopId: string, recipe: Recipe): Promise<RecipeHazard> {
  const shelf = await readPickList(db, workshopId, namedIn(recipe), 0);
  const parts = partsOfRecipe(recipe, shelf);
  const sheets = await newestSheets(
    db,
    workshopId,
    parts.map((part) => part.id),
  );
  const { cutOffs } = (await readLabelling(db, workshopId)).settings;
  return { ...hazardOf(parts, sheets, cutOffs), loads: loadsWithout(recipe, shelf, sheets, cutOffs) };
}

/**
 * Returns the hazard of each pot of a batch by what was actually weighed, and of the whole: of one product of it where one is named; null if the workshop
 * has no such batch.
 */
export async function hazardOfBatch(
  db: Database,
  workshopId: string,
  batchId: string,
  of?: { containerId: string; formulaId: string },
): Promise<{ number: number; whole: MixHazard; pots: (MixHazard & { name: string; planned: string[] })[] } | null> {
  const [row] = await db
    .select()
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), eq(batches.id, batchId)));
  if (!row) return null;
  const { plan, state } = await readBatchState(db, row);
  const pots = plan.pots.map((pot, index) => ({ name: pot.formulaName, ...partsOfPot(plan, index, state) }));
  const sheets = await newestSheets(
    db,
    workshopId,
    pots.flatMap((pot) => pot.parts.map((part) => part.id)),
  );
  const { cutOffs } = (await readLabelling(db, workshopId)).settings;
  const inJars = pouredFromPots(plan, of);
  const whole = hazardOf(joinParts(pots.map((pot, index) => ({ parts: pot.parts, totalMg: inJars[index] ?? 0 }))), sheets, cutOffs);
  return { number: row.number, whole, pots: pots.map(({ name, parts, planned }) => ({ name, planned, ...hazardOf(parts, sheets, cutOffs) })) };
}

/** Returns what of each pot is planned to go into the pieces of a batch, in mg: of one product where one is named and in it. */
function pouredFromPots(plan: BatchPlan, of?: { containerId: string; formulaId: string }): number[] {
  const own = plan.products.filter((product) => product.containerId === of?.containerId);
  const ofFormula = own.filter((product) => plan.pots[potOfProduct(product)]?.formulaId === of?.formulaId);
  const products = ofFormula.length > 0 ? ofFormula : own.length > 0 ? own : plan.products;
  return plan.pots.map((_pot, index) =>
    products.reduce((sum, product) => sum + product.count * (product.fillsMg?.[index] ?? (index === 0 ? product.fillMg : 0)), 0),
  );
}

/** So many batches of a formula are compared with its label, and offered for labels. */
const LATELY = 12;

/** Returns the batches of a formula that stand on the rack or went, those poured last first, as they were really made. */
async function pouredOf(db: Database, workshopId: string, formulaId: string) {
  const rows = await db
    .select({ batch: batches })
    .from(batches)
    .innerJoin(formulaVersions, and(eq(formulaVersions.workshopId, batches.workshopId), eq(formulaVersions.id, batches.formulaVersionId)))
    .where(
      and(
        eq(batches.workshopId, workshopId),
        or(eq(formulaVersions.formulaId, formulaId), arrayContains(batches.formulaIds, [formulaId])),
        isNotNull(batches.pouredAt),
        inArray(batches.stage, ["rack", "closed"]),
      ),
    )
    .orderBy(desc(batches.pouredAt))
    .limit(LATELY);
  return Promise.all(rows.map(async ({ batch }) => ({ batch, ...(await readBatchState(db, batch)) })));
}

/** The batches of a formula that were poured last, with the classes that what was really weighed comes to. */
export async function batchesOfFormula(db: Database, workshopId: string, formulaId: string, planned: MixHazard) {
  const made = await pouredOf(db, workshopId, formulaId);
  const pots = made.map(({ plan, state }) => {
    // Of a batch of several formulas only the pots of this one.
    const own = plan.pots.some((pot) => pot.formulaId === formulaId);
    return plan.pots.flatMap((pot, index) => (own && pot.formulaId !== formulaId ? [] : [{ totalMg: pot.totalMg, ...partsOfPot(plan, index, state) }]));
  });
  const sheets = await newestSheets(
    db,
    workshopId,
    pots.flat().flatMap((pot) => pot.parts.map((part) => part.id)),
  );
  return made.map(({ batch }, index) => {
    const parts = joinParts(pots[index] ?? []);
    const { answer } = hazardOf(parts, sheets, planned.answer.cut_offs);
    const classes = [...answer.classes, ...answer.euh];
    return {
      id: batch.id,
      number: batch.number,
      fragrance: parts.reduce((sum, mixPart) => (mixPart.kind === "fragrance" ? sum + mixPart.percent : sum), 0),
      classes,
      crosses: classes.join() !== [...planned.answer.classes, ...planned.answer.euh].join(),
    };
  });
}

/** Returns batches of a formula to make labels for, and how many pieces each was. */
export const batchesFor = async (db: Database, workshopId: string, formulaId: string): Promise<{ id: string; number: number; pieces: number }[]> =>
  (await pouredOf(db, workshopId, formulaId)).map(({ batch, plan }) => ({
    id: batch.id,
    number: batch.number,
    pieces: plan.products.reduce((sum, item) => sum + item.count, 0),
  }));
