import fc from "fast-check";
import { unit } from "mathjs";
import { describe, expect, it } from "vitest";
import { parseRange, rangeStatus, writeRange, writeRangeStatus } from "../heat/range";
import { parseDuration, writeDuration } from "./duration";
import { parseLength, writeLength } from "./length";
import { LOCALE_FORMATS, type Locale, type LocaleFormat, localize } from "./locale";
import { parseMass, poundsAndOunces, writeBulk, writeMass } from "./mass";
import { parseMoney, writeMoney } from "./money";
import { askWhetherThousands, parseNumber, writeNumber } from "./number";
import type { Fault, Parsed } from "./parsed";
import { parseCount, parsePercent, writePercent } from "./percent";
import { fromFahrenheit, parseTemperature, toFahrenheit, writeDifference, writeTemperature } from "./temperature";

const value = <T>(parsed: { ok: true; value: T } | { ok: false; code: Fault }) => (parsed.ok ? parsed.value : parsed.code);

describe("temperatures", () => {
  it.each([
    ["185F", 8_500],
    ["185 °F", 8_500],
    ["140 f", 6_000],
    ["85", 8_500],
    ["85,5 C", 8_550],
    ["60.25", 6_025],
    ["85º C", 8_500],
    ["85˚C", 8_500],
    ["85 Celsius", 8_500],
    ["185 degrees Fahrenheit", 8_500],
    ["85 deg. C", 8_500],
  ])("reads %s", (text, expected) => {
    expect(value(parseTemperature(text, "C"))).toBe(expected);
  });

  it("converts as NIST SP 811, appendix B says (from memory)", () => {
    for (const [f, c] of [
      [185, 85],
      [140, 60],
      [200, 93.33],
      [225, 107.22],
    ] as const) {
      expect(value(parseTemperature(`${f}`, "F"))).toBe(Math.round(c * 100));
      expect(toFahrenheit(c * 100)).toBeCloseTo(f, 1);
    }
  });

  it("agrees with the units of mathjs, a general-purpose library", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 3_000 }), (tenths) => {
        const fahrenheit = tenths / 10;
        expect(value(parseTemperature(`${fahrenheit} F`, "C"))).toBe(Math.round(unit(fahrenheit, "degF").toNumber("degC") * 100));
      }),
    );
  });

  it.each([
    ["850", "C", "too-large"],
    ["850", "F", "too-large"],
    ["-40", "C", "too-small"],
    ["hot", "C", "not-understood"],
    ["", "C", "empty"],
  ] as const)("refuses %s °%s as %s", (text, scale, why) => {
    expect(value(parseTemperature(text, scale))).toBe(why);
  });

  it("writes a difference without the offset of the scale", () => {
    expect(writeDifference(900, "C")).toBe("9 °C");
    expect(writeDifference(900, "F")).toBe("16.2 °F");
    expect(writeTemperature(8_500, "F")).toBe("185 °F");
  });
});

describe("ranges", () => {
  const pour = { low: 5_700, high: 6_300 };

  it.each([
    ["57–63", "C", pour],
    ["57-63 C", "C", pour],
    ["57 to 63", "C", pour],
    // A single temperature opens to the usual tolerance: ±2 °C, ±4 °F (common practice, no source).
    ["85", "C", { low: 8_300, high: 8_700 }],
    ["110", "F", { low: 4_111, high: 4_556 }],
    ["110 °F", "C", { low: 4_111, high: 4_556 }],
    ["85–85", "C", { low: 8_500, high: 8_500 }],
    ["135-145 F", "C", { low: 5_722, high: 6_278 }],
    ["135–145", "F", { low: 5_722, high: 6_278 }],
  ] as const)("reads %s in °%s", (text, scale, expected) => {
    expect(value(parseRange(text, scale))).toEqual(expected);
  });

  it("refuses a range that is upside down, or not two temperatures", () => {
    expect(value(parseRange("63–57", "C"))).toBe("out-of-order");
    expect(value(parseRange("1–2–3", "C"))).toBe("not-understood");
    expect(value(parseRange("57–850", "C"))).toBe("too-large");
  });

  it("counts both ends as inside, and says by how much a reading is out", () => {
    expect(rangeStatus(5_700, pour)).toEqual({ is: "inside" });
    expect(rangeStatus(6_300, pour)).toEqual({ is: "inside" });
    expect(rangeStatus(6_301, pour)).toEqual({ is: "above", by: 1 });
    expect(writeRangeStatus(7_200, "pour", pour, "C")).toBe("9 °C above the pour range (57–63 °C)");
    expect(writeRangeStatus(5_600, "pour", pour, "F")).toBe("1.8 °F below the pour range (135–145 °F)");
    expect(writeRange({ low: 8_500, high: 8_500 }, "C")).toBe("85 °C");
  });
});

describe("times, shares and counts", () => {
  it.each([
    ["2 min", 120],
    ["2-3 min", 150],
    ["2–3 min", 150],
    ["10 to 14 days", 1_036_800],
    ["1:30", 90],
    ["90 s", 90],
    ["2", 120],
    ["1 h 30 min", 5_400],
    ["5 days", 432_000],
    ["2 weeks", 1_209_600],
    ["0,5 h", 1_800],
  ])("reads the time %s", (text, expected) => {
    expect(value(parseDuration(text, "min"))).toBe(expected);
  });

  it("refuses times that are none", () => {
    expect(value(parseDuration("-2 min", "min"))).toBe("negative");
    expect(value(parseDuration("2 moons", "min"))).toBe("not-understood");
    expect(value(parseDuration("9000 days", "d"))).toBe("too-large");
  });

  it("writes times so that reading them gives them back, to the unit shown", () => {
    for (const seconds of [45, 90, 120, 3_600, 5_400, 86_400, 345_600, 1_209_600]) expect(value(parseDuration(writeDuration(seconds), "min"))).toBe(seconds);
  });

  it("reads shares with their bounds, and whole counts", () => {
    const bounds = { least: 0, most: 100, name: "a load" };
    expect(value(parsePercent("12,5 %", bounds))).toBe(125_000);
    expect(value(parsePercent("3.125", bounds))).toBe(31_250);
    expect(value(parsePercent("101", bounds))).toBe("out-of-range");
    expect(value(parsePercent("-1", bounds))).toBe("out-of-range");
    expect(value(parseCount("1.5", { least: 0, most: 9, name: "jars" }))).toBe("not-whole");
    expect(value(parseCount("10", { least: 0, most: 9, name: "jars" }))).toBe("too-large");
  });
});

describe("what the program writes, in every manner and unit that it offers", () => {
  /** Read as a field reads it: asked about, or understood. */
  const reads = (text: string, manner: LocaleFormat, parse: (text: string) => Parsed<number>) => value(askWhetherThousands(text, manner) ?? parse(text));
  const WRITTEN: { name: string; of: fc.Arbitrary<number>; write: (value: number) => string; parse: (text: string) => Parsed<number>; near: number }[] = [
    {
      name: "grams",
      of: fc.integer({ min: 1, max: 900_000_000 }),
      write: (mg) => writeMass(mg, "g"),
      parse: (text) => parseMass(text, { unit: "g" }),
      near: 0,
    },
    {
      name: "ounces",
      of: fc.integer({ min: 1_500, max: 900_000_000 }),
      write: (mg) => writeMass(mg, "oz"),
      parse: (text) => parseMass(text, { unit: "oz" }),
      near: 142,
    },
    {
      name: "a store, metric",
      of: fc.integer({ min: 1_000, max: 900_000_000 }),
      write: (mg) => writeBulk(mg, "g"),
      parse: (text) => parseMass(text, { unit: "g" }),
      near: 5_001,
    },
    {
      name: "a store, US",
      of: fc.integer({ min: 1_000, max: 900_000_000 }),
      write: (mg) => writeBulk(mg, "oz"),
      parse: (text) => parseMass(text, { unit: "oz" }),
      near: 15_000,
    },
    {
      name: "pounds and ounces",
      of: fc.integer({ min: 453_593, max: 9_000_000 }),
      write: (mg) => `${poundsAndOunces(mg, 2)} oz`,
      parse: (text) => parseMass(text, { unit: "oz" }),
      near: 142,
    },
    {
      name: "°C",
      of: fc.integer({ min: -200, max: 1_600 }).map((tenths) => tenths * 10),
      write: (centi) => writeTemperature(centi, "C"),
      parse: (text) => parseTemperature(text, "F"),
      near: 0,
    },
    {
      name: "°F",
      of: fc.integer({ min: 0, max: 300 }).map(fromFahrenheit),
      write: (centi) => writeTemperature(centi, "F"),
      parse: (text) => parseTemperature(text, "C"),
      near: 0,
    },
    {
      name: "percent",
      of: fc.integer({ min: 0, max: 1_000_000 }).map((n) => Math.round(n / 100) * 100),
      write: writePercent,
      parse: (text) => parsePercent(text, { least: 0, most: 100, name: "a share" }),
      near: 0,
    },
    {
      name: "millimeters",
      of: fc.integer({ min: 1, max: 9_999 }).map((tenths) => tenths * 100),
      write: (um) => writeLength(um, "mm"),
      parse: (text) => parseLength(text, { least: 0, most: 1_000 }, "in"),
      near: 0,
    },
    {
      name: "inches",
      of: fc.integer({ min: 1_000, max: 900_000 }),
      write: (um) => writeLength(um, "in"),
      parse: (text) => parseLength(text, { least: 0, most: 1_000 }, "mm"),
      near: 130,
    },
    { name: "a length of time", of: fc.integer({ min: 0, max: 86_399 }), write: writeDuration, parse: (text) => parseDuration(text, "min"), near: 60 },
    { name: "a figure", of: fc.integer({ min: 0, max: 99_999_999 }).map((n) => n / 100), write: (n) => writeNumber(n, 2), parse: parseNumber, near: 0 },
  ];
  it.each(Object.keys(LOCALE_FORMATS) as Locale[])(
    "is read back as the same in %s; where it can be taken for a thousandfold it is asked about, never taken",
    (locale) => {
      const manner = LOCALE_FORMATS[locale];
      for (const { name, of, write, parse, near } of WRITTEN)
        fc.assert(
          fc.property(of, (value) => {
            const text = localize(write(value), manner);
            const back = reads(text, manner, parse);
            if (back === "ambiguous") {
              // Only a whole number with one mark between its thousands, or three decimals that look like it.
              expect(text, name).toMatch(/\d[.,]\d{3}(?!\d)/);
            } else expect(Math.abs((back as number) - value), `${name}: ${text}`).toBeLessThanOrEqual(near);
          }),
          { numRuns: 150 },
        );
      for (const currency of ["EUR", "USD", "GBP", "CAD", "AUD", "SEK"])
        fc.assert(
          fc.property(fc.integer({ min: 0, max: 99_999_999 }), (minor) => {
            expect(reads(writeMoney(minor, currency, 0, locale), manner, (text) => parseMoney(text, currency))).toBe(minor);
          }),
          { numRuns: 60 },
        );
    },
  );
});
