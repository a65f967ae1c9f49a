import { drawOfPiece, embedsOf, type FormulaSpec, isCounted, notToBeFilled, WeighOutError, wicksOf } from "@hearth/core";
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

/** The newest specification of each formula, by its id. */
export type Specs = Readonly<Record<string, FormulaSpec>>;

/** A line for each product; where there are none, two formulas, each in the two vessels that there is most of. */
export function firstLines(products: readonly Product[], formulas: readonly { id: string }[], shelf: Shelf, stocks: Stocks): FillLine[] {
  if (products.length > 0) return products.map((product, index) => ({ key: `p${index}`, product, formula: product.formulaId, container: product.containerId }));
  const room = (item: Shelf["vessels"][number]) => (stocks[item.id]?.onHand ?? 0) * item.workingFillMg;
  const full = shelf.vessels
    .filter((vessel) => !vessel.archived && vessel.state === "for sale" && notToBeFilled(vessel) === null)
    .sort((a, b) => room(b) - room(a))
    .slice(0, 2);
  return formulas
    .slice(0, 2)
    .flatMap((formula, row) => full.map((vessel, column) => ({ key: `p${row * 2 + column}`, product: null, formula: formula.id, container: vessel.id })));
}

/** Returns what one piece of a line takes from the shelf, by material; kept, since it is asked for at every stroke. Empty where it cannot be made. */
export function drawsFrom(specs: Specs, shelf: Shelf): (line: FillLine, sparePpm: number) => Map<string, number> {
  const known = new Map<string, Map<string, number>>();
  const containers = new Map(containersOf(shelf, notToBeFilled).map((container) => [container.id, container]));
  return (line, sparePpm) => {
    const key = `${line.formula} ${line.container} ${line.product?.id ?? ""} ${sparePpm}`;
    const there = known.get(key);
    if (there) return there;
    const spec = specs[line.formula];
    const container = containers.get(line.container);
    if (!spec || !container) return new Map();
    const wick = line.product ? shelf.wicks.find((wick) => wick.id === line.product?.wickId) : suitedWick(container, familyOf({ spec }, shelf), shelf.wicks);
    const count = line.product?.wicks ?? shelf.vessels.find((vessel) => vessel.id === container.id)?.wicks ?? 1;
    const chosenWicks = wick ? wicksOf(wick, count) : null;
    try {
      const draw = drawOfPiece({ spec, vessel: { ...container, chosenWicks, embeds: embedsOf(line.product?.embeds, shelf.embeds) }, sparePpm }, shelf);
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
    ...shelf.waxes.map((wax) => ({ ...wax, is: "wax" as const, density: undefined })),
    ...shelf.fragrances.map((fragrance) => ({ ...fragrance, is: "fragrance" as const })),
    ...shelf.additives.map((additive) => ({ ...additive, is: "additive" as const, density: undefined })),
    ...shelf.dyes.map((dye) => ({ ...dye, is: "dye" as const, density: undefined })),
    ...shelf.vessels.map((vessel) => ({ ...vessel, is: "vessel" as const, density: undefined })),
    ...shelf.wicks.map((wick) => ({ ...wick, is: "wick" as const, density: undefined })),
    ...shelf.embeds.map((embed) => ({ ...embed, is: "embed" as const, density: undefined })),
  ];
  return ids.flatMap((id) => {
    const row = rows.find((row) => row.id === id);
    return row ? [{ id, name: row.name, is: row.is, counted: isCounted(row.is), density: row.density }] : [];
  });
}
