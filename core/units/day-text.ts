import { addDays, dayIn, readDayAs } from "./calendar";
import { localeFormatOf } from "./locale";

/**
 * Reads a day: "2026-03-14", or as a place writes it, with its year, two letters of it or none: "3/14/2026", "3/14/26", "14/3", "Mar 14", "14 March". Gives
 * ISO text; null if it is none. Without a year the day that was last is meant, or with `ahead` the next.
 */
export function parseDay(text: string, today: string, locale?: string, ahead = false): string | null {
  const date = localeFormatOf(locale).date.replace("dd", "d").replace("LL", "L");
  const short = date.replace(/[^dL]*yyyy[^dL]*/, "");
  const typed = text
    .trim()
    .replace(/\s+/g, " ")
    .replace(/^(mon|tue|wed|thu|fri|sat|sun)[a-z]*,? /i, "")
    .replace(/(\d)\. /, "$1 ")
    .replace(/^(\d{1,2}[./]\d{1,2}[./])(\d{2})$/, "$120$2");
  if (/^today$/i.test(typed)) return today;
  if (/^yesterday$/i.test(typed)) return addDays(today, -1);
  for (const pattern of ["yyyy-L-d", date, "d LLL yyyy", "LLL d, yyyy", "LLL d yyyy", "d LLL", "LLL d", short]) {
    const read = readDayAs(typed, pattern);
    if (!read) continue;
    if (read.year !== null) return dayIn(read.year, read);
    const year = Number(today.slice(0, 4));
    const near = dayIn(year, read);
    if (ahead) return near < today ? dayIn(year + 1, read) : near;
    return near > addDays(today, 1) ? dayIn(year - 1, read) : near;
  }
  return null;
}

/** Days from the first of them up to the last, which is left out. */
export interface DaySpan {
  from: string;
  until: string;
}

/** The first month of each season, as the weather services of the north count them; winter begins in December of the year before. */
const SEASONS: Readonly<Record<string, number>> = { spring: 3, summer: 6, autumn: 9, fall: 9, winter: 12 };
const monthFrom = (year: number, month: number, months = 1): DaySpan => {
  const first = (index: number) => `${String(year + Math.floor(index / 12)).padStart(4, "0")}-${String((index % 12) + 1).padStart(2, "0")}-01`;
  return { from: first(month - 1), until: first(month - 1 + months) };
};
const yearFrom = (year: number): DaySpan => monthFrom(year, 1, 12);
const monthsOfSeason = (name: string, year: number): DaySpan => monthFrom(name === "winter" ? year - 1 : year, SEASONS[name] ?? 1, 3);

/** Reads "this month", "last year", "last spring", "spring": of a season without a year the newest that has begun, with "last" the newest that is over. */
function parseRelativeSpan(text: string, today: string): DaySpan | null {
  const [, which, what = ""] = /^(?:(this|last) )?(week|month|year|spring|summer|autumn|fall|winter)$/.exec(text) ?? [];
  const [year, month] = [Number(today.slice(0, 4)), Number(today.slice(5, 7))];
  if (what in SEASONS) {
    const newest = [year + 1, year, year - 1].map((of) => monthsOfSeason(what, of));
    return newest.find((season) => (which === "last" ? season.until : season.from) <= today) ?? null;
  }
  if (!which) return null;
  const back = which === "last" ? 1 : 0;
  if (what === "year") return yearFrom(year - back);
  if (what === "month") return month - back < 1 ? monthFrom(year - 1, 12) : monthFrom(year, month - back);
  const monday = addDays(today, -((new Date(`${today}T00:00:00Z`).getUTCDay() + 6) % 7) - back * 7);
  return { from: monday, until: addDays(monday, 7) };
}

/** Reads one day, month, season or year; null if it is none. */
function parseOneSpan(typed: string, today: string, locale?: string): DaySpan | null {
  const lower = typed.toLowerCase();
  const relative = parseRelativeSpan(lower, today);
  if (relative) return relative;
  if (/^(19|20)\d{2}$/.test(typed)) return yearFrom(Number(typed));
  const [, season = "", ofYear = ""] = /^(spring|summer|autumn|fall|winter),? ((?:19|20)\d{2})$/.exec(lower) ?? [];
  if (season) return monthsOfSeason(season, Number(ofYear));
  const isoMonth = /^(\d{4})-(\d{1,2})$/.exec(typed);
  const plain = /^(\d{1,2})[./](\d{4})$/.exec(typed);
  // A month is read as its first day.
  const first = isoMonth
    ? `${isoMonth[1]}-${isoMonth[2]}-1`
    : plain
      ? `${plain[2]}-${plain[1]}-1`
      : /^[a-z]{3,9},? \d{4}$/i.test(typed)
        ? `1 ${typed.replace(",", "")}`
        : null;
  const day = parseDay(first ?? typed, today, locale);
  if (!day) return null;
  return first ? monthFrom(Number(day.slice(0, 4)), Number(day.slice(5, 7))) : { from: day, until: addDays(day, 1) };
}

/**
 * Reads a day, a month, a season or a year as a span of days, or one of them up to another: "16 March 2021", "March 2021", "2021-03", "3/2021",
 * "last spring", "2021", "3/1/21 to 3/31/21". Null if it is none of them. Seasons are those of the northern half of the earth.
 */
export function parseSpan(text: string, today: string, locale?: string): DaySpan | null {
  const typed = text.trim().replace(/\s+/g, " ");
  const whole = parseOneSpan(typed, today, locale);
  if (whole) return whole;
  const [, first, last] = /^(?:from )?(.+?)(?: ?– ?| - | to | until )(.+)$/i.exec(typed) ?? [];
  if (!first || !last) return null;
  const [a, b] = [parseOneSpan(first, today, locale), parseOneSpan(last, today, locale)];
  if (!a || !b) return null;
  return a.from <= b.from ? { from: a.from, until: b.until } : { from: b.from, until: a.until };
}
