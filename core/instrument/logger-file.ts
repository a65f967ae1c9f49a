import { momentOf, type Wall } from "../units/calendar";
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
}

/** How the file's own times are meant where they leave it open. */
export interface LoggerManner {
  zone: string;
  /** "03/14/2026" rather than "14/03/2026". */
  monthFirst: boolean;
}

const TIME = /time|date|stamp|zeit|datum|heure|jour|uhr/i;
const CLOCK_ONLY = /^(time|zeit|uhrzeit|heure)$/i;
const DATE_ONLY = /^(date|datum|jour|day)$/i;
const TEMPERATURE = /temp|celsius|fahrenheit|°|^[cf]$/i;
const IN_F = /fahrenheit|°\s*f|\(f\)|\[f\]|^f$|_f$/i;

const ISO = /^(\d{4})-(\d{2})-(\d{2})[T ](\d{1,2}):(\d{2})(?::(\d{2})(?:[.,]\d+)?)?\s*(z|[+-]\d{2}:?\d{2})?$/i;
const LOCAL = /^(\d{1,2})[./-](\d{1,2})[./-](\d{4}|\d{2})[ ,T]+(\d{1,2}):(\d{2})(?::(\d{2}))?\s*([ap]\.?m\.?)?$/i;
const EPOCH = /^\d{10}(\d{3})?$/;

const isWall = ({ month, day, hour, minute, second }: Wall) => month >= 1 && month <= 12 && day >= 1 && day <= 31 && hour < 24 && minute < 60 && second < 60;

/** A time stamp as loggers write them; ms since 1970, and whether it said its zone. */
function momentIn(text: string, { zone, monthFirst }: LoggerManner): { ms: number; zoned: boolean } | null {
  const said = text.trim();
  if (EPOCH.test(said)) return { ms: Number(said) * (said.length === 10 ? 1_000 : 1), zoned: true };
  const iso = ISO.exec(said);
  if (iso) {
    const [, year, month, day, hour, minute, second = "0", offset] = iso;
    const wall = { year: Number(year), month: Number(month), day: Number(day), hour: Number(hour), minute: Number(minute), second: Number(second) };
    if (!isWall(wall)) return null;
    if (!offset) return { ms: momentOf(wall, zone), zoned: false };
    const [, sign, hours, minutes] = /^([+-])(\d{2}):?(\d{2})$/.exec(offset) ?? [];
    const ahead = sign ? (sign === "-" ? -1 : 1) * (Number(hours) * 60 + Number(minutes)) : 0;
    return { ms: momentOf(wall, "UTC") - ahead * 60_000, zoned: true };
  }
  const local = LOCAL.exec(said);
  if (!local) return null;
  const [, one, other, year = "", hour, minute, second = "0", half] = local;
  const [month, day] = monthFirst ? [Number(one), Number(other)] : [Number(other), Number(one)];
  const of12 = half ? (Number(hour) % 12) + (/^p/i.test(half) ? 12 : 0) : Number(hour);
  if (half && (Number(hour) < 1 || Number(hour) > 12)) return null;
  const wall = { year: Number(year.length === 2 ? `20${year}` : year), month, day, hour: of12, minute: Number(minute), second: Number(second) };
  return isWall(wall) ? { ms: momentOf(wall, zone), zoned: false } : null;
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

/** Where a file's times could be days first or months first, what it shows itself: a day above 12 in one of the places. */
function monthFirstOf(times: readonly string[], otherwise: boolean): boolean {
  for (const time of times) {
    const [, one, other] = LOCAL.exec(time.trim()) ?? [];
    if (one === undefined) continue;
    if (Number(one) > 12) return false;
    if (Number(other) > 12) return true;
  }
  return otherwise;
}

/**
 * Reads what a temperature logger wrote: a table with a column of times and one of temperatures, whatever stands above or beside them.
 * Times without a zone are the workshop's. In order of time, each moment once.
 */
export function readLogger(table: readonly (readonly string[])[], manner: LoggerManner): Parsed<LoggerFile> {
  const head = table.findIndex((row) => row.some((cell) => TIME.test(cell)) && row.some((cell) => TEMPERATURE.test(cell) && !TIME.test(cell)));
  const heads = table[head];
  if (!heads) return bad("not-understood", "This file has no heads for a time and a temperature. Name its columns “time” and “temperature”.");
  const warm = heads.findIndex((cell) => TEMPERATURE.test(cell) && !TIME.test(cell));
  const day = heads.findIndex((cell) => DATE_ONLY.test(cell.trim()));
  const clock = heads.findIndex((cell) => CLOCK_ONLY.test(cell.trim()));
  const whole = heads.findIndex((cell) => TIME.test(cell));
  const timeOf = (row: readonly string[]) => (day >= 0 && clock >= 0 ? `${row[day] ?? ""} ${row[clock] ?? ""}` : (row[whole] ?? ""));
  const rows = table.slice(head + 1).filter((row) => row.some((cell) => cell.trim() !== ""));
  const meant = { ...manner, monthFirst: monthFirstOf(rows.map(timeOf), manner.monthFirst) };
  const inF = IN_F.test((heads[warm] ?? "").trim());
  const at = new Map<number, number>();
  let [skipped, zoned] = [0, true];
  for (const row of rows) {
    const when = momentIn(timeOf(row), meant);
    const celsius = celsiusIn(row[warm] ?? "", inF);
    if (!when || celsius === null || !Number.isFinite(when.ms)) {
      skipped++;
      continue;
    }
    zoned &&= when.zoned;
    at.set(when.ms, celsius);
  }
  if (at.size === 0) return bad("not-understood", `None of its ${rows.length} rows could be read. A time is like 2026-03-14 14:20, a temperature like 84.3.`);
  const readings = [...at].sort(([a], [b]) => a - b).map(([ms, celsius]) => ({ at: new Date(ms).toISOString(), celsius }));
  return good({ readings, skipped, zoned });
}

/** Of many readings so few as show the same: the first, the last, and between them every so manyth. */
export function thinned<R>(readings: readonly R[], most: number): R[] {
  if (readings.length <= most) return [...readings];
  const every = (readings.length - 1) / (most - 1);
  return Array.from({ length: most }, (_, n) => readings[Math.round(n * every)] as R);
}
