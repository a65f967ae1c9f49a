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

/** Reads a density: "0.9", "0,912 g/ml", "900 kg/m3". */
export function parseDensity(text: string): Parsed<Density> {
  const typed = text.trim();
  const metric = /^(.*?)\s*kg\s*\/\s*m(3|³)$/i.exec(typed);
  const number = parseNumber((metric?.[1] ?? typed).replace(/\s*g\s*\/\s*(ml|cm3|cm³|cc)$/i, ""));
  if (!number.ok) return number.code === "ambiguous" ? number : bad("not-understood", `“${typed}” is not a density. Write it like 0.9 g/ml.`);
  const value = Math.round(number.value * (metric ? 1_000 : 1_000_000));
  return value < MIN_DENSITY || value > MAX_DENSITY
    ? bad("out-of-range", `${writeNumber(value / 1e6, 4)} g/ml is neither wax nor oil: a density lies between 0.5 and 1.5 g/ml.`)
    : good(value);
}

export const writeDensity = (density: Density): string => `${writeNumber(density / 1e6, 4)} g/ml`;
