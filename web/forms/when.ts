import {
  addDays,
  bad,
  CLOCK_TOLERANCE_MS,
  dayAt,
  good,
  localeFormatOf,
  type Parsed,
  parseDay,
  parseDuration,
  SECONDS,
  timesOn,
  wallAt,
  writeClock,
  writeDay,
  writeDuration,
} from "@hearth/core";

/** A time of day; `half` is whether it says am or pm. */
export interface ClockTime {
  hour: number;
  minute: number;
  half: boolean;
}

/** Reads a time of day: "10:42", "10.42", "11:40 pm", "3pm". Null if it is none. */
export function readClock(text: string): ClockTime | null {
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
  const { hours, date } = localeFormatOf(locale);
  const clock = hours === 24 ? "10:42" : "10:42 am";
  const alone = readClock(typed);
  const apart = /^(.*\S)[T\s]+(\d{1,2}(?:[:.]\d{2})?(?:\s*[ap]\.?\s*m\.?)?)$/i.exec(typed);
  const time = alone ?? (apart ? readClock(apart[2] ?? "") : null);
  const day = alone ? today : apart ? parseDay(apart[1] ?? "", today, locale) : null;
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

/** A step of a batch that is longer than this after the one before is written with its date. */
const LONGEST_STEP_MS = 12 * SECONDS.h * 1_000;

/** When a step was done, as it was typed: by the clock, so long after the step before it, or at a moment of its own. */
export type StepTime = { clock: ClockTime; typed: string } | { seconds: number } | { at: string };

/** Reads when a step was done: "10:42", "35 min", "+2 h" or a bare number of minutes, a date with a time; null for nothing typed. */
export function parseStepTime(text: string, now: string, zone: string, locale?: string): Parsed<StepTime | null> {
  const typed = text.trim();
  if (typed === "") return good(null);
  const clock = readClock(typed);
  if (clock) return good({ clock, typed });
  const spell = parseDuration(typed.replace(/^\+\s*/, ""), "min", 60 * SECONDS.d);
  if (spell.ok) return good({ seconds: spell.value });
  const whole = parseWhen(typed, now, zone, locale);
  if (whole.ok && whole.value) return good({ at: whole.value });
  const example = localeFormatOf(locale).hours === 24 ? "10:42" : "10:42 am";
  return bad("not-understood", `“${typed}” is not a time. Write a time of day like ${example}, or how long after the step before, like 35 min.`);
}

/**
 * Returns the moment of a step, by the one before it, as ISO text. A time of day is the first such moment after it. Refused are the future, and
 * a time of day that would only come round again after more than twelve hours.
 */
export function stepMoment(time: StepTime, before: string, now: string, zone: string, locale?: string): Parsed<string> {
  const from = Math.floor(Date.parse(before) / 60_000) * 60_000;
  let at = Number.NaN;
  if ("at" in time) at = Date.parse(time.at);
  else if ("seconds" in time) at = Date.parse(before) + time.seconds * 1_000;
  else {
    const { hour, minute, half } = time.clock;
    const isOpen = localeFormatOf(locale).hours === 12 && !half && hour >= 1 && hour <= 12;
    const hours = isOpen ? [hour % 12, (hour % 12) + 12] : [hour];
    const day = dayAt(before, zone);
    const moments = [day, addDays(day, 1)].flatMap((date) => hours.flatMap((hour) => timesOn(date, hour * 60 + minute, zone))).sort((a, b) => a - b);
    // A clock shows no seconds: the minute of the step before is not before it.
    const next = moments.find((moment) => moment >= from);
    if (next === undefined || next - from > LONGEST_STEP_MS)
      return bad("too-small", `${time.typed} is before the step before it. If it was on another day, write the date too.`);
    at = Math.max(next, Date.parse(before));
  }
  if (at - Date.parse(now) > CLOCK_TOLERANCE_MS) return bad("too-large", "This time is in the future.");
  return good(new Date(at).toISOString());
}
