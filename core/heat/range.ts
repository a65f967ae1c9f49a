import { bad, good, type Parsed } from "../units/parsed";
import {
  type CentiCelsius,
  degreesAsTyped,
  fromFahrenheit,
  parseTemperature,
  type TemperatureUnit,
  temperatureParts,
  writeDifference,
} from "../units/temperature";

/** A range: the span of wax temperature, in hundredths of °C, in which one step is to be done. */
export interface TemperatureRange {
  low: CentiCelsius;
  high: CentiCelsius;
}

export type RangeStatus = { is: "inside" } | { is: "above" | "below"; by: CentiCelsius };

/** Returns where a reading stands against a range, and by how much it is outside. Both ends count as inside. */
export function rangeStatus(reading: CentiCelsius, within: TemperatureRange): RangeStatus {
  if (reading > within.high) return { is: "above", by: reading - within.high };
  if (reading < within.low) return { is: "below", by: within.low - reading };
  return { is: "inside" };
}

/** "57–63 °C" in the reader's unit. */
export function writeRange(value: TemperatureRange, unit: TemperatureUnit): string {
  const low = temperatureParts(value.low, unit);
  const high = temperatureParts(value.high, unit);
  return low.figure === high.figure ? `${low.figure} ${low.unit}` : `${low.figure}–${high.figure} ${high.unit}`;
}

/** "9 °C above the pour range (57–63 °C)". */
export function writeRangeStatus(reading: CentiCelsius, name: string, within: TemperatureRange, unit: TemperatureUnit): string {
  const at = rangeStatus(reading, within);
  const named = `the ${name} range (${writeRange(within, unit)})`;
  return at.is === "inside" ? `inside ${named}` : `${writeDifference(at.by, unit)} ${at.is} ${named}`;
}

/** A single temperature opens to a range by so much each way: 2 °C, or 4 °F where it is given in °F. Common practice, no source. */
const TOLERANCE: Record<TemperatureUnit, number> = { C: 2, F: 4 };

/**
 * Reads a range as it is written, "57–63", "135-145 F"; a single temperature, "110", opens to the usual tolerance about it. Equal ends, "85–85", stay.
 * Gives hundredths of °C.
 */
export function parseRange(text: string, unit: TemperatureUnit): Parsed<TemperatureRange> {
  const typed = text.trim();
  const meant = /[cf]\s*$/i.exec(typed)?.[0] ?? "";
  const ends = typed.replace(/°?\s*[cf]\s*$/i, "").split(/\s*(?:–|—|to|\.\.|(?<=\d\s*)-)\s*/i);
  if (ends.length > 2 || ends[0] === "") return bad("not-understood", `Write a range as two temperatures, like ${unit === "C" ? "57–63" : "135–145"}.`);
  const low = parseTemperature(`${ends[0]} ${/[cf]$/i.test(ends[0] ?? "") ? "" : meant}`, unit);
  if (!low.ok) return low;
  if (ends.length === 1) {
    const scale = (meant.trim().toUpperCase() || unit) as TemperatureUnit;
    const off = (by: number) => (scale === "C" ? low.value + by * 100 : fromFahrenheit(Number(degreesAsTyped(low.value, "F")) + by));
    return good({ low: off(-TOLERANCE[scale]), high: off(TOLERANCE[scale]) });
  }
  const high = parseTemperature(`${ends[1]} ${meant}`, unit);
  if (!high.ok) return high;
  if (high.value < low.value) return bad("out-of-order", "The upper end of a range cannot be below its lower end: write the lower temperature first.");
  return good({ low: low.value, high: high.value });
}
