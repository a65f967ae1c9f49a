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

/** Reads a day or a month as a span of days, the last of them left out: "16 March 2021", "March 2021", "2021-03", "3/2021". Null if it is neither. */
export function parseSpan(text: string, today: string, locale?: string): { from: string; until: string } | null {
  const typed = text.trim().replace(/\s+/g, " ");
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
  if (first) {
    const from = parseDay(first, today, locale);
    if (!from) return null;
    return { from, until: `${addDays(from, 31).slice(0, 7)}-01` };
  }
  const day = parseDay(typed, today, locale);
  return day ? { from: day, until: addDays(day, 1) } : null;
}
