import { loadOnBasis, potsOf, type ShelfWick } from "@hearth/core";
import { and, asc, eq, inArray } from "drizzle-orm";
import type { Database } from "@/data/client";
import { additives, dyes, fragrances, molds, vessels, waxes, wicks } from "@/data/tables/shelf";
import { formulaForPlan } from "@/server/formulas/formulas";
import { listProducts, readProduct } from "@/server/products/products";
import { naturalSort } from "@/server/shared/natural-sort";
import { formulaNames } from "@/server/workshops/search-index";
import { jarsOnRack, passedOf, readTrial, triedIn } from "./trials";

/** A vessel or mold, as far as a trial depends on it. */
export interface TrialContainer {
  id: string;
  container: "vessel" | "mold";
  name: string;
  fillMg: number;
  innerTopUm: number;
  innerBottomUm: number;
  heightUm: number;
  shape: "straight" | "bowl";
  /** How many wicks a vessel is made for; null for a mold. */
  wicks: number | null;
  /** Test jars of a vessel: chipped pieces, which are used first. */
  testJars: number;
}

async function containersOf(db: Database, workshopId: string): Promise<TrialContainer[]> {
  const v = await db
    .select()
    .from(vessels)
    .where(and(eq(vessels.workshopId, workshopId), eq(vessels.archived, false), inArray(vessels.state, ["for sale", "test jar"])))
    .orderBy(naturalSort(vessels.name));
  const m = await db
    .select()
    .from(molds)
    .where(and(eq(molds.workshopId, workshopId), eq(molds.archived, false)))
    .orderBy(naturalSort(molds.name));
  return [
    ...v.map((item): TrialContainer => ({ ...item, container: "vessel", fillMg: item.workingFillMg, shape: item.shape ?? "straight" })),
    ...m.map((item): TrialContainer => ({ ...item, container: "mold", shape: "straight", wicks: null, testJars: 0 })),
  ].map(({ id, container, name, fillMg, innerTopUm, innerBottomUm, heightUm, shape, wicks, testJars }) => ({
    id,
    container,
    name,
    fillMg,
    innerTopUm,
    innerBottomUm,
    heightUm,
    shape,
    wicks,
    testJars,
  }));
}

/** Returns what a trial can be designed from: the product or formula that is asked for, what it could be varied by, what passed before, and what stands on the rack. */
export async function readDesign(
  db: Database,
  workshopId: string,
  asked: {
    product?: string | undefined;
    formula?: string | undefined;
    container?: string | undefined;
    follows?: string | undefined;
    variant?: string | undefined;
    batch?: string | undefined;
  },
) {
  const before = asked.follows ? await readTrial(db, workshopId, asked.follows) : null;
  const from = before?.plan.testCandles.find((testCandle) => testCandle.variant === (asked.variant ?? testCandle.variant)) ?? null;
  const productId = asked.product ?? from?.productId ?? null;
  const [product, products, names, containers] = await Promise.all([
    productId ? readProduct(db, workshopId, productId) : null,
    listProducts(db, workshopId),
    formulaNames(db, workshopId),
    containersOf(db, workshopId),
  ]);
  const inUse = products.filter((product) => !product.archived && product.wickId !== null);
  const chosen = product ?? (asked.formula || asked.follows ? null : (inUse.find((product) => product.wickTest !== "tested") ?? inUse[0] ?? null));
  const formulaId = asked.formula ?? chosen?.formulaId ?? names.find((name) => name.name === from?.formula.replace(/ \(.*\)$/, ""))?.id ?? names[0]?.id ?? null;
  const formula = formulaId ? await formulaForPlan(db, workshopId, formulaId) : null;
  const containerId = asked.container ?? from?.containerId ?? chosen?.containerId ?? containers[0]?.id ?? null;
  const w = await db
    .select()
    .from(wicks)
    .where(and(eq(wicks.workshopId, workshopId), eq(wicks.archived, false)))
    .orderBy(naturalSort(wicks.name));
  const x = await db
    .select({ id: waxes.id, name: waxes.name, family: waxes.family, maxLoadPpm: waxes.maxLoadPpm })
    .from(waxes)
    .where(and(eq(waxes.workshopId, workshopId), eq(waxes.archived, false)))
    .orderBy(asc(waxes.name));
  const f = await db
    .select({ id: fragrances.id, name: fragrances.name, kind: fragrances.kind })
    .from(fragrances)
    .where(and(eq(fragrances.workshopId, workshopId), eq(fragrances.archived, false)))
    .orderBy(asc(fragrances.name));
  const named = (table: typeof additives | typeof dyes) =>
    db
      .select({ id: table.id, name: table.name })
      .from(table as typeof additives)
      .where(and(eq(table.workshopId, workshopId), eq(table.archived, false)))
      .orderBy(asc(table.name));
  const [dosed, colors] = [await named(additives), await named(dyes)];
  const wax = x.find((item) => item.id === formula?.spec.waxes[0]?.id);
  const tried = await triedIn(db, workshopId, containerId ? { containerId } : {});
  return {
    product: chosen ? { id: chosen.id, name: chosen.name, wickId: chosen.wickId, wicks: chosen.wicks } : null,
    products: inUse.map(({ id, name }) => ({ id, name })),
    formulas: names.map(({ id, name }) => ({ id, name })),
    formula: formula
      ? {
          id: formula.id,
          name: formula.name,
          versionId: formula.versionId,
          loadPpm: Math.round(loadOnBasis(formula.spec.loadPpm, formula.spec.basis, "wax")),
          waxId: formula.spec.waxes[0]?.id ?? null,
          fragranceId: formula.spec.fragrances[0]?.id ?? null,
          family: wax?.family ?? "",
          maxLoadPpm: wax?.maxLoadPpm ?? null,
          dyed: (formula.spec.dyes ?? []).length > 0,
          added: (formula.spec.additives ?? []).length > 0,
          isEssential: f.some((oil) => oil.kind === "essential oil" && oil.id === formula.spec.fragrances[0]?.id),
          /** Where it is poured in one go from one pot, one melt can serve a ladder. */
          isOnePot: potsOf(formula.spec.process.steps) === 1,
        }
      : null,
    containers,
    containerId,
    wicks: w.map(({ id, name, kind, size, series, fromUm, toUm, families }): ShelfWick => ({ id, name, kind, size, series, fromUm, toUm, families })),
    waxes: x,
    fragrances: f,
    additives: dosed,
    dyes: colors,
    passed: passedOf(await triedIn(db, workshopId, { passed: true })),
    tried: tried.slice(0, 12),
    rack: await jarsOnRack(db, workshopId, asked.batch),
    /** The batch whose jars are asked to be tested. */
    batchId: asked.batch ?? null,
    before: before
      ? {
          id: before.id,
          number: before.number,
          name: before.plan.name,
          protocol: before.plan.protocol,
          plan: before.plan,
          state: before.state,
          variant: from?.variant ?? null,
        }
      : null,
  };
}
export type Design = Awaited<ReturnType<typeof readDesign>>;
