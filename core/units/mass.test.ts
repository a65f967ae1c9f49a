import fc from "fast-check";
import { unit } from "mathjs";
import { describe, expect, it } from "vitest";
import { MG_PER, massParts, parseMass, writeMass } from "./mass";

const grams = (text: string) => {
  const parsed = parseMass(text, { unit: "g" });
  return parsed.ok ? parsed.value / 1_000 : parsed.message;
};

describe("weights as people type them", () => {
  it.each([
    ["12.5", 12.5],
    ["12,5", 12.5],
    ["12,5 g", 12.5],
    ["1.2 kg", 1_200],
    ["1 250 g", 1_250],
    ["1.250,5", 1_250.5],
    ["8 oz", 226.796],
    ["8oz.", 226.796],
    ["1 lb 4 oz", 566.99],
    ["1lb4oz", 566.99],
    ["1/2 lb", 226.796],
    ["2 lbs", 907.185],
    ["500 mg", 0.5],
  ])("reads %s", (text, expected) => {
    expect(grams(text)).toBeCloseTo(expected, 3);
  });

  it("takes the workshop's unit where none is typed", () => {
    expect(parseMass("8", { unit: "oz" })).toEqual({ ok: true, value: 226_796 });
  });

  it.each([
    ["", /Type a weight/],
    ["0", /more than zero/],
    ["-5", /cannot be negative/],
    ["−5 g", /cannot be negative/],
    ["NaN", /not a weight/],
    ["twelve", /not a weight/],
    ["12 bananas", /not a weight/],
    ["1e9", /not a weight/],
    ["99999999 kg", /more than is possible/],
    ["8 fl oz", /fluid ounce of oil is not an ounce/],
    ["8 floz", /is a volume/],
    ["20 cl", /is a volume/],
    ["20ml", /is a volume/],
  ])("refuses %s and says why", (text, why) => {
    expect(grams(text)).toMatch(why);
  });

  it("asks which is meant where a comma could group thousands", () => {
    expect(grams("1,250")).toMatch(/1250 or as 1\.250/);
    expect(grams("0,125")).toBe(0.125);
  });
});

describe("units against outside sources", () => {
  it("has the exact ounce and pound of NIST SP 811, appendix B (from memory)", () => {
    expect(MG_PER.lb).toBe(453_592.37);
    expect(MG_PER.oz).toBe(28_349.523125);
  });

  it("agrees with the units of mathjs, a general-purpose library", () => {
    for (const [ours, theirs] of [
      ["oz", "oz"],
      ["lb", "lbm"],
      ["kg", "kg"],
      ["g", "g"],
    ] as const) {
      fc.assert(
        fc.property(fc.integer({ min: 1, max: 90_000 }), (hundredths) => {
          const amount = hundredths / 100;
          const parsed = parseMass(`${amount} ${ours}`, { unit: "g" });
          expect(parsed.ok && parsed.value).toBe(Math.round(unit(amount, theirs).toNumber("mg")));
        }),
      );
    }
  });

  it("writes what it reads: no figure changes by being shown and typed again", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 50_000_000 }), (mg) => {
        expect(parseMass(writeMass(mg, "g"), { unit: "oz" })).toEqual({ ok: true, value: mg });
      }),
    );
  });
});

describe("weights as they are shown", () => {
  it("shows as many decimals as the scale does, and more only where the amount needs them", () => {
    expect(writeMass(127_000, "g", 1_000_000)).toBe("127 g");
    expect(writeMass(12_500, "g", 1_000_000)).toBe("12.5 g");
    expect(writeMass(12_500, "g", 100_000)).toBe("12.5 g");
    expect(writeMass(12_000, "g", 100_000)).toBe("12.0 g");
    expect(massParts(226_796, "oz", 2_834_952)).toEqual({ figure: "8.0", unit: "oz" });
  });
});
