import { FRACTION_SIGNS, parseNumber, writeNumber } from "./number";
import { bad, good, type Parsed, type Unread } from "./parsed";

/** Mass is held as a whole number of milligrams. */
export type Milligrams = number;
export type MassUnit = "g" | "oz";

/** Milligrams in one unit. Ounce and pound are exact: NIST Special Publication 811, appendix B. */
export const MG_PER = { mg: 1, g: 1_000, kg: 1_000_000, oz: 28_349.523125, lb: 453_592.37 } as const;

/** The most one batch may weigh, so that every product of mass and share stays exact in a double. */
export const LARGEST_MASS_MG = 1_000_000_000;

const NAMES: Record<string, keyof typeof MG_PER> = {
  mg: "mg",
  g: "g",
  gr: "g",
  gram: "g",
  grams: "g",
  gramme: "g",
  grammes: "g",
  kg: "kg",
  kilo: "kg",
  kilos: "kg",
  kilogram: "kg",
  kilograms: "kg",
  oz: "oz",
  ounce: "oz",
  ounces: "oz",
  lb: "lb",
  lbs: "lb",
  pound: "lb",
  pounds: "lb",
};
const VOLUME = /fl\.?\s*oz|fluid|\b(ml|cl|dl|l|litre|litres|liter|liters)\b|\d(ml|cl|dl|l)\b/i;
const PART = new RegExp(`(-?[\\d.,/'’\\s\u00a0\u2009\u202f${FRACTION_SIGNS}]*[\\d.,${FRACTION_SIGNS}])\\s*([a-zµ]+)`, "gi");

export interface MassOptions {
  /** The unit meant where none is typed. */
  unit: MassUnit;
  /** Least accepted, in milligrams. Default: anything above zero. */
  least?: Milligrams;
  /** Most accepted, in milligrams. Default: 1000 kg. */
  most?: Milligrams;
}

/** The unit that stands last in a weight as it was typed. */
const LAST_UNIT = /([a-zµ]+)\.?\s*$/i;

/** Reads a sum of weights, "8+8+8+7.5" or "8 + 7.5 oz": a bare figure is in the unit of the next weight that names one, else in the unit meant. */
function parseSum(typed: string, unit: MassUnit): Parsed<number> {
  let all = 0;
  let named = "";
  for (const part of typed.split("+").reverse()) {
    named = LAST_UNIT.exec(part.trim())?.[1] ?? named;
    const read = parseMassExactly(/[a-zµ]/i.test(part) || named === "" ? part : `${part} ${named}`, unit);
    if (!read.ok) return part.trim() === "" ? bad("not-understood", `“${typed}” is no sum of weights. Write it like 8 + 8 + 7.5 oz.`) : read;
    all += read.value;
  }
  return good(all);
}

/** Reads a weight without rounding it to whole milligrams: an ounce is 28 349.523 125 of them. */
export function parseMassExactly(text: string, unit: MassUnit): Parsed<number> {
  const typed = text.trim();
  if (typed === "") return bad("empty", `Type a weight, like ${unit === "g" ? "180 g" : "8 oz"}.`);
  if (VOLUME.test(typed)) {
    return bad("volume", `“${typed}” is a volume. Weigh it and type the weight${unit === "g" ? "" : ": a fluid ounce of oil is not an ounce"}.`);
  }
  if (typed.includes("+")) return parseSum(typed, unit);
  let milligrams = 0;
  let twofold: Unread | null = null;
  if (/[a-zµ]/i.test(typed.replace(/\./g, ""))) {
    let parts = 0;
    const rest = typed
      .replace(/^[\u2212\u2013]/, "-")
      .replace(/([a-z])\.(?=[\s,]|$)/gi, "$1")
      // "2 lb, 3 oz", "2 lb and 3 oz".
      .replace(/([a-zµ])\s*(?:,|\band\b|&)\s*(?=[\d.])/gi, "$1 ")
      // "1-1/2 lb".
      .replace(/(\d)\s*-\s*(?=\d+\s*[/⁄])/g, "$1 ")
      .replace(PART, (_all, amount: string, name: string) => {
        const unit = NAMES[name.toLowerCase()];
        const number = parseNumber(amount);
        if (!number.ok && number.code === "ambiguous") twofold = number;
        // Only the whole can be below nothing: "1 lb -4 oz" is a slip.
        if (!unit || !number.ok || (parts > 0 && number.value < 0)) milligrams = Number.NaN;
        else milligrams += number.value * MG_PER[unit];
        parts += 1;
        return "";
      });
    if (twofold) return twofold;
    if (rest.trim() !== "" || Number.isNaN(milligrams)) {
      return bad("not-understood", `“${typed}” is not a weight. Write it like ${unit === "g" ? "180 g or 1.2 kg" : "8 oz or 1 lb 4 oz"}.`);
    }
  } else {
    const number = parseNumber(typed);
    if (!number.ok) return number;
    milligrams = number.value * MG_PER[unit];
  }
  return good(milligrams);
}

/**
 * Reads a weight: "12.5", "12,5 g", "1 lb 4 oz", "8 oz", "1.2 kg". Gives whole milligrams.
 * Refuses volumes (fluid ounces, milliliters): they are not weights without a density.
 */
export function parseMass(text: string, options: MassOptions): Parsed<Milligrams> {
  const exact = parseMassExactly(text, options.unit);
  if (!exact.ok) return exact;
  const typed = text.trim();
  const value = Math.round(exact.value);
  const least = options.least ?? 1;
  const most = options.most ?? LARGEST_MASS_MG;
  const say = (mg: Milligrams) => writeMass(mg, options.unit);
  if (value < 0) return bad("negative", `${typed}: a weight cannot be negative.`);
  if (value < least) return bad("too-small", least === 1 ? "The weight must be more than zero." : `At least ${say(least)} is needed here.`);
  if (value > most) return bad("too-large", `${say(value)} is more than is possible here (at most ${say(most)}).`);
  return good(value);
}

/** Returns how many decimals a mass needs on a scale of the given resolution (micrograms a step). */
export function decimalsFor(unit: MassUnit, resolutionUg: number | null): number {
  if (resolutionUg === null) return unit === "g" ? 1 : 2;
  const step = resolutionUg / 1_000 / MG_PER[unit];
  const decimals = Math.ceil(-Math.log10(step) - 0.02);
  return Math.max(0, Math.min(unit === "g" ? 3 : 4, decimals));
}

/** A mass as figure and unit apart, so that the figure can be set large. Extra decimals appear only where needed. */
export function massParts(mg: Milligrams, unit: MassUnit, resolutionUg: number | null = null): { figure: string; unit: string } {
  const value = mg / MG_PER[unit];
  const decimals = decimalsFor(unit, resolutionUg);
  if (unit === "g" && mg % 10 ** (3 - decimals) !== 0) return { figure: writeNumber(value, 3), unit };
  // A figure that was typed with three decimals of an ounce reads back with them.
  if (unit === "oz" && resolutionUg === null) {
    const typed = [2, 3].find((places) => Math.round(Number(value.toFixed(places)) * MG_PER.oz) === Math.round(mg));
    return { figure: writeNumber(value, typed ?? 2), unit };
  }
  return { figure: writeNumber(value, decimals, resolutionUg !== null), unit };
}

/** Returns a mass in words: "127 g", "4.48 oz". */
export function writeMass(mg: Milligrams, unit: MassUnit, resolutionUg: number | null = null): string {
  const parts = massParts(mg, unit, resolutionUg);
  return `${parts.figure} ${parts.unit}`;
}

/** What a scale shows: grams, ounces, or pounds and ounces. */
export const SCALE_UNITS = ["g", "oz", "lb"] as const;
export type ScaleUnit = (typeof SCALE_UNITS)[number];
/** The display of a scale: its resolution in micrograms, and its unit where that is known. */
export interface ScaleDisplay {
  resolutionUg: number;
  unit?: ScaleUnit | null | undefined;
}

/** A thousandth of an ounce, in micrograms. */
const MILLI_OUNCE_UG = MG_PER.oz;
/** A resolution that was cut to whole micrograms is off by less than this. */
const CUT_UG = 1;

/** Returns whether a resolution is a number of thousandths of an ounce and not of whole milligrams. */
const isInOunces = (ug: number): boolean => {
  const steps = Math.round(ug / MILLI_OUNCE_UG);
  return ug % 1_000 !== 0 && steps > 0 && Math.abs(ug - steps * MILLI_OUNCE_UG) < CUT_UG;
};

/** Returns the exact resolution of a scale in micrograms: 0.1 oz is 2 834 952.3125, where an earlier version had cut it to 2 834 952. */
export const exactResolution = (ug: number): number => (isInOunces(ug) ? Math.round(ug / MILLI_OUNCE_UG) * MILLI_OUNCE_UG : ug);

/** Returns the unit that a scale shows; where nobody said, the one that its resolution is a round number of. */
export const scaleUnit = ({ resolutionUg, unit }: ScaleDisplay): ScaleUnit => unit ?? (isInOunces(resolutionUg) ? "oz" : "g");

/** Returns the unit in which a bare figure read from a scale is meant. */
export const typedUnit = (scale: ScaleDisplay): MassUnit => (scaleUnit(scale) === "g" ? "g" : "oz");

/** Returns a mass as the scale shows it, figure and unit apart: "66" "g", "1 lb 4.5" "oz". */
export function scaleParts(mg: Milligrams, scale: ScaleDisplay): { figure: string; unit: string } {
  const unit = typedUnit(scale);
  if (scaleUnit(scale) !== "lb" || Math.abs(mg) < MG_PER.lb) return massParts(mg, unit, scale.resolutionUg);
  return { figure: poundsAndOunces(mg, decimalsFor("oz", scale.resolutionUg)), unit: "oz" };
}

/** Returns a mass as the scale shows it, in words. */
export function writeOnScale(mg: Milligrams, scale: ScaleDisplay): string {
  const { figure, unit } = scaleParts(mg, scale);
  return `${figure} ${unit}`;
}

/** Returns the resolution of a scale in its own unit: "0.1 oz", "1 g". */
export const writeResolution = (scale: ScaleDisplay): string => {
  const unit = typedUnit(scale);
  return `${writeNumber(scale.resolutionUg / 1_000 / MG_PER[unit], 5)} ${unit}`;
};

/** Returns the mass that the shown figures of several masses add up to, so that a total shown beside them is their sum. */
export const sumOfShown = (all: readonly Milligrams[], unit: MassUnit): Milligrams =>
  Math.round(all.reduce((sum, mg) => sum + Number(massParts(mg, unit).figure), 0) * MG_PER[unit]);

/** Returns a weight of a pound or more as pounds and ounces apart: "1 lb 4.5", to be followed by "oz". `decimals` are those of the ounces. */
export function poundsAndOunces(mg: Milligrams, decimals: number): string {
  const step = 10 ** decimals;
  const ounces = Math.round((Math.abs(mg) / MG_PER.oz) * step) / step;
  const pounds = Math.floor(ounces / 16 + 1e-9);
  return `${mg < 0 ? "\u2212" : ""}${pounds} lb ${writeNumber(ounces - pounds * 16, decimals)}`;
}

/** Writes an amount in stock, to three significant figures: "9.42 kg", "480 g", "20.8 lb". */
export function writeBulk(mg: Milligrams, unit: MassUnit): string {
  const large = unit === "g" ? "kg" : "lb";
  const decimals = Math.abs(mg) >= 100 * MG_PER[unit] ? 0 : unit === "g" ? 1 : 2;
  // What rounds up to the next unit is shown in it: 999.999 g is 1 kg.
  const shown = Number((Math.abs(mg) / MG_PER[unit]).toFixed(decimals)) * MG_PER[unit];
  if (shown >= MG_PER[large] - 1) return `${writeNumber(mg / MG_PER[large], 2)} ${large}`;
  return `${writeNumber(mg / MG_PER[unit], decimals)} ${unit}`;
}

/** Returns a weight for a sentence: to a tenth of a gram, or a hundredth of an ounce. */
export const writeRoundedMass = (mg: Milligrams, unit: MassUnit): string => `${writeNumber(mg / MG_PER[unit], unit === "g" ? 1 : 2)} ${unit}`;
