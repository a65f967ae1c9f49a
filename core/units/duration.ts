import { FRACTION_SIGNS, parseNumber, writeNumber } from "./number";
import { bad, good, type Parsed, type Unread } from "./parsed";

/** Durations are held as whole seconds. */
export type Seconds = number;
export const SECONDS = { s: 1, min: 60, h: 3_600, d: 86_400, w: 604_800 } as const;
export type DurationUnit = keyof typeof SECONDS;

/** Returns the moment so many seconds after another, before it where they are negative. Both as ISO text. */
export const secondsLater = (iso: string, seconds: number): string => new Date(Date.parse(iso) + seconds * 1_000).toISOString();

const NAMES: Record<string, DurationUnit> = {
  s: "s",
  sec: "s",
  secs: "s",
  second: "s",
  seconds: "s",
  m: "min",
  min: "min",
  mins: "min",
  minute: "min",
  minutes: "min",
  h: "h",
  hr: "h",
  hrs: "h",
  hour: "h",
  hours: "h",
  d: "d",
  day: "d",
  days: "d",
  w: "w",
  wk: "w",
  week: "w",
  weeks: "w",
};

const PART = new RegExp(`(-?[\\d.,/\\s${FRACTION_SIGNS}]*[\\d.,${FRACTION_SIGNS}])\\s*([a-z]+)`, "gi");

/** A range: "2-3 min", "10 to 14 days". */
const RANGE = /^(\d+(?:[.,]\d+)?)\s*(?:[-\u2013]|\bto\b)\s*(\d+(?:[.,]\d+)?)\s*([a-z]+)?$/i;

/** Reads a length of time: "2 min", "1:30" (minutes and seconds), "1 h 30 min", "5 days", "2 weeks"; of a range, "2-3 min", the middle. Gives whole seconds. */
export function parseDuration(text: string, unit: DurationUnit, most: Seconds = 400 * SECONDS.d): Parsed<Seconds> {
  const typed = text.trim();
  if (typed === "") return bad("empty", "Type a length of time, like 2 min.");
  const range = RANGE.exec(typed);
  if (range) {
    const [from, to] = [range[1], range[2]].map((figure) => parseDuration(`${figure} ${range[3] ?? ""}`, unit, most));
    if (!from?.ok || !to?.ok) return from && !from.ok ? from : (to as Parsed<Seconds>);
    if (from.value > to.value) return bad("out-of-range", `“${typed}” begins with its longer time.`);
    return good(Math.round((from.value + to.value) / 2));
  }
  let seconds = 0;
  let twofold: Unread | null = null;
  const clock = /^(\d+):([0-5]\d)$/.exec(typed);
  if (clock) seconds = Number(clock[1]) * 60 + Number(clock[2]);
  else if (/[a-z]/i.test(typed)) {
    const rest = typed.replace(PART, (_all, amount: string, name: string) => {
      const known = NAMES[name.toLowerCase()];
      const number = parseNumber(amount);
      if (!number.ok && number.code === "ambiguous") twofold = number;
      seconds = known && number.ok ? seconds + number.value * SECONDS[known] : Number.NaN;
      return "";
    });
    if (twofold) return twofold;
    if (rest.trim() !== "" || Number.isNaN(seconds))
      return bad("not-understood", `“${typed}” is not a length of time. Write it like 90 s, 2 min, 4 h or 5 days.`);
  } else {
    const number = parseNumber(typed);
    if (!number.ok) return number;
    seconds = number.value * SECONDS[unit];
  }
  const value = Math.round(seconds);
  if (value < 0) return bad("negative", `${typed}: a length of time cannot be negative.`);
  if (value > most) return bad("too-large", `${writeDuration(value)} is longer than is possible here (at most ${writeDuration(most)}).`);
  return good(value);
}

/** Writes seconds in the two largest fitting units: "1 min 30 s", "5 days", "2 h 10 min". */
export function writeDuration(seconds: Seconds): string {
  const whole = Math.round(Math.abs(seconds));
  const days = Math.floor(whole / SECONDS.d);
  const hours = Math.floor((whole % SECONDS.d) / SECONDS.h);
  const minutes = Math.floor((whole % SECONDS.h) / 60);
  const rest = whole % 60;
  const join = (...parts: (string | false)[]) => parts.filter(Boolean).join(" ");
  if (days >= 3 || (days > 0 && hours === 0)) return `${writeNumber(Math.round(whole / SECONDS.d), 0)} ${Math.round(whole / SECONDS.d) === 1 ? "day" : "days"}`;
  if (days > 0) return `${days} ${days === 1 ? "day" : "days"} ${hours} h`;
  if (hours > 0) return join(`${hours} h`, minutes > 0 && `${minutes} min`);
  if (minutes > 0) return join(`${minutes} min`, rest > 0 && `${rest} s`);
  return `${rest} s`;
}
