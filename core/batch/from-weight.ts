import type { Milligrams } from "../units/mass";

export interface WeightFills {
  /** What the chosen products take, filled whole. */
  neededMg: Milligrams;
  /** How full the weight fills them, 1 for whole. */
  ratio: number;
  /** What is missing to fill them whole; 0 where nothing is. */
  shortMg: Milligrams;
  /** What is left over where they are filled whole; 0 where nothing is. */
  restMg: Milligrams;
  /** Of a single product, how many the weight fills whole; null for several. */
  whole: number | null;
}

/** Less than this is no difference: what a fill varies by anyway. Common practice, no source. */
const SAME = 0.005;

/** Returns what a weight fills of the chosen products: how full, and what is short or left over. Needs at least one product with a count. */
export function weightFills(totalMg: Milligrams, products: readonly { count: number; fillMg: Milligrams }[]): WeightFills {
  const neededMg = products.reduce((sum, item) => sum + item.count * item.fillMg, 0);
  const ratio = totalMg / neededMg;
  const [only] = products;
  return {
    neededMg,
    ratio,
    shortMg: ratio < 1 - SAME ? neededMg - totalMg : 0,
    restMg: ratio > 1 + SAME ? totalMg - neededMg : 0,
    whole: products.length === 1 && only ? Math.floor((totalMg * (1 + SAME)) / only.fillMg) : null,
  };
}

/** Returns what a rest of wax still makes: the piece that leaves least of it, and how many; null if none of them fits. */
export function restMakes<P extends { fillMg: Milligrams }>(restMg: Milligrams, pieces: readonly P[]): { piece: P; count: number; leftMg: Milligrams } | null {
  const fits = pieces.flatMap((piece) => {
    const count = Math.floor(restMg / piece.fillMg);
    return count > 0 ? [{ piece, count, leftMg: restMg - count * piece.fillMg }] : [];
  });
  return fits.sort((a, b) => a.leftMg - b.leftMg || a.count - b.count)[0] ?? null;
}
