import { fromFahrenheit, keyOf, MG_PER, type RecordKeyName, UM_PER } from "@hearth/core";
import type { Formats } from "./units";

/** Returns a value of the record, in the units of the workshop: "72 °C", "8 %", "yes". */
export function describeLogged(units: Formats, key: RecordKeyName, value: number | boolean | string): string {
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value === "string") return value;
  const { unit } = keyOf(key);
  switch (unit) {
    case "°C":
      return units.t(Math.round(value * 100));
    case "mm":
      return units.len(Math.round(value * 1_000));
    case "g":
      return units.g(Math.round(value * 1_000));
    case "drops a pound":
      return units.mass === "g" ? `${units.n((value * MG_PER.kg) / MG_PER.lb, 1)} drops per kg` : `${units.n(value, 1)} drops per lb`;
    case "percent":
      return `${units.n(value, 1)} %`;
    case "wicks":
    case "":
      return units.n(value, 0);
    default:
      return `${units.n(value, 1)} ${units.n(value, 1) === "1" ? unit.replace(/s$/, "") : unit}`;
  }
}

/** Returns the unit in which the workshop states a key of the record, and what turns such a figure into the record's own. */
export function unitOfKey(units: Formats, key: RecordKeyName): { unit: string; toRecord: (value: number) => number } {
  const { unit } = keyOf(key);
  if (unit === "°C" && units.temperature === "F") return { unit: "°F", toRecord: (value) => fromFahrenheit(value) / 100 };
  if (unit === "mm" && units.length === "in") return { unit: "in", toRecord: (value) => Math.round(value * UM_PER.in) / UM_PER.mm };
  if (unit === "drops a pound" && units.mass === "g") return { unit: "drops per kg", toRecord: (value) => Math.round((value * MG_PER.lb) / MG_PER.g) / 1_000 };
  if (unit === "drops a pound") return { unit: "drops per lb", toRecord: (value) => value };
  if (unit === "g" && units.mass === "oz") return { unit: "oz", toRecord: (value) => Math.round(value * MG_PER.oz) / 1_000 };
  return { unit, toRecord: (value) => value };
}

/** Returns how far a value is from a limit, in the units of the workshop. */
export const describeGap = (units: Formats, key: RecordKeyName, gap: number): string =>
  keyOf(key).unit === "°C" ? units.tDifference(Math.round(gap * 100)) : describeLogged(units, key, gap);

/** Returns a share as a whole percent; below one percent, with a decimal. */
export const formatPercentShare = (units: Formats, share: number): string => `${units.n(share * 100, share > 0 && share < 0.01 ? 1 : 0)} %`;

/** Returns a range of numbers, "6.1 to 7.4": with as few decimals as tell its ends apart. */
export function formatShareRange(units: Formats, low: number, high: number, digits = 0): string {
  const [a, b] = [units.n(low, digits), units.n(high, digits)];
  return a === b && high > low && digits < MAX_DIGITS ? formatShareRange(units, low, high, digits + 1) : `${a} to ${b}`;
}
const MAX_DIGITS = 4;

/** Returns a range of shares, "4 % to 9 %". */
export const formatShares = (units: Formats, { low, high }: { low: number; high: number }): string =>
  `${formatShareRange(units, low * 100, high * 100).replace(" to ", " % to ")} %`;
