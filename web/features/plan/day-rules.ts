import { addDays, bad, good, type Parsed, parseDay } from "@hearth/core";
import { type FieldRule, orNothing } from "@/forms/fields";
import { readClock } from "@/forms/when";
import type { Formats } from "@/ui/units";

/** Returns a time of the day, in minutes: "9", "9:30", "9.30", "2 pm". */
export function parseTimeOfDay(text: string): Parsed<number> {
  const at = readClock(/^\s*\d{1,2}\s*$/.test(text) ? `${text.trim()}:00` : text);
  return at ? good(at.hour * 60 + at.minute) : bad("not-understood", "Write a time of the day, like 9:00 or 2 pm.");
}

/** Returns minutes of a day as they are typed over: "9:00". */
export const typedMinutes = (minutes: number): string => `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, "0")}`;

/** From when to when somebody works, as "9:00–17:00"; nothing typed for nobody. */
export const hoursRule = (initial: { from: number; to: number } | null): FieldRule<{ from: number; to: number } | null> =>
  orNothing({
    initial: initial ? `${typedMinutes(initial.from)}–${typedMinutes(initial.to)}` : "",
    parse: (text: string) => {
      const [first = "", second = "", ...more] = text.split(/\s*(?:–|—|-|to)\s*/);
      const [from, to] = [parseTimeOfDay(first), parseTimeOfDay(second)];
      if (!from.ok || !to.ok || more.length > 0) return bad("not-understood", "Write it like 9:00–17:00, or leave it empty.");
      return from.value < to.value ? good({ from: from.value, to: to.value }) : bad("too-small", "It ends before it begins.");
    },
  });

/** Returns days, parted by commas. */
export const daysRule = (initial: readonly string[], today: string, units: Formats): FieldRule<string[]> => ({
  initial: initial.map((day) => units.onDate(day)).join(", "),
  parse: (text) => {
    const days: string[] = [];
    for (const part of text.split(/[,;\n]/).filter((text) => text.trim() !== "")) {
      const day = parseDay(part, today, units.locale, true);
      if (!day) return bad("not-understood", `“${part.trim()}” is not a day. Write days like ${units.onDate(addDays(today, 14))}, separated by commas.`);
      days.push(day);
    }
    return good(days);
  },
});
