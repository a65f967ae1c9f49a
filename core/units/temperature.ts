import { parseNumber, writeNumber } from "./number";
import { bad, good, type Parsed } from "./parsed";

/** Temperature is held as a whole number of hundredths of a degree Celsius. */
export type CentiCelsius = number;
export type TemperatureUnit = "C" | "F";

/** The span a wax reading may have: below a cold store, above the hottest gel. Common practice, no source. */
export const COLDEST: CentiCelsius = -2_000;
export const HOTTEST: CentiCelsius = 16_000;

/** T/°F = 1.8 · T/°C + 32: NIST Special Publication 811, appendix B. */
export const toFahrenheit = (centi: CentiCelsius): number => (centi / 100) * 1.8 + 32;
export const fromFahrenheit = (degrees: number): CentiCelsius => Math.round(((degrees - 32) / 1.8) * 100);

/** Reads a temperature: "85", "85,5 C", "185F", "185 °F". Gives hundredths of °C; refuses what no wax pot can show. */
export function parseTemperature(text: string, unit: TemperatureUnit): Parsed<CentiCelsius> {
  const typed = text.trim();
  if (typed === "") return bad("empty", `Type a temperature, like ${unit === "C" ? "85" : "185"}.`);
  const match = /^(.*?)\s*(?:[°º˚]|degrees?|deg\.?)?\s*(c|f|celsius|centigrade|fahrenheit)?$/i.exec(typed);
  const number = parseNumber(match?.[1] ?? "");
  if (!number.ok) return number.code === "ambiguous" ? number : bad("not-understood", `“${typed}” is not a temperature. Write it like 85 C or 185 F.`);
  const meant: TemperatureUnit = match?.[2] ? (/^f/i.test(match[2]) ? "F" : "C") : unit;
  const centi = meant === "F" ? fromFahrenheit(number.value) : Math.round(number.value * 100);
  const shown = `${writeNumber(number.value, 2)} °${meant}`;
  const limit = (at: CentiCelsius) => writeTemperature(at, meant);
  if (centi > HOTTEST) return bad("too-large", `${shown} is hotter than any wax is heated (${limit(HOTTEST)}). Look again at the thermometer and the point.`);
  if (centi < COLDEST) return bad("too-small", `${shown} is colder than any workshop (${limit(COLDEST)}). Look again at the thermometer.`);
  return good(centi);
}

/** Returns a temperature with as few digits as read back to it: 174 °F, and not 174.002. */
export function degreesAsTyped(centi: CentiCelsius, unit: TemperatureUnit): string {
  if (unit === "C") return writeNumber(centi / 100, 2);
  const degrees = toFahrenheit(centi);
  const places = [0, 1, 2].find((n) => fromFahrenheit(Number(degrees.toFixed(n))) === centi) ?? 2;
  return writeNumber(degrees, places);
}

/** A temperature as figure and unit apart: to a tenth of a °C, or in whole °F, as those are read. */
export function temperatureParts(centi: CentiCelsius, unit: TemperatureUnit): { figure: string; unit: string } {
  const value = unit === "C" ? centi / 100 : toFahrenheit(centi);
  return { figure: writeNumber(value, unit === "C" ? 1 : 0), unit: `°${unit}` };
}

export function writeTemperature(centi: CentiCelsius, unit: TemperatureUnit): string {
  const parts = temperatureParts(centi, unit);
  return `${parts.figure} ${parts.unit}`;
}

/** A difference of temperatures, which has no zero offset: 9 °C apart is 16.2 °F apart. */
export function writeDifference(centi: CentiCelsius, unit: TemperatureUnit): string {
  return `${writeNumber((centi / 100) * (unit === "F" ? 1.8 : 1), 1)} °${unit}`;
}
