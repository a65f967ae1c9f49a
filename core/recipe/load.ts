import { type MassUnit, parseMassExactly } from "../units/mass";
import { parseNumber, writeNumber } from "../units/number";
import { bad, good, type Parsed, type Unread } from "../units/parsed";
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

/** Returns the load that is asked for, in millionths of the wax: what else is weighed, in millionths of the wax, is a part of the total too. Unrounded. */
export const askedLoadOfWax = ({ basis, loadPpm }: { basis: LoadBasis; loadPpm: Ppm }, addedPpm: number): number =>
  loadOnBasis(loadPpm, basis, "wax") * (basis === "total" ? 1 + addedPpm / WHOLE : 1);

/** Returns what a recipe adds by weight beside wax and fragrance, in millionths of the wax: additives, and dyes by percent. */
export const addedPpmOf = (recipe: { additives?: readonly { ppm: Ppm }[] | undefined; dyes?: readonly { by: string; amount: number }[] | undefined }): number =>
  (recipe.additives ?? []).reduce((sum, item) => sum + item.ppm, 0) +
  (recipe.dyes ?? []).reduce((sum, item) => sum + (item.by === "percent" ? Math.round(item.amount * 10_000) : 0), 0);

/** Loads above this, on the wax's basis, are refused as a slip of the hand: more oil than wax is no candle. */
export const LARGEST_LOAD_PERCENT: Record<LoadBasis, number> = { wax: 100, total: 50 };

/** "One ounce a pound" is 6.25 % of the wax: 1 / 16. Common practice, no source. */
export const OUNCE_PER_POUND: Ppm = 62_500;

/** A bare figure below this, in percent, is more likely a factor: nobody scents wax with so little. Common practice, no source. */
const MIN_UNASKED_PERCENT = 0.5;

/**
 * Returns a question where a load was typed as a factor of the wax ("0.0625", "1/16", "22/278") or is so small that it may be one; null for any other. With
 * a percent sign a figure is taken as it stands.
 */
export function askWhetherFactor(text: string, name = "load"): Unread | null {
  const typed = text.trim();
  const ratio = /^(\d+(?:[.,]\d+)?)\s*(?:\/|\bto\b|\bin\b|:)\s*(\d+(?:[.,]\d+)?)$/i.exec(typed);
  const [above, below] = ratio ? [parseNumber(ratio[1] ?? ""), parseNumber(ratio[2] ?? "")] : [parseNumber(typed), null];
  if (!above.ok || (below && !below.ok)) return null;
  const value = below?.ok ? above.value / below.value : above.value;
  if (!(value > 0 && value < (ratio ? 1 : MIN_UNASKED_PERCENT))) return null;
  const [asPercent, asFactor] = [`${writeNumber(value, 4)} %`, `${writeNumber(value * 100, 3)} %`];
  return bad(
    "ambiguous",
    `“${typed}” can mean ${asPercent}, or ${typed} × the wax, which is a ${name} of ${asFactor}. Write ${asFactor}${ratio ? "" : `, or ${asPercent} with its sign`}.`,
  );
}

/**
 * Reads a load: percent on the basis chosen, or fragrance to wax by weight, "1.28 oz/lb", "1 oz a pound", "80 g per kg", "28 g to 454 g", "22 g / 278 g",
 * "32 g in 393 g". What is said by weight is a share of the wax, and is turned onto the basis. Asks where a figure can be a factor of the wax.
 * Gives millionths on `basis`.
 */
export function parseLoad(text: string, basis: LoadBasis): Parsed<Ppm> {
  const per =
    /^(.*?[a-z.])\s*(?:\/|:|\bper\b|\ban?\b|\bto(?: the)?\b|\bin(?: an?)?\b|\bon\b|\bfor\b)\s*([\d.,/½¼¾]*\s*(?:lb|pound|kg|kilo|kilogram|g|gram|oz|ounce)s?)\.?\s*(?:of wax)?$/i.exec(
      text.trim(),
    );
  if (!per) return askWhetherFactor(text) ?? parsePercent(text, { least: 0, most: LARGEST_LOAD_PERCENT.wax, name: "a load" });
  const oil = parseMassExactly(per[1] ?? "", "g");
  if (!oil.ok) return oil;
  const wax = parseMassExactly(/\d/.test(per[2] ?? "") ? (per[2] ?? "") : `1 ${per[2]}`, "g");
  if (!wax.ok) return wax;
  const ofWax = (oil.value * WHOLE) / wax.value;
  if (!(ofWax >= 0)) return bad("too-small", `“${text.trim()}” is no load: both weights must be more than nothing.`);
  if (ofWax > LARGEST_LOAD_PERCENT.wax * 10_000) return bad("too-large", `“${text.trim()}” is more fragrance than wax. Look again at the two weights.`);
  return good(Math.round(loadOnBasis(ofWax, "wax", basis)));
}

/** Returns a load of the wax as makers weigh it out: "1.28 oz to the pound", "80 g to the kilogram". */
export function writePerWeight(ofWaxPpm: number, unit: MassUnit): string {
  const share = ofWaxPpm / WHOLE;
  return unit === "oz" ? `${writeNumber(share * 16, 3)} oz to the pound` : `${writeNumber(share * 1_000, 1)} g to the kilogram`;
}
