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

  it("is a year, a season, or what lies near today", () => {
    const days = (text: string, today = TODAY) => {
      const span = parseSpan(text, today, "en-US");
      return span && [span.from, span.until];
    };
    expect(days("2021")).toEqual(["2021-01-01", "2022-01-01"]);
    expect(days("spring 2021")).toEqual(["2021-03-01", "2021-06-01"]);
    expect(days("Winter 2021")).toEqual(["2020-12-01", "2021-03-01"]);
    expect(days("last spring")).toEqual(["2026-03-01", "2026-06-01"]);
    // In April the last spring is that of the year before, and this one is under way.
    expect(days("last spring", "2026-04-10")).toEqual(["2025-03-01", "2025-06-01"]);
    expect(days("spring", "2026-04-10")).toEqual(["2026-03-01", "2026-06-01"]);
    expect(days("winter", "2026-01-15")).toEqual(["2025-12-01", "2026-03-01"]);
    expect(days("last month")).toEqual(["2026-10-01", "2026-11-01"]);
    expect(days("last month", "2026-01-15")).toEqual(["2025-12-01", "2026-01-01"]);
    expect(days("last year")).toEqual(["2025-01-01", "2026-01-01"]);
    // 30 November 2026 is a Monday.
    expect(days("this week")).toEqual(["2026-11-30", "2026-12-07"]);
    expect(days("last week")).toEqual(["2026-11-23", "2026-11-30"]);
  });

  it("goes from one of these to another, whichever is named first", () => {
    const spans = fc.constantFrom("2021-03-16", "March 2021", "spring 2020", "2019", "3/1/21", "last month");
    fc.assert(
      fc.property(spans, spans, fc.constantFrom(" to ", " – ", "–", " until "), (a, b, between) => {
        const [x, y] = [parseSpan(a, TODAY, "en-US"), parseSpan(b, TODAY, "en-US")];
        const [first, last] = (x?.from ?? "") <= (y?.from ?? "") ? [x, y] : [y, x];
        expect(parseSpan(`${a}${between}${b}`, TODAY, "en-US")).toEqual({ from: first?.from, until: last?.until });
      }),
    );
    expect(parseSpan("from 3/1/21 to 3/31/21", TODAY, "en-US")).toEqual({ from: "2021-03-01", until: "2021-04-01" });
    for (const text of ["from rain to slate", "March to", "last spring to rain"]) expect(parseSpan(text, TODAY, "en-US"), text).toBeNull();
  });
});
