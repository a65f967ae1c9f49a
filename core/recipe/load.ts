import { type MassUnit, parseMassExactly } from "../units/mass";
import { writeNumber } from "../units/number";
import { bad, good, type Parsed } from "../units/parsed";
import { type Ppm, parsePercent, WHOLE } from "../units/percent";

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

/**
 * Reads a load: percent on the basis chosen, or fragrance to wax by weight, "1.28 oz/lb", "1 oz a pound", "80 g per kg", "28 g to 454 g".
 * What is said per pound or kilogram is a share of the wax, and is turned onto the basis. Gives millionths on `basis`.
 */
export function parseLoad(text: string, basis: LoadBasis): Parsed<Ppm> {
  const per = /^(.*?\S)\s*(?:\/|\bper\b|\ban?\b|\bto(?: the)?\b)\s*([\d.,]*\s*(?:lb|pound|kg|kilo|kilogram|g|gram|oz|ounce)s?)\s*(?:of wax)?$/i.exec(
    text.trim(),
  );
  if (!per) return parsePercent(text, { least: 0, most: LARGEST_LOAD_PERCENT.wax, name: "a load" });
  const oil = parseMassExactly(per[1] ?? "", "g");
  if (!oil.ok) return oil;
  const wax = parseMassExactly(/\d/.test(per[2] ?? "") ? (per[2] ?? "") : `1 ${per[2]}`, "g");
  if (!wax.ok) return wax;
  const ofWax = (oil.value * WHOLE) / wax.value;
  if (!(ofWax >= 0)) return bad("too-small", `“${text.trim()}” is no load: both weights must be more than nothing.`);
  if (ofWax > LARGEST_LOAD_PERCENT.wax * 10_000) return bad("too-large", `“${text.trim()}” is more fragrance than wax. Look again at the two weights.`);
  return good(Math.round(loadOnBasis(ofWax, "wax", basis)));
}

/** A load of the wax as makers weigh it out: "1.28 oz to the pound", "80 g to the kilogram". */
export function writePerWeight(ofWaxPpm: number, unit: MassUnit): string {
  const share = ofWaxPpm / WHOLE;
  return unit === "oz" ? `${writeNumber(share * 16, 3)} oz to the pound` : `${writeNumber(share * 1_000, 1)} g to the kilogram`;
}
