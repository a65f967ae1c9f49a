import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { parseNumber, writeNumber } from "./number";

const read = (text: string) => {
  const parsed = parseNumber(text);
  return parsed.ok ? parsed.value : parsed.message;
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
    ["3/4", 0.75],
    ["−2,5", -2.5],
  ])("reads %s", (text, expected) => {
    expect(read(text)).toBe(expected);
  });

  it.each([
    ["", /Type a number/],
    ["1.2.3", /not a number/],
    ["0x1F", /not a number/],
    ["1e3", /not a number/],
    ["Infinity", /not a number/],
    ["1/0", /divides by zero/],
    ["9".repeat(400), /too large/],
    ["2,500", /2500 or as 2\.500\. Write 2500 or 2\.5/],
  ])("refuses %s", (text, why) => {
    expect(read(text)).toMatch(why);
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
