import fc from "fast-check";
import { unit } from "mathjs";
import { describe, expect, it } from "vitest";
import {
  exactResolution,
  MG_PER,
  massParts,
  parseMass,
  poundsAndOunces,
  type ScaleDisplay,
  sumOfShown,
  typedUnit,
  writeBulk,
  writeMass,
  writeOnScale,
  writeResolution,
} from "./mass";

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
    ["2 lb, 3 oz", 992.233],
    ["2 lb. 3 oz.", 992.233],
    ["2 lb and 3 oz", 992.233],
    ["2 pounds & 3 ounces", 992.233],
    ["1-1/2 lb", 680.389],
    ["500 mg", 0.5],
    ["8+8+8+7.5", 31.5],
    ["8 + 8 + 7.5 oz", 666.214],
    ["1 lb + 4 oz", 566.99],
    ["100 g + 1 oz", 128.35],
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
    ["1,2,3", "not-understood"],
    ["1 2", "not-understood"],
    ["12 .5", "not-understood"],
    ["1 lb -4 oz", "not-understood"],
    ["1 lb −4 oz", "not-understood"],
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

describe("a scale and what it shows", () => {
  const ounces = [0.001, 0.01, 0.05, 0.1, 1];

  it("keeps a resolution in ounces exact, also where it was cut to whole micrograms; one in grams stays", () => {
    // NIST Special Publication 811, appendix B: an ounce is 28.349 523 125 g.
    expect(exactResolution(2_834_952)).toBe(2_834_952.3125);
    for (const oz of ounces) expect(exactResolution(Math.round(oz * 28_349_523.125))).toBeCloseTo(oz * 28_349_523.125, 6);
    for (const ug of [1_000, 10_000, 50_000, 100_000, 500_000, 1_000_000, 5_000_000]) expect(exactResolution(ug)).toBe(ug);
  });

  it("gives every increment of a scale in the scale's own unit, so that it reads back as that weight", () => {
    const scales: ScaleDisplay[] = [
      ...ounces.flatMap((oz) => (["oz", "lb"] as const).map((unit) => ({ resolutionUg: exactResolution(oz * 28_349_523.125), unit }))),
      ...[1_000, 10_000, 100_000, 1_000_000, 5_000_000].map((resolutionUg) => ({ resolutionUg, unit: "g" as const })),
    ];
    fc.assert(
      fc.property(fc.constantFrom(...scales), fc.integer({ min: 1, max: 20_000 }), (scale, steps) => {
        const mg = Math.round((steps * scale.resolutionUg) / 1_000);
        const read = parseMass(writeOnScale(mg, scale), { unit: typedUnit(scale) });
        expect(read, `${writeOnScale(mg, scale)} on ${writeResolution(scale)}`).toMatchObject({ ok: true, value: mg });
        // A resolution is never nothing.
        expect(writeResolution(scale)).not.toMatch(/^0 /);
      }),
    );
    expect(writeOnScale(66_000, { resolutionUg: 1_000_000 })).toBe("66 g");
    expect(writeOnScale(580_600, { resolutionUg: 2_834_952.3125, unit: "lb" })).toBe("1 lb 4.5 oz");
  });

  it("has shown parts add up to the shown total", () => {
    // 17.35 oz of wax and 0.51 oz of oil are not 17.87 oz.
    expect(writeMass(sumOfShown([491_970, 14_500], "oz"), "oz")).toBe("17.86 oz");
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 5_000_000 }), { minLength: 1, maxLength: 8 }),
        fc.constantFrom("g" as const, "oz" as const),
        (parts, unit) => {
          const shown = parts.reduce((sum, mg) => sum + Number.parseFloat(massParts(mg, unit).figure), 0);
          expect(Number.parseFloat(massParts(sumOfShown(parts, unit), unit).figure)).toBeCloseTo(shown, 6);
        },
      ),
    );
  });
});

describe("a store of something", () => {
  it("is shown in the next unit where it rounds up to it", () => {
    const all = (mg: number) => [writeBulk(mg, "g"), writeBulk(mg, "oz")];
    expect(all(999_999)).toEqual(["1 kg", "2.2 lb"]);
    expect(all(999_499)[0]).toBe("999 g");
    expect(all(453_592)).toEqual(["454 g", "1 lb"]);
    expect(all(450_000)[1]).toBe("15.87 oz");
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5_000_000 }), (mg) => {
        const [grams = "", ounces = ""] = all(mg);
        if (grams.endsWith(" g")) expect(Number.parseFloat(grams)).toBeLessThan(1_000);
        if (ounces.endsWith(" oz")) expect(Number.parseFloat(ounces)).toBeLessThan(16);
      }),
    );
  });
});
