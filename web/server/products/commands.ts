"use server";

import {
  dueReasons,
  embedChoices,
  type FormulaSpec,
  LABEL_CONTAINERS,
  notToBeFilled,
  notToBeLaidIn,
  ok,
  packaging,
  type Result,
  reject,
  testedOf,
  WICK_TESTS,
} from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { z } from "zod";
import type { Transaction } from "@/data/client";
import { products } from "@/data/tables/product";
import { molds, vessels, wicks } from "@/data/tables/shelf";
import { command } from "@/server/http/command";
import { readEmbeds } from "@/server/inventory/embeds";
import type { OwnedTable } from "@/server/inventory/tables";
import { newestSpecs, readProduct } from "./products";

const money = z.number().int().min(0).max(1e12).nullable();
const values = z.object({
  name: z.string().trim().min(1, "Enter a name for the product.").max(120),
  formulaId: z.uuid({ error: "Choose the formula." }),
  container: z.enum(["vessel", "mold"]),
  containerId: z.uuid({ error: "Choose the vessel or mold." }),
  wickId: z.uuid().nullable(),
  wicks: z.number().int().min(1).max(9),
  embeds: embedChoices.nullable().default(null),
  price: money,
  soldBy: z.enum(["piece", "weight"]),
  pack: z.number().int().min(1, "A pack holds at least one.").max(1_000),
  packCost: money,
  handsSeconds: z.number().int().min(0).max(86_400).nullable(),
  heatSeconds: z.number().int().min(0).max(864_000).nullable(),
  packaging: packaging.nullable().default(null),
  labelContainer: z.enum(LABEL_CONTAINERS).nullable().default(null),
  remarks: z.string().max(2_000).default(""),
});
const saved = values.extend({ id: z.uuid(), expectedVersion: z.number().int().nullable() });
type Wanted = z.output<typeof values>;

/** Returns what is wrong with a product by what stands on the shelf; null if nothing is. */
async function faultOf(tx: Transaction, mine: string, wanted: Wanted): Promise<Result<never> | null> {
  const own = (table: OwnedTable) => and(eq(table.workshopId, mine), eq(table.id, wanted.containerId));
  if (wanted.container === "vessel") {
    const [row] = await tx.select().from(vessels).where(own(vessels));
    if (!row) return reject("This vessel is not on the shelf.", { containerId: ["Choose a vessel or mold from the shelf."] });
    const unfit = notToBeFilled(row, wanted.wickId !== null);
    if (unfit) return reject(unfit, { containerId: [unfit] });
    if (wanted.soldBy === "weight" && row.workingFillMg < row.statedFillMg) {
      const why = "Sold by weight, its fill must be at least the net weight: raise the fill weight, or sell it by the piece.";
      return reject(why, { soldBy: [why] });
    }
  } else {
    const [row] = await tx.select({ id: molds.id }).from(molds).where(own(molds));
    if (!row) return reject("This mold is not on the shelf.", { containerId: ["Choose a vessel or mold from the shelf."] });
  }
  if (wanted.wickId) {
    const [row] = await tx
      .select({ id: wicks.id })
      .from(wicks)
      .where(and(eq(wicks.workshopId, mine), eq(wicks.id, wanted.wickId)));
    if (!row) return reject("This wick is not on the shelf.", { wickId: ["Choose a wick from the shelf, or none."] });
  }
  if (wanted.embeds?.length) {
    const rows = await readEmbeds(tx, mine, wanted.embeds);
    const missing = wanted.embeds.some((embed) => !rows.some((row) => row.id === embed.id));
    const why = missing ? "Something to be laid in is not on the shelf: choose it again." : rows.flatMap((row) => notToBeLaidIn(row) ?? [])[0];
    if (why) return reject(why, { embeds: [why] });
  }
  return null;
}

/** Keeps a product. Where its wick was tested and the change asks for another test, that is said. */
export async function saveProduct(workshopRef: unknown, input: unknown): Promise<Result<{ id: string; version: number; dueAgain: string[] }>> {
  return command("products", saved, workshopRef, input, async ({ id, expectedVersion, ...wanted }, { db, workshop }) => {
    const workshopId = workshop.id;
    const spec: FormulaSpec | undefined = (await newestSpecs(db, workshopId, [wanted.formulaId])).get(wanted.formulaId);
    if (!spec) return reject("This formula is no longer in this workshop.", { formulaId: ["Choose another formula."] });
    const fault = await faultOf(db, workshopId, wanted);
    if (fault) return fault;
    const stored = await readProduct(db, workshopId, id);
    if (expectedVersion === null) {
      if (stored) return ok({ id, version: stored.version, dueAgain: [] });
      await db.insert(products).values({ ...wanted, workshopId: workshopId, id });
      return ok({ id, version: 1, dueAgain: [] });
    }
    const dueAgain = stored?.testedAs && stored.wickTest !== "test due" ? dueReasons(stored.testedAs, testedOf(spec, wanted)) : [];
    const changed = await db
      .update(products)
      .set({ ...wanted, version: expectedVersion + 1, ...(dueAgain.length > 0 ? { wickTest: "test due" as const } : {}) })
      .where(and(eq(products.workshopId, workshopId), eq(products.id, id), eq(products.version, expectedVersion)))
      .returning({ version: products.version });
    const [row] = changed;
    if (!row) return reject("Somebody else changed this product. Your typing is kept: check the newer version in another window, then save again.");
    return ok({ id, version: row.version, dueAgain });
  });
}

/** Says how the test of a product's wick went: what it was a test of is kept with it. */
export async function sayWickTest(workshopRef: unknown, input: unknown): Promise<Result<{ version: number }>> {
  const said = z.object({ id: z.uuid(), expectedVersion: z.number().int(), wickTest: z.enum(WICK_TESTS) });
  return command("products", said, workshopRef, input, async ({ id, expectedVersion, wickTest }, { db, workshop }) => {
    const workshopId = workshop.id;
    const stored = await readProduct(db, workshopId, id);
    const spec = stored && (await newestSpecs(db, workshopId, [stored.formulaId])).get(stored.formulaId);
    if (!stored || !spec) return reject("This product is no longer in this workshop.");
    const changed = await db
      .update(products)
      .set({ wickTest, testedAs: wickTest === "test due" ? null : testedOf(spec, stored), version: expectedVersion + 1 })
      .where(and(eq(products.workshopId, workshopId), eq(products.id, id), eq(products.version, expectedVersion)))
      .returning({ version: products.version });
    if (!changed[0]) return reject("Somebody else changed this product. Look at it again.");
    return ok(changed[0]);
  });
}
