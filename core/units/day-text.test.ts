import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { addDays, writeDay } from "./calendar";
import { parseDay, parseSpan } from "./day-text";
import { LOCALE_FORMATS } from "./locale";

const TODAY = "2026-11-30";
const LOCALES = Object.keys(LOCALE_FORMATS);

describe("a day as people write it", () => {
  it("is read back from every way that a place writes it, with its year", () => {
    fc.assert(
      fc.property(fc.constantFrom(...LOCALES), fc.integer({ min: 0, max: 12_000 }), (locale, days) => {
        const day = addDays("2000-01-01", days);
        const { date, day: pattern } = LOCALE_FORMATS[locale as keyof typeof LOCALE_FORMATS];
        for (const written of [day, writeDay(day, date), writeDay(day, `${pattern}${pattern.endsWith("LLL d") ? "," : ""} yyyy`)])
          expect(parseDay(written, TODAY, locale), `${locale} ${written}`).toBe(day);
      }),
    );
  });

  it("may have a year of two digits, or a month by its whole name", () => {
    expect(parseDay("3/16/21", TODAY, "en-US")).toBe("2021-03-16");
    expect(parseDay("16/3/21", TODAY, "en-GB")).toBe("2021-03-16");
    expect(parseDay("16.3.21", TODAY, "de-DE")).toBe("2021-03-16");
    expect(parseDay("16 March 2021", TODAY, "en-US")).toBe("2021-03-16");
  });
});

describe("a span as people write it", () => {
  it("is a day or a month, the last day left out", () => {
    const march = { from: "2021-03-01", until: "2021-04-01" };
    for (const text of ["March 2021", "Mar 2021", "march, 2021", "2021-03", "2021-3", "3/2021", "03.2021"])
      expect(parseSpan(text, TODAY, "en-US"), text).toEqual(march);
    expect(parseSpan("December 2021", TODAY)).toEqual({ from: "2021-12-01", until: "2022-01-01" });
    expect(parseSpan("16 March 2021", TODAY)).toEqual({ from: "2021-03-16", until: "2021-03-17" });
    expect(parseSpan("yesterday", TODAY)).toEqual({ from: "2026-11-29", until: "2026-11-30" });
    for (const text of ["rain on slate", "13/2021", "RS-11", "smells 2021", ""]) expect(parseSpan(text, TODAY, "en-US"), text).toBeNull();
  });
});
