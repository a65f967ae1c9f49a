import {
  type ChosenProduct,
  costOf,
  costOfProduct,
  type DueReason,
  drawOfPiece,
  embedsOf,
  type FormulaSpec,
  type Materials,
  marginOf,
  mostAlone,
  packagingDraw,
  packagingPerPiece,
  type Rates,
  WeighOutError,
  type WickTest,
  wicksOf,
  wouldTake,
} from "@hearth/core";
import type { Shelf, Stocks } from "@/server/inventory/shelf";
import type { Product } from "@/server/products/products";

type ProductContainer = Omit<ChosenProduct, "count"> & { outerUm?: number | null; outerHeightUm?: number | null };

/** A container of the shelf as it is filled: a vessel, or a mold. */
export function containerOf(shelf: Pick<Shelf, "vessels" | "molds">, of: Pick<Product, "container" | "containerId">): ProductContainer | null {
  if (of.container === "vessel") {
    const vessel = shelf.vessels.find((vessel) => vessel.id === of.containerId);
    return vessel ? { ...vessel, container: "vessel" } : null;
  }
  const mold = shelf.molds.find((mold) => mold.id === of.containerId);
  return mold ? { ...mold, container: "mold", statedFillMg: mold.fillMg, workingFillMg: mold.fillMg, soldByWeight: false } : null;
}

export const DUE_WORDS: Record<DueReason, string> = {
  scent: "the scent was changed",
  load: "the load was changed by more than a point",
  wax: "the wax was changed",
  vessel: "the vessel was changed",
  wick: "the wick was changed",
};

export const TEST_WORDS: Record<WickTest, string> = { tested: "wick tested", "test due": "burn test due", failed: "burn test failed" };

/** The spare that a cost is reckoned with, in millionths of what is poured. */
const SPARE = 50_000;

/** Returns what one piece costs and draws, what is left of the price, and for how many the shelf holds enough; null if it cannot be made. */
export function reckon(product: Omit<Product, "formulaName">, spec: FormulaSpec, shelf: Shelf, stocks: Stocks, rates: Rates) {
  const container = containerOf(shelf, product);
  if (!container) return null;
  const wick = shelf.wicks.find((wick) => wick.id === product.wickId);
  const chosenWicks = wick ? wicksOf(wick, product.wicks) : null;
  try {
    const draw = drawOfPiece(
      { spec, vessel: { ...container, chosenWicks, embeds: embedsOf(product.embeds, shelf.embeds) }, sparePpm: SPARE },
      shelf as Materials,
    );
    const left = (id: string) => stocks[id]?.left ?? [];
    const parts = packagingDraw(product.packaging, 1).map(({ id, count }) => ({ id, ...costOf(wouldTake(left(id), count)) }));
    const packCost = (product.packCost ?? 0) + parts.reduce((sum, item) => sum + item.cost, 0);
    const worked = costOfProduct({ ...product, packCost }, draw, left, rates);
    const { lines, cost } = worked;
    const unpriced = [...worked.unpriced, ...parts.filter((part) => part.unknown > 0).map((part) => part.id)];
    const tracked = [...draw, ...packagingPerPiece(product.packaging, product.pack)].filter(([id]) => stocks[id]);
    const most = mostAlone(
      tracked.map(([, amount]) => amount),
      tracked.map(([id]) => Math.max(0, stocks[id]?.onHand ?? 0)),
    );
    return {
      container,
      lines,
      cost,
      unpriced,
      margin: marginOf(product.price, product.pack, cost),
      enough: most && { n: most.n, by: tracked[most.limitedBy]?.[0] ?? "" },
    };
  } catch (error) {
    if (error instanceof WeighOutError) return null;
    throw error;
  }
}

/** Returns the name of anything of the shelf that a product takes. */
export const nameIn = (shelf: Shelf, id: string): string =>
  [
    ...shelf.waxes,
    ...shelf.fragrances,
    ...shelf.additives,
    ...shelf.dyes,
    ...shelf.vessels,
    ...shelf.wicks,
    ...shelf.molds,
    ...shelf.embeds,
    ...shelf.packs,
  ].find((item) => item.id === id)?.name ?? "something no longer here";
