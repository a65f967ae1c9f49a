import { parseNumber, writeNumber } from "./number";
import { bad, good, type Parsed } from "./parsed";

/** A length is held in micrometers. */
export type Micrometers = number;
export type LengthUnit = "mm" | "in";

/** Micrometers in one unit. NIST Special Publication 811, appendix B: 1 in = 25.4 mm exactly. */
export const UM_PER = { mm: 1_000, cm: 10_000, in: 25_400 } as const;
/** A sixteenth of an inch in micrometers: as fine as rulers for inches are read. */
export const SIXTEENTH_UM = UM_PER.in / 16;
/** Returns the whole number of sixteenths of an inch that is nearest to a length, in micrometers. */
export const toSixteenth = (um: Micrometers): Micrometers => Math.round(um / SIXTEENTH_UM) * SIXTEENTH_UM;

/** Reads a length: "78", "7.8 cm", "3 in", "3 1/16 in", '3"'; `unit` if nothing is given. Bounds in millimeters. */
export function parseLength(text: string, bounds: { least: number; most: number }, unit: LengthUnit = "mm"): Parsed<Micrometers> {
  const typed = text.trim();
  const named = /(mm|cm|in\.?|inch|inches|["”″])$/i.exec(typed)?.[1]?.toLowerCase() ?? unit;
  const number = parseNumber(typed.replace(/\s*(mm|cm|in\.?|inch|inches|["”″])$/i, ""));
  if (!number.ok)
    return number.code === "ambiguous"
      ? number
      : bad("not-understood", `“${typed}” is not a length. Write it like ${unit === "mm" ? "78 mm or 7.8 cm" : "3 1/16 in or 3.06 in"}.`);
  const um = Math.round(number.value * UM_PER[named === "mm" || named === "cm" ? named : "in"]);
  const say = (mm: number) => writeLength(mm * 1_000, unit);
  return um < bounds.least * 1_000 || um > bounds.most * 1_000
    ? bad("out-of-range", `${writeLength(um, unit)} cannot be: it lies between ${say(bounds.least)} and ${say(bounds.most)}.`)
    : good(um);
}

/** Micrometers in one unit of a distance in a room: 1 ft = 12 in exactly. */
const REACH_UM = { m: 1_000_000, ft: 304_800 } as const;
const MAX_REACH_UM = 50_000_000;

/** Reads how far something reaches in a room: "2 ft", "0.6 m", "60 cm"; feet or meters if nothing is given, as the lengths are. */
export function parseReach(text: string, unit: LengthUnit): Parsed<Micrometers> {
  const [, figure = "", named] = /^(.*?)\s*(ft|feet|foot|['’′]|m|meters?|metres?)?$/i.exec(text.trim()) ?? [];
  const number = parseNumber(figure);
  if (!number.ok) return parseLength(text, { least: 0, most: MAX_REACH_UM / 1_000 }, unit);
  const isFeet = named ? !/^m/i.test(named) : unit === "in";
  const um = Math.round(number.value * REACH_UM[isFeet ? "ft" : "m"]);
  return um >= 0 && um <= MAX_REACH_UM ? good(um) : bad("out-of-range", "This distance is out of range.");
}

/** Returns a distance in a room: feet to a half, or meters to a tenth. */
export const writeReach = (um: Micrometers, unit: LengthUnit): string =>
  unit === "in" ? `${writeNumber(Math.round((um / REACH_UM.ft) * 2) / 2, 1)} ft` : `${writeNumber(um / REACH_UM.m, 1)} m`;

/** Within so many sixteenths of an inch a length is written as a fraction: a thickness of paper. */
const NEAR = 0.04;

function inches(um: Micrometers): string {
  const sixteenths = (um / UM_PER.in) * 16;
  const n = Math.round(sixteenths);
  if (n === 0 || Math.abs(sixteenths - n) > NEAR) return writeNumber(um / UM_PER.in, 2);
  let [over, under] = [n % 16, 16];
  while (over > 0 && over % 2 === 0) [over, under] = [over / 2, under / 2];
  return [n >= 16 ? String(Math.floor(n / 16)) : "", over > 0 ? `${over}/${under}` : ""].filter(Boolean).join(" ");
}

/** Returns a length in words: "78 mm"; in inches by sixteenths where it lies on one, else with two decimals: "3 1/16 in", "3.07 in". */
export const writeLength = (um: Micrometers, unit: LengthUnit, decimals = 1): string =>
  unit === "mm" ? `${writeNumber(um / UM_PER.mm, decimals)} mm` : `${inches(um)} in`;
