import type { Packaging } from "./pack-schema";

export const NO_PACKAGING: Packaging = { boxId: null, parts: [] };

/** Something that is sold by the pack: a product in its own pack, or a set of several products. */
export interface Sellable {
  id: string;
  name: string;
  kind: "product" | "set";
  contents: { productId: string; name: string; count: number }[];
  packaging: Packaging;
  /** Of one pack, in minor units. */
  price: number | null;
}

/** Returns what so many packs take from the shelf, by the part's id; nothing where no packing is stated. */
export function packagingDraw(of: Packaging | null, packs: number): { id: string; count: number }[] {
  if (!of) return [];
  const sums = new Map<string, number>();
  for (const { id, count } of [...(of.boxId ? [{ id: of.boxId, count: 1 }] : []), ...of.parts]) sums.set(id, (sums.get(id) ?? 0) + count * packs);
  return [...sums].map(([id, count]) => ({ id, count }));
}

/** Returns what one piece takes of the packing of its pack, by the part's id: a sixth of a box where six go into one. */
export const packagingPerPiece = (of: Packaging | null, pack: number): [id: string, share: number][] =>
  packagingDraw(of, 1).map(({ id, count }) => [id, count / Math.max(1, pack)]);

/** Something that is there in lots, the first in before the later. */
export interface InLots {
  id: string;
  left: number;
}

/** Takes from lots in their order, first in first out; `short` is what they do not hold. */
export function takeFirst(lots: readonly InLots[], needed: number): { taken: { id: string; count: number }[]; short: number } {
  const taken: { id: string; count: number }[] = [];
  let rest = needed;
  for (const lot of lots) {
    if (rest <= 0) break;
    const count = Math.min(rest, lot.left);
    if (count > 0) taken.push({ id: lot.id, count });
    rest -= Math.max(0, count);
  }
  return { taken, short: Math.max(0, rest) };
}

/** Returns whether it holds no candle: goods that are resold as they were bought, drawn from the shelf when they are made ready for sale. */
export const isResold = (sellable: { contents: readonly unknown[] }): boolean => sellable.contents.length === 0;

/** Returns how many packs loose pieces are enough for: by the product of which there are fewest. None where no product is in it. */
export const packsFrom = (contents: readonly { productId: string; count: number }[], loose: ReadonlyMap<string, number>): number =>
  contents.length === 0 ? 0 : Math.min(...contents.map((content) => Math.floor((loose.get(content.productId) ?? 0) / Math.max(1, content.count))));

/** Returns how many packs the parts on hand are enough for; a part whose stock is not kept limits nothing, and where none is kept it is null. */
export function packsOfParts(packaging: Packaging, onHand: (id: string) => number | null): number | null {
  const counts = packagingDraw(packaging, 1).flatMap(({ id, count }) => {
    const there = onHand(id);
    return there === null ? [] : [Math.floor(Math.max(0, there) / count)];
  });
  return counts.length > 0 ? Math.min(...counts) : null;
}
