import fc from "fast-check";
import { unit } from "mathjs";
import { describe, expect, it } from "vitest";
import { MG_PER, massParts, parseMass, poundsAndOunces, writeMass } from "./mass";

const grams = (text: string) => {
  const parsed = parseMass(text, { unit: "g" });
  return parsed.ok ? parsed.value / 1_000 : parsed.code;
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
    ["1 1/2 lb", 680.389],
    ["½ oz", 14.175],
    ["1½oz", 42.524],
    ["1 lb 1/2 oz", 467.767],
    ["2 lbs", 907.185],
    ["500 mg", 0.5],
  ])("reads %s", (text, expected) => {
    expect(grams(text)).toBeCloseTo(expected, 3);
  });

  it("takes the workshop's unit where none is typed", () => {
    expect(parseMass("8", { unit: "oz" })).toEqual({ ok: true, value: 226_796 });
  });

  it.each([
    ["", "empty"],
    ["0", "too-small"],
    ["-5", "negative"],
    ["−5 g", "negative"],
    ["NaN", "not-understood"],
    ["twelve", "not-understood"],
    ["12 bananas", "not-understood"],
    ["1e9", "not-understood"],
    ["99999999 kg", "too-large"],
    ["8 fl oz", "volume"],
    ["8 floz", "volume"],
    ["20 cl", "volume"],
    ["20ml", "volume"],
  ])("refuses %s as %s", (text, why) => {
    expect(grams(text)).toBe(why);
  });

  it("asks which is meant where a comma could group thousands, with a unit too", () => {
    expect(parseMass("1,250 g", { unit: "g" })).toMatchObject({ code: "ambiguous" });
    expect(parseMass("2 lb 1,250 oz", { unit: "g" })).toMatchObject({ code: "ambiguous" });
    expect(parseMass("1,250", { unit: "g" })).toMatchObject({ code: "ambiguous", message: expect.stringContaining("1250 or as 1.250") });
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
  it("parts pounds and ounces so that they read back: 453 592.37 mg to the pound, NIST SP 811 (from memory)", () => {
    expect(poundsAndOunces(566_990, 2)).toBe("1 lb 4");
    expect(poundsAndOunces(453_592, 2)).toBe("1 lb 0");
    // A hair under two pounds is not "1 lb 16 oz".
    expect(poundsAndOunces(907_184, 1)).toBe("2 lb 0");
    fc.assert(
      fc.property(fc.integer({ min: 453_593, max: 40_000_000 }), (mg) => {
        const read = parseMass(`${poundsAndOunces(mg, 2)} oz`, { unit: "g" });
        expect(Math.abs((read.ok ? read.value : 0) - mg)).toBeLessThanOrEqual(142);
      }),
    );
  });

  it("shows as many decimals as the scale does, and more only where the amount needs them", () => {
    expect(writeMass(127_000, "g", 1_000_000)).toBe("127 g");
    expect(writeMass(12_500, "g", 1_000_000)).toBe("12.5 g");
    expect(writeMass(12_500, "g", 100_000)).toBe("12.5 g");
    expect(writeMass(12_000, "g", 100_000)).toBe("12.0 g");
    expect(massParts(226_796, "oz", 2_834_952)).toEqual({ figure: "8.0", unit: "oz" });
  });
});
