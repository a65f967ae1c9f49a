import { parseNumber, writeNumber } from "./number";
import { bad, good, type Parsed } from "./parsed";

/** Shares are held in millionths (ppm): 10 % is 100 000, 6.25 % is 62 500. */
export type Ppm = number;
export const WHOLE: Ppm = 1_000_000;

/** Reads a percentage: "10", "12,5 %". Gives millionths; bounds are in percent. */
export function parsePercent(text: string, bounds: { least: number; most: number; name: string }): Parsed<Ppm> {
  const typed = text.trim();
  if (typed === "") return bad("empty", `Type ${bounds.name} in percent, like ${writeNumber(Math.min(8, bounds.most), 1)}.`);
  const number = parseNumber(typed.replace(/\s*(%|percent|per cent)$/i, ""));
  if (!number.ok) return number.code === "ambiguous" ? number : bad("not-understood", `“${typed}” is not a percentage. Write it like 8 or 12.5 %.`);
  if (number.value < bounds.least || number.value > bounds.most) {
    return bad("out-of-range", `${writeNumber(number.value, 3)} % cannot be ${bounds.name}: it lies between ${bounds.least} and ${bounds.most} %.`);
  }
  return good(Math.round(number.value * 10_000));
}

export const writePercent = (ppm: Ppm, decimals = 2): string => `${writeNumber(ppm / 10_000, decimals)} %`;

/** Reads a whole count: jars, wicks. */
export function parseCount(text: string, bounds: { least: number; most: number; name: string }): Parsed<number> {
  const number = parseNumber(text);
  if (!number.ok) return number;
  if (!Number.isInteger(number.value)) return bad("not-whole", `${writeNumber(number.value, 3)} is not a whole number of ${bounds.name}.`);
  if (number.value < bounds.least) return bad("too-small", `At least ${bounds.least} ${bounds.name} ${bounds.least === 1 ? "is" : "are"} needed here.`);
  if (number.value > bounds.most) return bad("too-large", `${number.value} ${bounds.name} is more than is possible here (at most ${bounds.most}).`);
  return good(number.value);
}
