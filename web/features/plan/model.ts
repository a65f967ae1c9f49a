import {
  type BatchPlan,
  billOf,
  type ChosenProduct,
  costOf,
  costPerPiece,
  drawing,
  type FillPart,
  type FormulaSpec,
  gathered,
  marginOf,
  materialsOf,
  notToBeFilled,
  overheadCosts,
  type PieceCost,
  type Planned,
  type PlanOrder,
  type Process,
  passCostsOn,
  planBatch,
  type Rates,
  type Scale,
  type Scales,
  scalesFor,
  WeighOutError,
  wicksSuiting,
  workOut,
} from "@hearth/core";
import type { CustomProcess, PresetChoice } from "@/server/formulas/processes";
import type { Shelf, Stocks } from "@/server/inventory/shelf";
import type { Product } from "@/server/products/products";

export interface PlanFormula {
  id: string;
  name: string;
  versionId: string;
  number: number;
  spec: FormulaSpec;
}

/** One line of a plan: a product of the workshop, or a container of the shelf that is filled with the formula. */
export interface Line {
  key: string;
  product: Product | null;
  container: PlannedContainer;
}

/** The lines of a plan: the formula's products, then the containers that are not among them, and what was added by hand. */
export function linesOf(containers: readonly PlannedContainer[], products: readonly Product[], added: readonly string[], most: number): Line[] {
  const own = products.flatMap((product): Line[] => {
    const container = containers.find((container) => container.id === product.containerId);
    return container ? [{ key: product.id, product, container }] : [];
  });
  const rest = containers.filter((container) => !own.some((line) => line.container.id === container.id));
  const shown = rest.filter((container, index) => index < most || added.includes(container.id));
  return [...own, ...shown.map((container): Line => ({ key: container.id, product: null, container }))];
}

/** A container that can be filled: a vessel, or a mold. */
export type PlannedContainer = Omit<ChosenProduct, "count" | "part" | "chosenWicks"> & { state: string; family?: string; sizeEstimated?: boolean };

/** Returns the vessels of the shelf that must not be filled, each with the reason. */
export const refusedVessels = (shelf: Shelf): string[] => shelf.vessels.filter((vessel) => !vessel.archived).flatMap((vessel) => notToBeFilled(vessel) ?? []);

/** Returns what stands on the shelf to be filled: vessels for sale, test candles, then molds. */
export function containersOf(shelf: Shelf, whyNot: (vessel: Shelf["vessels"][number]) => string | null): PlannedContainer[] {
  const vessels = shelf.vessels
    .filter((vessel) => !vessel.archived && whyNot(vessel) === null)
    .sort((a, b) => Number(a.state === "test jar") - Number(b.state === "test jar"))
    .map((vessel): PlannedContainer => ({ ...vessel, container: "vessel" }));
  const molds = shelf.molds
    .filter((mold) => !mold.archived)
    .map(
      (mold): PlannedContainer => ({
        id: mold.id,
        container: "mold",
        name: mold.name,
        statedFillMg: mold.fillMg,
        workingFillMg: mold.fillMg,
        soldByWeight: false,
        innerTopUm: mold.innerTopUm,
        innerBottomUm: mold.innerBottomUm,
        heightUm: mold.heightUm,
        cavities: mold.cavities,
        state: mold.kind,
      }),
    );
  return [...vessels, ...molds];
}

/** Returns the wick of the shelf that is said to suit a container and a family of wax best: the narrowest span that holds its diameter. None for melts. */
export function suitedWick(container: PlannedContainer, family: string, wicks: Shelf["wicks"]): Shelf["wicks"][number] | null {
  if (container.state === "melt tray" || container.state === "silicone mold" || container.use === "melts") return null;
  return wicksSuiting(wicks, container, family)[0] ?? null;
}

export interface ProcessChoice {
  value: string;
  name: string;
  process: Process;
}
/** Returns the processes to choose from: the formula's own first, then the workshop's, then the ready-made that suit. */
export function processChoices(formula: PlanFormula | null, own: readonly CustomProcess[], ready: readonly PresetChoice[], family: string): ProcessChoice[] {
  return [
    ...(formula ? [{ value: "formula", name: `the formula's own: ${formula.spec.process.name}`, process: formula.spec.process }] : []),
    ...own.map((customProcess) => ({ value: `own:${customProcess.id}`, name: customProcess.name, process: customProcess.process })),
    ...ready
      .filter((presetChoice) => presetChoice.families.includes(family))
      .map((presetChoice) => ({ value: `ready:${presetChoice.id}`, name: presetChoice.name, process: presetChoice.process })),
  ];
}

export const scalesOfShelf = (shelf: Shelf): Scale[] =>
  shelf.instruments.flatMap((instrument) =>
    instrument.kind === "scale" && instrument.resolutionUg
      ? [{ id: instrument.id, name: instrument.name, resolutionUg: instrument.resolutionUg, unit: instrument.scaleUnit, capacityMg: instrument.capacityMg }]
      : [],
  );

export interface Wanted {
  process: Process;
  pots: PlanFormula[];
  products: ChosenProduct[];
  start?: PlanOrder["start"];
  sparePpm: number;
  staysMg: number | null;
  pitcherMg: number | null;
  scales: Scale[];
  /** Chosen by hand; what suits where nothing is. */
  waxScale: string;
  oilScale: string;
}

export type Worked =
  | { ok: true; planned: Planned; plan: BatchPlan; scales: Scales; spareMg: number }
  | { ok: false; field: "vessels" | "load_percent" | "start" | "pitcher_capacity_g" | "scale"; message: string };

/** Works a plan out: amounts, scales and what stays in the pitchers; or says what is in its way. */
export function workPlan(wanted: Wanted, shelf: Shelf): Worked {
  const { scales } = wanted;
  const asked = wanted.products.reduce((sum, product) => sum + product.workingFillMg * product.count, 0);
  const load = Math.max(0, ...wanted.pots.map((pot) => pot.spec.loadPpm / 1_000_000));
  const suited = scalesFor(scales, Math.round((wanted.start ? ("waxMg" in wanted.start ? wanted.start.waxMg : wanted.start.totalMg) : asked) * load));
  if (!suited)
    return {
      ok: false,
      field: "scale",
      message: "There is no scale on the shelf. Add yours, with what it reads to: amounts are rounded to it.",
    };
  const chosen: Scales = {
    wax: scales.find((scale) => scale.id === wanted.waxScale) ?? suited.wax,
    oil: scales.find((scale) => scale.id === wanted.oilScale) ?? suited.oil,
  };
  const order: PlanOrder = {
    process: wanted.process,
    pots: wanted.pots,
    products: wanted.products,
    start: wanted.start,
    sparePpm: wanted.sparePpm,
    pitcherMg: wanted.pitcherMg,
    scales: chosen,
  };
  try {
    let planned = workOut(order, shelf);
    let spareMg = 0;
    if (wanted.staysMg && !wanted.start) {
      // What stays in the pitchers can itself ask for one pitcher more.
      const pitchers = (total: number) => (wanted.pitcherMg ? Math.ceil(total / wanted.pitcherMg) : 1);
      const most = Math.max(...planned.pots.map((pot) => pot.totalMg));
      spareMg = wanted.staysMg * pitchers(most);
      spareMg = wanted.staysMg * pitchers(most + spareMg);
      planned = workOut({ ...order, spareMg }, shelf);
    }
    return { ok: true, planned, plan: planBatch({ ...order, spareMg }, shelf), scales: chosen, spareMg };
  } catch (error) {
    if (!(error instanceof WeighOutError)) throw error;
    return { ok: false, field: error.field, message: error.message };
  }
}

/** Returns what the plan takes and there is not enough of. Pieces of a vessel that are kept as test jars are not for sale. */
export const shortagesOf = (plan: BatchPlan, stocks: Stocks, vessels: readonly { id: string; testJars: number }[] = []) =>
  gathered(billOf(plan)).flatMap((line) => {
    const onHand = stocks[line.materialId]?.onHand;
    const there = onHand === undefined ? undefined : onHand - (vessels.find((vessel) => vessel.id === line.materialId)?.testJars ?? 0);
    return there !== undefined && there < line.amount ? [{ ...line, there: Math.max(0, there) }] : [];
  });

/** What one piece would cost, and what is left of the price where a product says it. */
export interface PlannedCost extends PieceCost {
  margin: ReturnType<typeof marginOf>;
}

/**
 * Returns what one piece of each line would cost from the oldest lots, with its pack, hands and heat where it is a product; nothing
 * where no lot of what is in the pots has a cost. Lines and the plan's products stand in one order.
 */
export function costsOf(plan: BatchPlan, stocks: Stocks, picked: readonly { key: string }[], products: readonly Product[], rates: Rates): PlannedCost[] {
  return materialCosts(plan, stocks).map((materialCost, index) => {
    const product = products.find((other) => other.id === picked[index]?.key);
    if (!product) return { ...materialCost, margin: null };
    const cost = materialCost.cost + overheadCosts(product, rates).reduce((sum, line) => sum + line.cost, 0);
    return { key: materialCost.key, cost, margin: marginOf(product.price, product.pack, cost) };
  });
}

function materialCosts(plan: BatchPlan, stocks: Stocks): PieceCost[] {
  // Each lot is taken once: by the pots in their order, then by the products in theirs.
  const takers = new Map<string, ReturnType<typeof drawing>>();
  const cost = (id: string, amount: number) => {
    const take = takers.get(id) ?? drawing(stocks[id]?.left ?? []);
    takers.set(id, take);
    return costOf(take(amount)).cost;
  };
  const potCosts = plan.pots.map(() => 0);
  const parts = new Map<string, number>();
  for (const line of billOf(plan)) {
    const of = cost(line.materialId, line.amount);
    if ("pot" in line.for) potCosts[line.for.pot] = (potCosts[line.for.pot] ?? 0) + of;
    else parts.set(line.for.product, (parts.get(line.for.product) ?? 0) + of);
  }
  if (potCosts.reduce((sum, value) => sum + value, 0) <= 0) return [];
  return costPerPiece(
    passCostsOn(plan, potCosts),
    plan.products.map((product) => ({
      key: product.key,
      fillsMg: product.fillsMg ?? [product.fillMg],
      count: product.count,
      pieceCost: (parts.get(product.key) ?? 0) / product.count,
    })),
  );
}

export const familyOf = (formula: Pick<PlanFormula, "spec"> | null, shelf: Shelf): string =>
  formula ? (materialsOf(formula.spec, shelf).named[0]?.family ?? "") : "";
export type Part = FillPart | null;
