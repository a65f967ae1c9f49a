import {
  billOf,
  type ChosenProduct,
  type DayRecord,
  type DemandLine,
  type DemandProduct,
  dayAt,
  dayRecord,
  displacedMg,
  drawOfPiece,
  embedsOf,
  type FormulaSpec,
  gathered,
  isCounted,
  missOf,
  namedIn,
  type PlanningSettings,
  packagingPerPiece,
  planDemand,
  planningSettings,
  readableOf,
  type Store,
  shoppingOf,
  WeighOutError,
  wicksOf,
} from "@hearth/core";
import { and, asc, desc, eq, inArray } from "drizzle-orm";
import type { Database, Transaction } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { dayPlans, demandLines, planningSettingRows } from "@/data/tables/plan";
import { lots } from "@/data/tables/stock";
import { readPickList, readStocks, type Shelf } from "@/server/inventory/shelf";
import { listProducts, newestSpecs, type Product, takenByProduct } from "@/server/products/products";
import { byKind } from "@/server/shared/by-kind";

/** How many products without demand are considered for what could be made instead; no product with demand is left out. */
export const SOME_OTHERS = 60;
export const ALL_OTHERS = Number.POSITIVE_INFINITY;

/** A line of the list as the workshop keeps it. */
export interface DemandRow extends DemandLine {
  productName: string;
  /** Pieces asked for altogether, and poured already; `count` is what is left of them. */
  asked: number;
  made: number;
  version: number;
}

/** Returns what a workshop plans with; what nobody set is as usual. */
export async function readPlanning(
  db: Database | Transaction,
  workshopId: string,
): Promise<{ settings: PlanningSettings; calendarKey: string | null; version: number }> {
  const [row] = await db.select().from(planningSettingRows).where(eq(planningSettingRows.workshopId, workshopId));
  const read = planningSettings.safeParse(row?.settings ?? {});
  return { settings: read.success ? read.data : planningSettings.parse({}), calendarKey: row?.calendarKey ?? null, version: row?.version ?? 0 };
}

/** A day as it was left, and how often it was written; null if nobody has planned it. */
export async function readDay(db: Database, workshopId: string, on: string): Promise<{ kept: DayRecord | null; version: number }> {
  const [row] = await db
    .select()
    .from(dayPlans)
    .where(and(eq(dayPlans.workshopId, workshopId), eq(dayPlans.on, on)));
  const read = dayRecord.safeParse(row?.data);
  return { kept: read.success ? read.data : null, version: row?.version ?? 0 };
}

/** Returns what is wanted, the day it is wanted first; stock without a day last. */
export async function listDemand(db: Database | Transaction, workshopId: string, names: ReadonlyMap<string, string>): Promise<DemandRow[]> {
  const rows = await db
    .select()
    .from(demandLines)
    .where(and(eq(demandLines.workshopId, workshopId), eq(demandLines.deleted, false)))
    .orderBy(asc(demandLines.wantedOn), asc(demandLines.at), asc(demandLines.id));
  return rows
    .filter((row) => row.made < row.count)
    .map((row) => ({
      id: row.id,
      productId: row.productId,
      productName: names.get(row.productId) ?? "",
      count: row.count - row.made,
      asked: row.count,
      made: row.made,
      wantedOn: row.wantedOn,
      note: row.note,
      version: row.version,
    }));
}

/** The container of a product as it is planned, with its wicks; null if it is not on the shelf any more. */
export function chosenOf(product: Pick<Product, "containerId" | "wickId" | "wicks" | "embeds">, shelf: Shelf): Omit<ChosenProduct, "count"> | null {
  const wick = shelf.wicks.find((wick) => wick.id === product.wickId);
  const chosenWicks = wick ? wicksOf(wick, product.wicks) : null;
  const embeds = embedsOf(product.embeds, shelf.embeds);
  const vessel = shelf.vessels.find((vessel) => vessel.id === product.containerId);
  if (vessel) return { ...vessel, container: "vessel", chosenWicks, embeds };
  const mold = shelf.molds.find((mold) => mold.id === product.containerId);
  return mold ? { ...mold, container: "mold", statedFillMg: mold.fillMg, workingFillMg: mold.fillMg, soldByWeight: false, chosenWicks, embeds } : null;
}

interface Made {
  product: Product;
  spec: FormulaSpec;
  container: Omit<ChosenProduct, "count">;
}

const forSeason = ({ product, spec, container }: Made): DemandProduct => ({
  id: product.id,
  name: product.name,
  formulaId: product.formulaId,
  formulaName: product.formulaName,
  process: spec.process,
  components: namedIn(spec).length,
  // Where what is laid in leaves no room, the plan of the batch says so.
  fillMg: Math.max(1, container.workingFillMg - displacedMg(container.embeds)),
  tested: product.wickId === null || product.wickTest === "tested",
  wicked: product.wickId !== null,
});

/** Returns all that a season is planned from. `choices` are all products by name, to be wanted; of those that are not wanted, so many are looked at too. */
export async function readDemandPlan(db: Database, workshop: { id: string; timeZone: string }, others = 0) {
  const all = (await listProducts(db, workshop.id)).filter((product) => !product.archived);
  const [lines, { settings, version, calendarKey }] = await Promise.all([
    listDemand(db, workshop.id, new Map(all.map((product) => [product.id, product.name]))),
    readPlanning(db, workshop.id),
  ]);
  const asked = new Set(lines.map((line) => line.productId));
  const looked = [...all.filter((product) => asked.has(product.id)), ...all.filter((product) => !asked.has(product.id)).slice(0, others)];
  const specs = await newestSpecs(
    db,
    workshop.id,
    looked.map((product) => product.formulaId),
  );
  const shelf = await readPickList(db, workshop.id, [...new Set([...looked.flatMap(takenByProduct), ...[...specs.values()].flatMap(namedIn)])], 0);
  const made = looked.flatMap((product): Made[] => {
    const spec = specs.get(product.formulaId);
    const container = chosenOf(product, shelf);
    return spec && container ? [{ product, spec, container }] : [];
  });
  return { lines, settings, version, calendarKey, products: made.map(forSeason), choices: all.map(({ id, name }) => ({ id, name })), made, shelf };
}
export type DemandPlanRead = Awaited<ReturnType<typeof readDemandPlan>>;

/** Returns what batches that are on have still to take, by material. */
async function promisedOf(db: Database, workshopId: string): Promise<Map<string, number>> {
  const open = await db
    .select({ plan: batches.plan, state: batches.state })
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), eq(batches.stage, "pot"), eq(batches.drawsStock, true)));
  const out = new Map<string, number>();
  for (const { plan, state } of open)
    for (const line of gathered(billOf(readableOf(plan).plan))) {
      // What was lost is drawn a second time.
      const lost = Object.entries(state?.lost ?? {}).reduce((sum, [key, mg]) => sum + (key.endsWith(`:${line.materialId}`) ? mg : 0), 0);
      const left = line.amount + lost - (state?.drawn[line.materialId]?.amount ?? 0);
      if (left > 0) out.set(line.materialId, (out.get(line.materialId) ?? 0) + left);
    }
  return out;
}

/** Returns what the products of a season take from the shelf, and what is there of it. */
export async function readSupplies(db: Database, workshop: { id: string; timeZone: string }, { made, shelf, settings, lines }: DemandPlanRead) {
  const asked = new Set(lines.map((line) => line.productId));
  const draws: [string, [string, number][]][] = made.flatMap(({ product, spec, container }): [string, [string, number][]][] => {
    if (!asked.has(product.id)) return [];
    try {
      const draw = drawOfPiece({ spec, vessel: container, sparePpm: settings.sparePpm }, shelf);
      return [[product.id, [...draw, ...packagingPerPiece(product.packaging, product.pack)]]];
    } catch (error) {
      // A formula that names what no longer exists draws nothing that is known.
      if (error instanceof WeighOutError) return [];
      throw error;
    }
  });
  const ids = [...new Set(draws.flatMap(([, each]) => each.map(([id]) => id)))];
  const { instrument: _tools, mold: _molds, ...kinds } = byKind(shelf);
  const [stocks, promised, bought] = await Promise.all([
    readStocks(db, workshop.id, workshop.timeZone, ids),
    promisedOf(db, workshop.id),
    ids.length === 0
      ? []
      : db
          .selectDistinctOn([lots.materialId], { materialId: lots.materialId, amount: lots.amount, cost: lots.cost })
          .from(lots)
          .where(and(eq(lots.workshopId, workshop.id), eq(lots.withdrawn, false), inArray(lots.materialId, ids)))
          .orderBy(lots.materialId, desc(lots.receivedOn), desc(lots.id)),
  ]);
  const stores = Object.entries(kinds).flatMap(([kind, rows]) =>
    rows.flatMap((row): Store[] => {
      if (!ids.includes(row.id)) return [];
      const lot = bought.find((item) => item.materialId === row.id);
      return [
        {
          id: row.id,
          name: row.name,
          kind,
          counted: isCounted(kind as Parameters<typeof isCounted>[0]),
          onHand: stocks[row.id]?.onHand ?? null,
          promised: promised.get(row.id) ?? 0,
          pack: lot ? { amount: lot.amount, cost: lot.cost } : null,
        },
      ];
    }),
  );
  return { draws, stores };
}

/** What the plan asks of today, and what is wrong with it. */
export interface PlanNews {
  /** Pots that are poured today, by their formulas. */
  today: string[];
  late: number;
  minimum: number;
  /** Products that are planned and were not tested. */
  untested: string[];
  /** What runs short, and the day on which it does. */
  short: { name: string; by: string | null }[];
}

/** Null where nothing is wanted. */
export async function readPlanNews(db: Database, workshop: { id: string; timeZone: string }, now: string): Promise<PlanNews | null> {
  const read = await readDemandPlan(db, workshop);
  if (read.lines.length === 0) return null;
  const { draws, stores } = await readSupplies(db, workshop, read);
  const demandPlan = planDemand(read.lines, read.products, read.settings, { now, zone: workshop.timeZone });
  const day = dayAt(now, workshop.timeZone);
  const planned = new Set(demandPlan.pots.flatMap((pot) => pot.lines.map((line) => line.productId)));
  const { late, minimum } = missOf(demandPlan);
  return {
    today: demandPlan.pots.filter((pot) => pot.day === day).map((pot) => pot.formulaName),
    late,
    minimum,
    untested: read.products.filter((product) => planned.has(product.id) && !product.tested).map((product) => product.name),
    short: shoppingOf(demandPlan.pots, new Map(draws.map(([id, each]) => [id, new Map(each)])), stores).map(({ name, by }) => ({ name, by })),
  };
}
