/**
 * Days and clocks of a place, by the platform's own time zone data. A day is ISO text, "2026-03-14"; a moment is ISO text in UTC
 * or milliseconds since 1970. Held against a time-zone library in the tests.
 */

/** What a clock and a calendar on the wall show. */
export interface Wall {
  year: number;
  /** 1 to 12. */
  month: number;
  day: number;
  hour: number;
  minute: number;
  second: number;
}

const DAY_MS = 86_400_000;
const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];
const WEEKDAYS = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"];

/** The months as they are written, from January on. */
export const monthNames = (): readonly string[] => MONTHS;

const clocks = new Map<string, Intl.DateTimeFormat>();
function clockOf(zone: string): Intl.DateTimeFormat {
  let clock = clocks.get(zone);
  if (!clock) {
    clock = new Intl.DateTimeFormat("en-US", {
      timeZone: zone,
      hourCycle: "h23",
      year: "numeric",
      month: "numeric",
      day: "numeric",
      hour: "numeric",
      minute: "numeric",
      second: "numeric",
    });
    clocks.set(zone, clock);
  }
  return clock;
}

/** Returns what the platform says of a moment, in ms. */
function askedOf(ms: number, zone: string): Wall {
  const wall: Record<string, number> = {};
  for (const { type, value } of clockOf(zone).formatToParts(ms)) wall[type] = Number(value);
  const { year = 0, month = 1, day = 1, hour = 0, minute = 0, second = 0 } = wall;
  return { year, month, day, hour, minute, second };
}

const asUtc = (wall: Wall): number => Date.UTC(wall.year, wall.month - 1, wall.day, wall.hour, wall.minute, wall.second);

const QUARTER_MS = 900_000;
/** Since then no zone has changed its clocks but at a quarter of an hour (IANA time zone database; Liberia, 1972, was the last). */
const BY_QUARTERS = Date.UTC(1980, 0, 1);
const MAX_KEPT = 20_000;
const offsets = new Map<string, Map<number, number>>();

/** Returns by how much the wall of a zone is ahead of UTC, in ms, as the platform says; asked once for each quarter of an hour, since asking is slow. */
function platformOffset(ms: number, zone: string): number {
  if (!(ms >= BY_QUARTERS)) return asUtc(askedOf(ms, zone)) - Math.floor(ms / 1_000) * 1_000;
  let kept = offsets.get(zone);
  if (!kept) {
    kept = new Map();
    offsets.set(zone, kept);
  }
  const quarter = Math.floor(ms / QUARTER_MS);
  let offset = kept.get(quarter);
  if (offset === undefined) {
    if (kept.size >= MAX_KEPT) kept.clear();
    offset = asUtc(askedOf(quarter * QUARTER_MS, zone)) - quarter * QUARTER_MS;
    kept.set(quarter, offset);
  }
  return offset;
}

/** By how much a zone is ahead of UTC over a period. Each offset holds from its moment until the next; the last holds until `until`. All in ms. */
export interface ZoneOffsets {
  zone: string;
  changes: readonly (readonly [from: number, offset: number])[];
  until: number;
}

/** Returns the offsets of a zone (IANA name) between two moments after 1980, in ms, as the platform says. Looked for day by day: no zone has changed its clocks twice in one. */
export function readZoneOffsets(zone: string, from: number, until: number): ZoneOffsets {
  const begin = Math.floor(from / DAY_MS) * DAY_MS;
  let offset = platformOffset(begin, zone);
  const changes: [from: number, offset: number][] = [[begin, offset]];
  for (let day = begin; day < until; day += DAY_MS) {
    const next = platformOffset(day + DAY_MS, zone);
    if (next === offset) continue;
    let [before, after] = [day, day + DAY_MS];
    while (after - before > QUARTER_MS) {
      const middle = before + Math.floor((after - before) / 2 / QUARTER_MS) * QUARTER_MS;
      if (platformOffset(middle, zone) === offset) before = middle;
      else after = middle;
    }
    offset = next;
    changes.push([after, offset]);
  }
  return { zone, changes, until };
}

const givenOffsets = new Map<string, ZoneOffsets>();
/** Keeps the offsets of a zone: for the period that they are of, the platform is not asked any more. */
export const keepZoneOffsets = (offsets: ZoneOffsets): void => void givenOffsets.set(offsets.zone, offsets);

/** Returns by how much the wall of a zone is ahead of UTC, in ms. */
function offsetAt(ms: number, zone: string): number {
  const given = givenOffsets.get(zone);
  const known = given && ms < given.until ? given.changes.findLast(([from]) => from <= ms) : undefined;
  return known ? known[1] : platformOffset(ms, zone);
}

/** Returns what the wall of a zone (IANA name) shows at a moment. */
export function wallAt(at: number | string, zone: string): Wall {
  const ms = typeof at === "string" ? Date.parse(at) : at;
  const wallTime = new Date(ms + offsetAt(ms, zone));
  return {
    year: wallTime.getUTCFullYear(),
    month: wallTime.getUTCMonth() + 1,
    day: wallTime.getUTCDate(),
    hour: wallTime.getUTCHours(),
    minute: wallTime.getUTCMinutes(),
    second: wallTime.getUTCSeconds(),
  };
}

/**
 * Returns the moments at which the wall of a zone shows this, in ms, the earlier first: two where clocks go back and the hour comes twice. Hours past the day's end
 * run on into the next; a time that is left out where clocks go forward is as much later.
 */
export function momentsOf(wall: Wall, zone: string): [number, ...number[]] {
  const shown = asUtc(wall);
  const [before, after] = [offsetAt(shown - DAY_MS, zone), offsetAt(shown + DAY_MS, zone)];
  const moments = [...new Set([before, after])].filter((offset) => offsetAt(shown - offset, zone) === offset).map((offset) => shown - offset);
  const [first, ...more] = moments.sort((a, b) => a - b);
  return first === undefined ? [shown - before] : [first, ...more];
}

/** Returns the moment of a wall time in a zone, in ms; the earlier of the two where clocks go back. */
export const momentOf = (wall: Wall, zone: string): number => momentsOf(wall, zone)[0];

/** Returns whether a moment is in an hour that comes twice where clocks go back, and in which of the two; null in any other. */
export function repeatOf(at: number | string, zone: string): "first" | "second" | null {
  const ms = typeof at === "string" ? Date.parse(at) : at;
  const [first, second] = momentsOf(wallAt(ms, zone), zone);
  return second === undefined ? null : Math.floor(ms / 1_000) === Math.floor(first / 1_000) ? "first" : "second";
}

/** Returns the moments of a time of a day in a zone, as `momentsOf`: minutes after midnight by the wall. */
export const timesOn = (day: string, minutes: number, zone: string): [number, ...number[]] =>
  momentsOf({ ...partsOf(day), hour: 0, minute: minutes, second: 0 }, zone);

const two = (n: number): string => String(n).padStart(2, "0");
const isoOf = ({ year, month, day }: Pick<Wall, "year" | "month" | "day">): string => `${String(year).padStart(4, "0")}-${two(month)}-${two(day)}`;
const partsOf = (day: string) => ({ year: Number(day.slice(0, 4)), month: Number(day.slice(5, 7)), day: Number(day.slice(8, 10)) });

/** Returns the day on which a moment falls in a zone. */
export const dayAt = (at: number | string, zone: string): string => isoOf(wallAt(at, zone));

/** Returns the moment of a time of a day in a zone, in ms: minutes after midnight by the wall, 0 for the day's beginning. */
export const timeOn = (day: string, minutes: number, zone: string): number => momentOf({ ...partsOf(day), hour: 0, minute: minutes, second: 0 }, zone);

/** Returns minutes after midnight that the wall of a zone shows. */
export function minutesAt(at: number | string, zone: string): number {
  const { hour, minute } = wallAt(at, zone);
  return hour * 60 + minute;
}

/** Returns a day so many days later; negative for earlier. */
export const addDays = (day: string, days: number): string => new Date(Date.parse(`${day}T00:00:00Z`) + days * DAY_MS).toISOString().slice(0, 10);

/** Returns how many days the second is after the first. */
export const daysBetween = (from: string, to: string): number => Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / DAY_MS);

/** 1 for Monday to 7 for Sunday. */
export const weekdayOf = (day: string): number => new Date(`${day}T00:00:00Z`).getUTCDay() || 7;

/** Returns a day in the tokens of a manner: ccc weekday, d day, LLL month, L month's number, yyyy year. */
export function writeDay(day: string, pattern: string): string {
  const { year, month, day: of } = partsOf(day);
  const tokens: Record<string, string> = {
    yyyy: String(year),
    ccc: WEEKDAYS[weekdayOf(day) - 1] as string,
    LLL: MONTHS[month - 1] as string,
    LL: two(month),
    L: String(month),
    dd: two(of),
    d: String(of),
  };
  return pattern.replace(/yyyy|ccc|LLL|LL|L|dd|d/g, (token) => tokens[token] as string);
}

/** Returns the time of day that a wall shows, on a clock of 24 or 12 hours. */
export function writeClock({ hour, minute, second }: Wall, hours: 12 | 24, seconds = false): string {
  const rest = `${two(minute)}${seconds ? `:${two(second)}` : ""}`;
  return hours === 24 ? `${two(hour)}:${rest}` : `${hour % 12 || 12}:${rest} ${hour < 12 ? "am" : "pm"}`;
}

/** Reads a day written in the tokens d, L, LLL and yyyy; one without its year has it null. Null if it is none. */
export function readDayAs(text: string, pattern: string): { year: number | null; month: number; day: number } | null {
  const names: string[] = [];
  const source = pattern.replace(/yyyy|LLL|L+|d+|[.*+?^${}()|[\]\\]/g, (token) => {
    if (!/[yLd]/.test(token)) return `\\${token}`;
    names.push(token);
    return token === "yyyy" ? "(\\d{4})" : token === "LLL" ? "([a-z]{3,9})" : "(\\d{1,2})";
  });
  const match = new RegExp(`^${source}$`, "i").exec(text);
  if (!match) return null;
  const of = (wanted: (name: string) => boolean) => match[names.findIndex(wanted) + 1] ?? "";
  const month = names.includes("LLL")
    ? MONTHS.findIndex((name) =>
        of((text) => text === "LLL")
          .toLowerCase()
          .startsWith(name.toLowerCase()),
      ) + 1
    : Number(of((text) => text.startsWith("L")));
  const day = Number(of((text) => text.startsWith("d")));
  const year = names.includes("yyyy") ? Number(of((text) => text === "yyyy")) : null;
  return isDay(year ?? 2024, month, day) ? { year, month, day } : null;
}

const isDay = (year: number, month: number, day: number): boolean => {
  const date = new Date(Date.UTC(year, month - 1, day));
  return date.getUTCMonth() === month - 1 && date.getUTCDate() === day;
};

/** The day of that date in a year; 29 February is the first of March where there is none. */
export const dayIn = (year: number, { month, day }: { month: number; day: number }): string =>
  isDay(year, month, day) ? isoOf({ year, month, day }) : isoOf({ year, month: month + 1, day: 1 });
