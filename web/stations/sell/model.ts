import { LEAST_STATED_G, MOST_STATED_G, type PackedBody, packedBodyOf, type Sellable } from "@hearth/core";

/** A product as it is packed: its body, and the weight it states where it is sold by weight. */
export interface Inside {
  productId: string;
  statedMg: number;
  soldByWeight: boolean;
  body: Parameters<typeof packedBodyOf>[0];
}

/** What goes into one pack, and the weight that is stated on it; null where it is not sold by weight, or the rules do not cover it. */
export function bodiesIn(sellable: Sellable | undefined, inside: readonly Inside[]): { bodies: PackedBody[]; guessed: boolean; statedMg: number | null } {
  const of = (sellable?.contents ?? []).flatMap((one) => {
    const product = inside.find((each) => each.productId === one.productId);
    return product ? [{ product, count: one.count }] : [];
  });
  const bodies = of.map(({ product, count }) => packedBodyOf(product.body, count));
  const stated = of.reduce((sum, { product, count }) => sum + product.statedMg * count, 0);
  const covered = stated / 1_000 >= LEAST_STATED_G && stated / 1_000 <= MOST_STATED_G;
  return {
    bodies,
    guessed: bodies.some((one) => one.guessed),
    statedMg: of.length > 0 && of.every(({ product }) => product.soldByWeight) && covered ? stated : null,
  };
}
