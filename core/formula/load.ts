import { type Ppm, WHOLE } from "../quantity/percent";

/**
 * What "10 % fragrance" is a share of. Makers use both, so it is always said.
 * "wax": fragrance ÷ wax (most makers and suppliers). "total": fragrance ÷ (wax + fragrance).
 */
export type LoadBasis = "wax" | "total";

/** The same load read on the other basis: 8 % of the wax is 7.41 % of the total. Unrounded millionths. */
export function loadOnBasis(load: Ppm, from: LoadBasis, to: LoadBasis): number {
  if (from === to) return load;
  return to === "total" ? (load * WHOLE) / (WHOLE + load) : (load * WHOLE) / (WHOLE - load);
}

/** Loads above this, on the wax's basis, are refused as a slip of the hand: more oil than wax is no candle. */
export const LARGEST_LOAD_PERCENT: Record<LoadBasis, number> = { wax: 100, total: 50 };

/** "One ounce a pound" is 6.25 % of the wax: 1 / 16. Common practice, no source. */
export const OUNCE_PER_POUND: Ppm = 62_500;
