import fc from "fast-check";
import { fraction } from "mathjs";
import { describe, expect, it } from "vitest";
import { LOCALE_FORMATS, type Locale } from "./locale";
import { askWhetherThousands, parseNumber, writeNumber } from "./number";

const read = (text: string) => {
  const parsed = parseNumber(text);
  return parsed.ok ? parsed.value : parsed.code;
};

describe("numbers as people type them", () => {
  it.each([
    ["12,5", 12.5],
    ["12.5", 12.5],
    [".5", 0.5],
    [",5", 0.5],
    ["5.", 5],
    ["1 250,75", 1_250.75],
    ["1\u202f250", 1_250],
    ["1.250,5", 1_250.5],
    ["1,250.5", 1_250.5],
    ["1,250,000", 1_250_000],
    ["1.250.000", 1_250_000],
    ["1.250.000,5", 1_250_000.5],
    ["1\u00a0250\u00a0000,5", 1_250_000.5],
    ["3/4", 0.75],
    ["1 1/2", 1.5],
    ["1-1/2", 1.5],
    ["½", 0.5],
    ["1½", 1.5],
    ["2 ⅜", 2.375],
    ["3⁄8", 0.375],
    ["−1 1/4", -1.25],
    ["1'250", 1_250],
    ["1’250.5", 1_250.5],
    ["−2,5", -2.5],
  ])("reads %s", (text, expected) => {
    expect(read(text)).toBe(expected);
  });

  it.each([
    ["", "empty"],
    ["1.2.3", "not-understood"],
    ["1,2,3", "not-understood"],
    ["1 2", "not-understood"],
    ["12 .5", "not-understood"],
    ["12. 5", "not-understood"],
    ["1,23.5", "not-understood"],
    ["12,34,567", "not-understood"],
    ["1 25", "not-understood"],
    ["0x1F", "not-understood"],
    ["1e3", "not-understood"],
    ["Infinity", "not-understood"],
    ["1/0", "not-understood"],
    ["1 1/0", "not-understood"],
    ["1/2/3", "not-understood"],
    ["9".repeat(400), "too-large"],
  ])("refuses %s as %s", (text, why) => {
    expect(read(text)).toBe(why);
  });

  it("reads fractions as fraction.js, a general-purpose library, reads them (through mathjs)", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 99 }), fc.integer({ min: 1, max: 64 }), fc.integer({ min: 1, max: 64 }), (whole, over, under) => {
        const exact = Number(fraction(whole).add(fraction(over, under)).valueOf());
        expect(read(`${whole} ${over}/${under}`)).toBeCloseTo(exact, 9);
        expect(read(`${over}/${under}`)).toBeCloseTo(over / under, 9);
      }),
    );
  });

  it("gives both readings where a comma could group thousands", () => {
    expect(parseNumber("2,500")).toMatchObject({ code: "ambiguous", message: expect.stringContaining("2500 or as 2.500. Write 2500 or 2.5") });
  });

  it("asks about a point before three digits where the place writes thousands so, and only there", () => {
    const asks = (text: string, locale: Locale) => askWhetherThousands(text, LOCALE_FORMATS[locale])?.message ?? null;
    expect(asks("12.500", "de-DE")).toBe("“12.500” can be read as 12500 or as 12,500. Write 12500 or 12,5.");
    expect(asks("1.250 g", "de-DE")).toMatch(/1250 or as 1,250/);
    expect(asks("1.250 €", "de-DE")).not.toBeNull();
    for (const text of ["12.5", "0.250", "1250", "12.500,5", "1.250.000", "12.5000", "1,250"]) expect(asks(text, "de-DE"), text).toBeNull();
    for (const locale of Object.keys(LOCALE_FORMATS) as Locale[]) if (LOCALE_FORMATS[locale].group !== ".") expect(asks("12.500 g", locale)).toBeNull();
  });

  it("means the same with a point, a comma, or a true minus sign", () => {
    fc.assert(
      fc.property(fc.integer({ min: -99_999_999, max: 99_999_999 }), (hundredths) => {
        const text = (hundredths / 100).toFixed(2);
        expect(read(text)).toBe(hundredths / 100);
        expect(read(text.replace(".", ","))).toBe(hundredths / 100);
        expect(read(writeNumber(hundredths / 100, 2))).toBe(hundredths / 100);
      }),
    );
  });
});
