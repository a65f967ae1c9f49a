import { drawOfPiece, type FormulaSpec, notToBeFilled, WeighOutError, wicksOf } from "@hearth/core";
import type { Shelf, Stocks } from "@/server/inventory/shelf";
import type { Product } from "@/server/products/products";
import { containersOf, familyOf, suitedWick } from "./model";

/** One thing that could be made: a product of the workshop, or a formula in a vessel. */
export interface FillLine {
  key: string;
  product: Product | null;
  formula: string;
  container: string;
}

/** What each formula says, by its id. */
export type Specs = Readonly<Record<string, FormulaSpec>>;

/** A line for each product; where there are none, two formulas, each in the two vessels that there is most of. */
export function firstLines(products: readonly Product[], formulas: readonly { id: string }[], shelf: Shelf, stocks: Stocks): FillLine[] {
  if (products.length > 0) return products.map((product, at) => ({ key: `p${at}`, product, formula: product.formulaId, container: product.containerId }));
  const room = (one: Shelf["vessels"][number]) => (stocks[one.id]?.onHand ?? 0) * one.workingFillMg;
  const full = shelf.vessels
    .filter((one) => !one.archived && one.state === "for sale" && notToBeFilled(one) === null)
    .sort((a, b) => room(b) - room(a))
    .slice(0, 2);
  return formulas
    .slice(0, 2)
    .flatMap((one, row) => full.map((vessel, column) => ({ key: `p${row * 2 + column}`, product: null, formula: one.id, container: vessel.id })));
}

/** What one piece of a line takes from the shelf, by material; kept, since it is asked for at every stroke. Empty where it cannot be made. */
export function drawsFrom(specs: Specs, shelf: Shelf): (line: FillLine, sparePpm: number) => Map<string, number> {
  const known = new Map<string, Map<string, number>>();
  const containers = new Map(containersOf(shelf, notToBeFilled).map((one) => [one.id, one]));
  return (line, sparePpm) => {
    const key = `${line.formula} ${line.container} ${line.product?.id ?? ""} ${sparePpm}`;
    const there = known.get(key);
    if (there) return there;
    const spec = specs[line.formula];
    const container = containers.get(line.container);
    if (!spec || !container) return new Map();
    const wick = line.product ? shelf.wicks.find((one) => one.id === line.product?.wickId) : suitedWick(container, familyOf({ spec }, shelf), shelf.wicks);
    const count = line.product?.wicks ?? shelf.vessels.find((one) => one.id === container.id)?.wicks ?? 1;
    const chosenWicks = wick ? wicksOf(wick, count) : null;
    try {
      const draw = drawOfPiece({ spec, vessel: { ...container, chosenWicks }, sparePpm }, shelf);
      known.set(key, draw);
      return draw;
    } catch (error) {
      if (error instanceof WeighOutError) return new Map();
      throw error;
    }
  };
}

/** The materials of these ids, with how they are measured. */
export function limitingFrom(shelf: Shelf, ids: readonly string[]) {
  const rows = [
    ...shelf.waxes.map((one) => ({ ...one, is: "wax" as const, density: undefined })),
    ...shelf.fragrances.map((one) => ({ ...one, is: "fragrance" as const })),
    ...shelf.additives.map((one) => ({ ...one, is: "additive" as const, density: undefined })),
    ...shelf.dyes.map((one) => ({ ...one, is: "dye" as const, density: undefined })),
    ...shelf.vessels.map((one) => ({ ...one, is: "vessel" as const, density: undefined })),
    ...shelf.wicks.map((one) => ({ ...one, is: "wick" as const, density: undefined })),
  ];
  return ids.flatMap((id) => {
    const row = rows.find((one) => one.id === id);
    return row ? [{ id, name: row.name, is: row.is, counted: row.is === "vessel" || row.is === "wick", density: row.density }] : [];
  });
}
