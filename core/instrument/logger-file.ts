import { momentOf, momentsOf, type Wall } from "../units/calendar";
import { bad, good, type Parsed } from "../units/parsed";
import { fromFahrenheit } from "../units/temperature";

/** One reading of a temperature logger: when, as ISO text, and hundredths of °C. */
export interface LoggedReading {
  at: string;
  celsius: number;
}
export interface LoggerFile {
  readings: LoggedReading[];
  /** Rows that could not be read, counted. */
  skipped: number;
  /** Whether its times said their zone; where not, the workshop's was taken. */
  zoned: boolean;
  /** Its columns of temperatures, by their place in the table, and the one that was read. */
  columns: { at: number; name: string }[];
  column: number;
}

/** How the file's own times are meant where they leave it open. */
export interface LoggerManner {
  zone: string;
  /** "03/14/2026" rather than "14/03/2026". */
  monthFirst: boolean;
  /** The column of temperatures to read, where there are several; the first where it is not said. */
  column?: number | undefined;
}

const TIME = /time|date|stamp|zeit|datum|heure|jour|uhr/i;
const CLOCK_ONLY = /^(time|zeit|uhrzeit|heure)$/i;
const DATE_ONLY = /^(date|datum|jour|day)$/i;
const TEMPERATURE = /temp|celsius|fahrenheit|°|^[cf]$/i;
const IN_F = /fahrenheit|°\s*f|\(f\)|\[f\]|^f$|_f$/i;

/** A row beneath the heads that says in which units they are. */
const UNIT_CELL = /^[([]?\s*(°\s*[cf]|[cf]|deg(rees)?\.?\s*[cf]?|celsius|fahrenheit|hh:mm(:ss)?|yyyy.*|%\s*rh|s|min)\s*[)\]]?$/i;

const ISO = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})[T ](\d{1,2}):(\d{2})(?::(\d{2})(?:[.,]\d+)?)?\s*(z|[+-]\d{2}:?\d{2})?$/i;
const LOCAL = /^(\d{1,2})[./-](\d{1,2})[./-](\d{4}|\d{2})[ ,T]+(\d{1,2}):(\d{2})(?::(\d{2}))?\s*([ap]\.?m\.?)?$/i;
const NAMED = /^(?:(\d{1,2})[ -]([a-z]{3})[a-z]*\.?|([a-z]{3})[a-z]*\.? (\d{1,2}),?)[ -](\d{4}),?[ T]+(\d{1,2}):(\d{2})(?::(\d{2}))?\s*([ap]\.?m\.?)?$/i;
const MONTH_NAMES = ["jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"];
const EPOCH = /^\d{10}(\d{3})?$/;

/** A day that there is: 31 February is none. */
const isDay = (year: number, month: number, day: number) => {
  const wallTime = new Date(Date.UTC(year, month - 1, day));
  return wallTime.getUTCMonth() === month - 1 && wallTime.getUTCDate() === day;
};
const isWall = ({ year, month, day, hour, minute, second }: Wall) => isDay(year, month, day) && hour < 24 && minute < 60 && second < 60;

/** Returns the hour of the day that a clock shows, of 12 hours where `half` says am or pm; null if no clock shows it. */
function hourOf(hour: number, half: string | undefined): number | null {
  if (!half) return hour;
  return hour < 1 || hour > 12 ? null : (hour % 12) + (/^p/i.test(half) ? 12 : 0);
}

/** Returns a time stamp as loggers write them: its moments in ms since 1970, two where clocks went back, and whether it said its zone. */
function momentIn(text: string, { zone, monthFirst }: LoggerManner): { moments: [number, ...number[]]; zoned: boolean } | null {
  const shown = text.trim();
  const inZone = (wall: Wall) => (isWall(wall) ? { moments: momentsOf(wall, zone), zoned: false } : null);
  if (EPOCH.test(shown)) return { moments: [Number(shown) * (shown.length === 10 ? 1_000 : 1)], zoned: true };
  const iso = ISO.exec(shown);
  if (iso) {
    const [, year, month, day, hour, minute, second = "0", offset] = iso;
    const wall = { year: Number(year), month: Number(month), day: Number(day), hour: Number(hour), minute: Number(minute), second: Number(second) };
    if (!offset || !isWall(wall)) return inZone(wall);
    const [, sign, hours, minutes] = /^([+-])(\d{2}):?(\d{2})$/.exec(offset) ?? [];
    const ahead = sign ? (sign === "-" ? -1 : 1) * (Number(hours) * 60 + Number(minutes)) : 0;
    return { moments: [momentOf(wall, "UTC") - ahead * 60_000], zoned: true };
  }
  const named = NAMED.exec(shown);
  if (named) {
    const [, before, first, second, after, year, hour, minute, seconds = "0", half] = named;
    const month = MONTH_NAMES.indexOf((first ?? second ?? "").toLowerCase()) + 1;
    const of24 = hourOf(Number(hour), half);
    return of24 === null
      ? null
      : inZone({ year: Number(year), month, day: Number(before ?? after), hour: of24, minute: Number(minute), second: Number(seconds) });
  }
  const local = LOCAL.exec(shown);
  if (!local) return null;
  const [, item, other, year = "", hour, minute, second = "0", half] = local;
  const [month, day] = monthFirst ? [Number(item), Number(other)] : [Number(other), Number(item)];
  const of24 = hourOf(Number(hour), half);
  if (of24 === null) return null;
  return inZone({ year: Number(year.length === 2 ? `20${year}` : year), month, day, hour: of24, minute: Number(minute), second: Number(second) });
}

/** "84,3", "84.3 °C", "183.7F" in hundredths of °C. */
function celsiusIn(text: string, fahrenheit: boolean): number | null {
  const read = /^\s*([+-]?\d{1,4}(?:[.,]\d{1,4})?)\s*°?\s*([cf])?\s*$/i.exec(text);
  if (!read) return null;
  const value = Number((read[1] as string).replace(",", "."));
  const inF = read[2] ? read[2].toLowerCase() === "f" : fahrenheit;
  const celsius = inF ? fromFahrenheit(value) : Math.round(value * 100);
  return celsius < -5_000 || celsius > 40_000 ? null : celsius;
}

/** Returns where a file's times could be days first or months first, what it shows itself: a day above 12 in one of the places. */
function monthFirstOf(times: readonly string[], otherwise: boolean): boolean {
  for (const time of times) {
    const [, text, other] = LOCAL.exec(time.trim()) ?? [];
    if (text === undefined) continue;
    if (Number(text) > 12) return false;
    if (Number(other) > 12) return true;
  }
  return otherwise;
}

/**
 * Reads what a temperature logger wrote: a table with a column of times and one or several of temperatures, whatever stands above or beside them; a row of
 * units may follow the heads. Times without a zone are the workshop's; an hour that comes twice where clocks go back is told apart by the order of the rows.
 * In order of time, each moment once.
 */
export function readLogger(table: readonly (readonly string[])[], manner: LoggerManner): Parsed<LoggerFile> {
  const head = table.findIndex((row) => row.some((cell) => TIME.test(cell)) && row.some((cell) => TEMPERATURE.test(cell) && !TIME.test(cell)));
  const heads = table[head];
  if (!heads) return bad("not-understood", "This file has no columns for time and temperature. Name them “time” and “temperature”.");
  const columns = heads.flatMap((cell, index) => (TEMPERATURE.test(cell) && !TIME.test(cell) ? [{ at: index, name: cell.trim() }] : []));
  const warm = columns.find((column) => column.at === manner.column)?.at ?? columns[0]?.at ?? -1;
  const day = heads.findIndex((cell) => DATE_ONLY.test(cell.trim()));
  const clock = heads.findIndex((cell) => CLOCK_ONLY.test(cell.trim()));
  const whole = heads.findIndex((cell) => TIME.test(cell));
  const timeOf = (row: readonly string[]) => (day >= 0 && clock >= 0 ? `${row[day] ?? ""} ${row[clock] ?? ""}` : (row[whole] ?? ""));
  const below = table.slice(head + 1).filter((row) => row.some((cell) => cell.trim() !== ""));
  const isUnits = below[0]?.every((cell) => cell.trim() === "" || UNIT_CELL.test(cell.trim())) ?? false;
  const rows = isUnits ? below.slice(1) : below;
  const meant = { ...manner, monthFirst: monthFirstOf(rows.map(timeOf), manner.monthFirst) };
  const inF = IN_F.test((heads[warm] ?? "").trim()) || (isUnits && IN_F.test((below[0]?.[warm] ?? "").trim()));
  const at = new Map<number, number>();
  let [skipped, zoned] = [0, true];
  const read = rows.flatMap((row) => {
    const when = momentIn(timeOf(row), meant);
    const celsius = celsiusIn(row[warm] ?? "", inF);
    if (!when || celsius === null || !when.moments.every(Number.isFinite)) {
      skipped++;
      return [];
    }
    zoned &&= when.zoned;
    return [{ moments: when.moments, celsius }];
  });
  // Some loggers write the newest first.
  if ((read[0]?.moments[0] ?? 0) > (read.at(-1)?.moments[0] ?? 0)) read.reverse();
  let last = Number.NEGATIVE_INFINITY;
  for (const { moments, celsius } of read) {
    const ms = moments.find((moment) => moment >= last) ?? (moments.at(-1) as number);
    last = Math.max(last, ms);
    at.set(ms, celsius);
  }
  if (at.size === 0) return bad("not-understood", `None of its ${rows.length} rows could be read. A time is like 2026-03-14 14:20, a temperature like 84.3.`);
  const readings = [...at].sort(([a], [b]) => a - b).map(([ms, celsius]) => ({ at: new Date(ms).toISOString(), celsius }));
  return good({ readings, skipped, zoned, columns, column: warm });
}

/** Of many readings so few as show the same: the first, the last, and between them every so manyth. */
export function thinned<R>(readings: readonly R[], most: number): R[] {
  if (readings.length <= most) return [...readings];
  const every = (readings.length - 1) / (most - 1);
  return Array.from({ length: most }, (_, n) => readings[Math.round(n * every)] as R);
}
