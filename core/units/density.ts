import type { MassUnit } from "./mass";
import { parseNumber, writeNumber } from "./number";
import { bad, good, type Parsed } from "./parsed";

/** A density is held in micrograms to the milliliter: 0.9 g/ml is 900 000. */
export type Density = number;

/** Density of water: 0.9982 g/ml at 20 °C, CRC Handbook of Chemistry and Physics (from memory). */
export const WATER_DENSITY_20C: Density = 998_200;

/** Returns what a volume in cubic millimeters weighs, in mg; and the cubic millimeters of a weight in mg. */
export const weightOf = (cubicMm: number, density: Density): number => (cubicMm * density) / 1e6;
export const cubicMmOf = (mg: number, density: Density): number => (mg * 1e6) / density;

/** Wax and oil lie well between these; outside them a figure was mistyped. Common practice, no source. */
export const MIN_DENSITY: Density = 500_000;
export const MAX_DENSITY: Density = 1_500_000;

/**
 * Reads a density: "0.9", "0,912 g/ml", "900 kg/m3". The specific gravity that stands on a US data sheet is the same figure, to a fifth of a percent; `unit` says
 * which of the two a message names.
 */
export function parseDensity(text: string, unit: MassUnit = "g"): Parsed<Density> {
  const typed = text.trim();
  const metric = /^(.*?)\s*kg\s*\/\s*m(3|³)$/i.exec(typed);
  const number = parseNumber((metric?.[1] ?? typed).replace(/\s*g\s*\/\s*(ml|cm3|cm³|cc)$/i, ""));
  if (!number.ok)
    return number.code === "ambiguous"
      ? number
      : bad(
          "not-understood",
          unit === "g" ? `“${typed}” is not a density. Write it like 0.9 g/ml.` : `“${typed}” is not a specific gravity. Write it like 0.9.`,
        );
  const value = Math.round(number.value * (metric ? 1_000 : 1_000_000));
  return value < MIN_DENSITY || value > MAX_DENSITY
    ? bad(
        "out-of-range",
        `${writeDensity(value, unit)} is neither wax nor oil: ${unit === "g" ? "a density lies between 0.5 and 1.5 g/ml" : "it lies between 0.5 and 1.5"}.`,
      )
    : good(value);
}

/** Returns a density as data sheets state it: "0.9 g/ml" where grams are weighed, "specific gravity 0.9" where ounces are. */
export const writeDensity = (density: Density, unit: MassUnit = "g"): string =>
  unit === "g" ? `${writeNumber(density / 1e6, 4)} g/ml` : `specific gravity ${writeNumber(density / 1e6, 4)}`;
