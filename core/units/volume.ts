import { type Density, WATER_DENSITY_20C } from "./density";
import { LARGEST_MASS_MG, type MassOptions, type MassUnit, MG_PER, type Milligrams, parseMass } from "./mass";
import { parseNumber, writeNumber } from "./number";
import { bad, good, type Parsed } from "./parsed";

/** Milliliters in one unit. NIST Special Publication 811, appendix B: 1 US fl oz = 29.573 53 ml (29.573 529 562 5 exactly). */
export const ML_PER = { ml: 1, cl: 10, dl: 100, l: 1_000, "fl oz": 29.5735295625 } as const;
export type VolumeUnit = keyof typeof ML_PER;

const VOLUME = /^(.*?)\s*(fl\.?\s*oz\.?|fluid\s+ounces?|ml|millilit(?:re|er)s?|cl|dl|l|lit(?:re|er)s?)$/i;

/** A volume as it was typed: its size, unit, and milliliters. */
export interface Volume {
  amount: number;
  unit: VolumeUnit;
  ml: number;
}

/** Reads "10 ml", "4 fl oz", "20 cl"; null if the text is no volume at all. */
export function parseVolume(text: string): Parsed<Volume> | null {
  const match = VOLUME.exec(text.trim());
  if (!match) return null;
  const number = parseNumber(match[1] ?? "");
  if (!number.ok) return number;
  if (number.value <= 0) return bad("too-small", "A volume must be more than nothing.");
  const name = (match[2] ?? "").toLowerCase();
  const unit: VolumeUnit = name.startsWith("f") ? "fl oz" : name.startsWith("m") ? "ml" : name === "cl" || name === "dl" ? name : "l";
  return good({ amount: number.value, unit, ml: number.value * ML_PER[unit] });
}

export interface Amount {
  mg: Milligrams;
  /** Set where a volume was typed: what it was, and the weight it would have been taken for. */
  volume: (Volume & { takenForMg: Milligrams; ofMistake: string }) | null;
}

/**
 * Reads an amount of oil as weight or as volume. A volume needs the oil's density and is turned into a weight; the
 * mistake that was near is given with it: fluid ounces read as ounces, or milliliters as grams.
 */
export function parseAmount(text: string, options: { unit: MassUnit; density: Density | null; name: string; most?: Milligrams }): Parsed<Amount> {
  const volume = parseVolume(text);
  if (volume === null) {
    const mass = parseMass(text, { unit: options.unit, most: options.most ?? LARGEST_MASS_MG });
    return mass.ok ? good({ mg: mass.value, volume: null }) : mass;
  }
  if (!volume.ok) return volume;
  if (options.density === null)
    return bad(
      "density-unknown",
      `“${text.trim()}” is a volume, and the density of ${options.name} is not known. Type its density from the supplier's sheet, or weigh it.`,
    );
  const mg = Math.round((volume.value.ml * options.density) / 1_000);
  if (mg > (options.most ?? LARGEST_MASS_MG))
    return bad(
      "too-large",
      `${options.unit === "g" ? `${writeNumber(mg / 1e6, 1)} kg` : `${writeNumber(mg / MG_PER.lb, 1)} lb`} is more than is possible here.`,
    );
  const ounces = volume.value.unit === "fl oz";
  const takenForMg = Math.round(ounces ? volume.value.amount * MG_PER.oz : volume.value.ml * MG_PER.g);
  return good({ mg, volume: { ...volume.value, takenForMg, ofMistake: ounces ? "fluid ounces taken for ounces" : "milliliters taken for grams" } });
}

/** Reads a weight of water, or a volume of it: 8 fl oz of water is 8.33 oz. */
export function parseWater(text: string, options: MassOptions): Parsed<Milligrams> {
  const volume = parseVolume(text);
  if (!volume) return parseMass(text, options);
  return volume.ok ? parseMass(`${(volume.value.ml * WATER_DENSITY_20C) / 1e6} g`, options) : volume;
}

/** Returns how many bottles of a size hold a weight of oil: weight ÷ density ÷ size, rounded up. Size in milliliters. */
export const bottlesFor = (mg: Milligrams, density: Density, bottleMl: number): number => Math.ceil((mg * 1_000) / density / bottleMl - 1e-9);
