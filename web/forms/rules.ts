import {
  addDays,
  bad,
  good,
  type MassOptions,
  parseCount,
  parseDay,
  parseDuration,
  parseMass,
  parseMoney,
  parsePercent,
  parseTemperature,
  parseWater,
  repeatOf,
  writeDuration,
  writePercent,
} from "@hearth/core";
import type { Formats } from "@/ui/units";
import { type FieldRule, orNothing } from "./fields";
import { parseStepTime, parseWhen, readClock, type StepTime } from "./when";

/** Returns what each kind of field takes, and how it says what it understood: a bare number means the unit shown at the field. */

export const massRule = (units: Formats, options: Partial<MassOptions> & { initial?: string; zero?: boolean } = {}): FieldRule<number> => ({
  initial: options.initial ?? "",
  parse: (text) => (options.zero && /^0+([.,]0+)?\s*[a-z]*$/i.test(text.trim()) ? good(0) : parseMass(text, { ...options, unit: options.unit ?? units.mass })),
  echo: (mg) => units.g(mg),
});

/** Returns a weight of water, or a volume of it. */
export const waterRule = (units: Formats, options: Partial<MassOptions> & { initial?: string } = {}): FieldRule<number> => ({
  ...massRule(units, options),
  parse: (text) => parseWater(text, { ...options, unit: units.mass }),
});

export const temperatureRule = (units: Formats, initial = ""): FieldRule<number> => ({
  initial,
  parse: (text) => parseTemperature(text, units.temperature),
  echo: (centi) => units.t(centi),
});

export const moneyRule = (units: Formats): FieldRule<number> => ({
  initial: "",
  parse: (text) => parseMoney(text, units.currency ?? "EUR"),
  echo: (minor) => units.money(minor),
});

export const percentRule = (bounds: { least: number; most: number; name: string }, initial = ""): FieldRule<number> => ({
  initial,
  parse: (text) => parsePercent(text, bounds),
  echo: (ppm) => writePercent(ppm, 4),
});

export const countRule = (bounds: { least: number; most: number; name: string }, initial = ""): FieldRule<number> => ({
  initial,
  parse: (text) => parseCount(text, bounds),
});

export const durationRule = (most: number, initial = ""): FieldRule<number> => ({
  initial,
  parse: (text) => parseDuration(text, "min", most),
  echo: writeDuration,
});

/** Returns when something happened; nothing typed is now. */
export const whenRule = (now: string, units: Formats): FieldRule<string | null> => ({
  initial: "",
  parse: (text) => parseWhen(text, now, units.zone, units.locale),
  echo: (at) => {
    if (at === null) return "";
    const repeat = repeatOf(at, units.zone);
    return `${units.dayClock(at)}${repeat ? `, the ${repeat} time that clocks show this tonight` : ""}`;
  },
});

/** Returns when a step was done, by the one before it; nothing typed was not noted. */
export const stepTimeRule = (now: string, units: Formats): FieldRule<StepTime | null> => ({
  initial: "",
  parse: (text) => parseStepTime(text, now, units.zone, units.locale),
});

/** Returns a time of day in minutes after midnight. Where am and pm are said and it says neither, an hour before six is of the afternoon. */
export const clockRule = (units: Formats): FieldRule<number> => ({
  initial: "",
  parse: (text) => {
    const clock = readClock(text);
    if (!clock) return bad("not-understood", `“${text.trim()}” is not a time of day. Write it like ${units.manner.hours === 24 ? "9:30" : "9:30 am"}.`);
    const isAfternoon = units.manner.hours === 12 && !clock.half && clock.hour < 6;
    return good((clock.hour + (isAfternoon ? 12 : 0)) * 60 + clock.minute);
  },
});

/** A day that is over, or today, as ISO text. */
export const pastDayRule = (today: string, units: Formats): FieldRule<string> => ({
  initial: "",
  parse: (text) => {
    const day = parseDay(text, today, units.locale);
    if (!day) return bad("not-understood", `Write a day, like ${units.onDate(addDays(today, -30))}.`);
    return day > today ? bad("too-large", "That day is in the future.") : good(day);
  },
  echo: (day) => units.onDay(day),
});

/** Returns the rule of a field that takes today or a later day, as ISO text. */
export const dayRule = (today: string, units: Formats): FieldRule<string | null> =>
  orNothing({
    initial: "",
    parse: (text: string) => {
      const day = parseDay(text, today, units.locale, true);
      if (!day) return bad("not-understood", `Write a day, like ${units.onDate(addDays(today, 14))}.`);
      return day < today ? bad("too-small", "That day is in the past.") : good(day);
    },
    echo: (day: string) => units.onDay(day),
  });
