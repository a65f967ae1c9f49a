import { bad, CLOCK_TOLERANCE_MS, good, type Parsed, writeDuration } from "@hearth/core";
import { DateTime } from "luxon";

/** Reads when something happened: nothing for now, "10:42" today, "2026-03-14 10:42". Gives ISO text; the future is refused. */
export function parseWhen(text: string, now: string, zone: string): Parsed<string | null> {
  const typed = text.trim();
  if (typed === "" || typed.toLowerCase() === "now") return good(null);
  const today = DateTime.fromISO(now, { zone });
  const short = /^(\d{1,2})[:.](\d{2})$/.exec(typed);
  const at = short
    ? today.set({ hour: Number(short[1]), minute: Number(short[2]), second: 0, millisecond: 0 })
    : DateTime.fromFormat(typed.replace("T", " "), "yyyy-LL-dd HH:mm", { zone });
  if (!at.isValid || (short && (Number(short[1]) > 23 || Number(short[2]) > 59)))
    return bad(`“${typed}” is not a time. Write it like 10:42, or ${today.toFormat("yyyy-LL-dd")} 10:42 for another day.`);
  const ahead = at.toMillis() - Date.parse(now);
  if (ahead > CLOCK_TOLERANCE_MS)
    return bad(
      `${typed} is ${writeDuration(ahead / 1_000)} ahead of now (${today.toFormat("HH:mm")}). Give the time at which it happened; for yesterday write the date too.`,
    );
  return good(new Date(at.toMillis()).toISOString());
}
