import { describe, expect, it } from "vitest";
import { LOCALE_FORMATS, type Locale, localeFor, localize } from "./locale";

/** Order and marks as the platform's own locale data (Intl) has them: names of days and months are ours. */
const ORDER: Record<string, string> = { ccc: "weekday", d: "day", dd: "day", LLL: "month", L: "month", LL: "month", yyyy: "year" };
const order = (pattern: string) => [...pattern.matchAll(/ccc|LLL|LL?|dd?|yyyy/g)].map(([token]) => ORDER[token]);
const AT = new Date("2026-03-14T23:40:00Z");

describe("the manner of a place, against Intl", () => {
  it.each(["en-GB", "en-US", "en-CA", "de-DE", "fr-FR", "sv-SE", "en-AU", "en-IE"] as Locale[])("%s", (locale) => {
    const { day, date, decimal, group, hours } = LOCALE_FORMATS[locale];
    const parts = (options: Intl.DateTimeFormatOptions) =>
      new Intl.DateTimeFormat(locale, { ...options, timeZone: "UTC" })
        .formatToParts(AT)
        .filter((part) => part.type !== "literal")
        .map((part) => part.type);
    expect(order(day)).toEqual(parts({ weekday: "short", day: "numeric", month: "short" }));
    expect(order(date)).toEqual(parts({ day: "numeric", month: "numeric", year: "numeric" }));
    const number = new Intl.NumberFormat(locale).formatToParts(1_234_567.5);
    expect(decimal).toBe(number.find((part) => part.type === "decimal")?.value);
    expect(group).toBe(number.find((part) => part.type === "group")?.value);
    expect(hours).toBe(new Intl.DateTimeFormat(locale, { hour: "numeric" }).resolvedOptions().hour12 ? 12 : 24);
  });

  it("marks thousands only where there are tens of them, and never in what is typed over", () => {
    expect(localize("12.5 g", LOCALE_FORMATS["de-DE"])).toBe("12,5 g");
    expect(localize("1250 g of 12500.75", LOCALE_FORMATS["en-US"])).toBe("1250 g of 12,500.75");
    expect(localize("57–63 °C", LOCALE_FORMATS["de-DE"])).toBe("57–63 °C");
    for (const locale of Object.keys(LOCALE_FORMATS) as Locale[])
      for (const text of ["1.2.3", "version 0.12.0", "lot A12345", "14.3.20261", "127.0.0.1", "1,2,3"])
        expect(localize(text, LOCALE_FORMATS[locale])).toBe(text);
    expect(localize("12.5, 12500. Then 3.25.", LOCALE_FORMATS["de-DE"])).toBe("12,5, 12.500. Then 3,25.");
  });

  it("is chosen from what a browser says of its languages", () => {
    expect(localeFor(["en-US", "en"])).toBe("en-US");
    expect(localeFor(["de-AT", "en"])).toBe("de-DE");
    expect(localeFor(["xx", "en"])).toBe("en-GB");
    expect(localeFor([])).toBe("en-GB");
  });
});
