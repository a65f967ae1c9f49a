import {
  addDays,
  bad,
  CLOCK_TOLERANCE_MS,
  dayAt,
  dayIn,
  good,
  isLocale,
  LOCALE_FORMATS,
  type Parsed,
  readDayAs,
  timesOn,
  wallAt,
  writeClock,
  writeDay,
  writeDuration,
} from "@hearth/core";

/** Returns how a place writes its dates and its clock, for what is typed and for what is said back. */
const mannerOf = (locale: string | undefined) => LOCALE_FORMATS[isLocale(locale ?? "") ? (locale as keyof typeof LOCALE_FORMATS) : "en-GB"];

/** Reads a day: "2026-03-14", or as the place writes it, with its year or without: "3/14/2026", "14/3", "Mar 14", "14 Mar". Gives ISO text; null if it is none. */
export function readDay(text: string, today: string, locale?: string, ahead = false): string | null {
  const date = mannerOf(locale).date.replace("dd", "d").replace("LL", "L");
  const short = date.replace(/[^dL]*yyyy[^dL]*/, "");
  const typed = text
    .trim()
    .replace(/\s+/g, " ")
    .replace(/^(mon|tue|wed|thu|fri|sat|sun)[a-z]*,? /i, "")
    .replace(/(\d)\. /, "$1 ");
  if (/^today$/i.test(typed)) return today;
  if (/^yesterday$/i.test(typed)) return addDays(today, -1);
  for (const pattern of ["yyyy-L-d", date, "d LLL yyyy", "LLL d, yyyy", "LLL d yyyy", "d LLL", "LLL d", short]) {
    const read = readDayAs(typed, pattern);
    if (!read) continue;
    if (read.year !== null) return dayIn(read.year, read);
    // Without a year the day that was last is meant; of what lies ahead, the next.
    const year = Number(today.slice(0, 4));
    const near = dayIn(year, read);
    if (ahead) return near < today ? dayIn(year + 1, read) : near;
    return near > addDays(today, 1) ? dayIn(year - 1, read) : near;
  }
  return null;
}

/** Reads a time of day: "10:42", "10.42", "11:40 pm", "3pm"; `half` is whether it says am or pm. Null if it is none. */
export function readClock(text: string): { hour: number; minute: number; half: boolean } | null {
  const match = /^(\d{1,2})(?:[:.](\d{2}))?\s*([ap])\.?\s*m\.?$/i.exec(text.trim()) ?? /^(\d{1,2})[:.](\d{2})$/.exec(text.trim());
  if (!match) return null;
  const half = match[3]?.toLowerCase();
  const [hour, minute] = [Number(match[1]), Number(match[2] ?? 0)];
  if (minute > 59 || hour > (half ? 12 : 23) || (half && hour === 0)) return null;
  return { hour: half ? (hour % 12) + (half === "p" ? 12 : 0) : hour, minute, half: half !== undefined };
}

/**
 * Reads when something happened: nothing for now, "10:42" today, "2026-03-14 10:42", also as the place writes it. Where several moments could be meant (an
 * hour that comes twice in an autumn night; on a clock of twelve hours "11:40" of today without am or pm) it is the latest that is not ahead of now. Gives
 * ISO text; the future is refused.
 */
export function parseWhen(text: string, now: string, zone: string, locale?: string): Parsed<string | null> {
  const typed = text.trim();
  if (typed === "" || typed.toLowerCase() === "now") return good(null);
  const today = dayAt(now, zone);
  const { hours, date } = mannerOf(locale);
  const clock = hours === 24 ? "10:42" : "10:42 am";
  const alone = readClock(typed);
  const apart = /^(.*\S)[T\s]+(\d{1,2}(?:[:.]\d{2})?(?:\s*[ap]\.?\s*m\.?)?)$/i.exec(typed);
  const time = alone ?? (apart ? readClock(apart[2] ?? "") : null);
  const day = alone ? today : apart ? readDay(apart[1] ?? "", today, locale) : null;
  if (!time || !day) return bad("not-understood", `“${typed}” is not a time. Write it like ${clock}, or ${writeDay(today, date)} ${clock} for another day.`);
  const halves = alone && hours === 12 && !time.half && time.hour >= 1 && time.hour <= 12 ? [time.hour % 12, (time.hour % 12) + 12] : [time.hour];
  const moments = halves.flatMap((hour) => timesOn(day, hour * 60 + time.minute, zone));
  const at = moments.findLast((moment) => moment - Date.parse(now) <= CLOCK_TOLERANCE_MS) ?? (moments[0] as number);
  const ahead = at - Date.parse(now);
  if (ahead > CLOCK_TOLERANCE_MS)
    return bad(
      "too-large",
      `${typed} is ${writeDuration(ahead / 1_000)} ahead of now (${writeClock(wallAt(now, zone), hours)}). Give the time at which it happened; for yesterday write the date too.`,
    );
  return good(new Date(at).toISOString());
}
