import fc from "fast-check";
import { fraction, unit } from "mathjs";
import { describe, expect, it } from "vitest";
import { type LoadBasis, loadOnBasis, parseLoad, writePerWeight } from "./load";

const read = (text: string, basis: LoadBasis = "wax") => {
  const parsed = parseLoad(text, basis);
  return parsed.ok ? parsed.value / 10_000 : parsed.code;
};

describe("a load as makers say it: rules of thumb, common practice, no source", () => {
  it("is read per pound, per kilogram, or as two weights", () => {
    expect(read("8")).toBe(8);
    expect(read("8,5 %")).toBe(8.5);
    // One ounce a pound is 6.25 %, half of it 3.125 %; 1.28 oz is 8 % of a pound; 1.6 to 1.92 oz are 10 to 12 %.
    expect(read("1 oz/lb")).toBe(6.25);
    expect(read("1 oz a pound")).toBe(6.25);
    expect(read("1/2 oz per lb")).toBe(3.125);
    expect(read("1.28 oz to the pound")).toBe(8);
    expect([read("1.6 oz/lb"), read("1.92 oz/lb")]).toEqual([10, 12]);
    expect(read("80 g/kg")).toBe(8);
    expect(read("28 g to 454 g")).toBeCloseTo((28 / 454) * 100, 3);
    // Ounces and pounds by the units of mathjs.
    expect(read("1 oz/lb")).toBeCloseTo((unit(1, "oz").toNumber("g") / unit(1, "lb").toNumber("g")) * 100, 6);
  });

  it("is a share of the wax where it is said per weight, also on the other basis", () => {
    expect(read("1 oz/lb", "total")).toBeCloseTo(Number(fraction(625, 10_625).valueOf()) * 100, 3);
    expect(read("8", "total")).toBe(8);
    expect(loadOnBasis(80_000, "wax", "total")).toBeCloseTo(Number(fraction(8, 108).valueOf()) * 1e6, 6);
  });

  it("is read as makers write two weights", () => {
    for (const [text, percent] of [
      ["22 g / 278 g", (22 / 278) * 100],
      ["32 g in 393 g", (32 / 393) * 100],
      ["32g on 393g of wax", (32 / 393) * 100],
      ["3 oz in 5 lb", 3.75],
      ["1 oz/lb", 6.25],
      ["1 oz : 1 lb", 6.25],
      ["1 oz in a pound", 6.25],
      ["8 + 8 + 6 g to 278 g", (22 / 278) * 100],
    ] as const)
      expect(read(text), text).toBeCloseTo(percent, 3);
  });

  it("is asked about where it can be a factor of the wax, with both readings; a percent sign settles it", () => {
    const asks = (text: string) => {
      const parsed = parseLoad(text, "wax");
      return parsed.ok ? parsed.value / 10_000 : parsed.message;
    };
    expect(asks("0.0625")).toBe("“0.0625” can mean 0.0625 %, or 0.0625 × the wax, which is a load of 6.25 %. Write 6.25 %, or 0.0625 % with its sign.");
    expect(asks("1/16")).toContain("a load of 6.25 %");
    expect(asks("22/278")).toContain("a load of 7.914 %");
    expect(asks("0.0625 %")).toBe(0.0625);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 99_999 }), (n) => {
        const percent = n / 10_000;
        const asked = read(String(percent));
        if (percent < 0.5) expect(asked).toBe("ambiguous");
        else expect(asked).toBeCloseTo(percent, 4);
        expect(read(`${percent} %`)).toBeCloseTo(percent, 3);
      }),
    );
    // Unscented is no slip.
    expect([read("0"), read("0.5")]).toEqual([0, 0.5]);
  });

  it("is refused where it is no load, with what to do", () => {
    expect(read("500 g/lb")).toBe("too-large");
    expect(read("1 fl oz/lb")).toBe("volume");
    expect(read("some a pound")).toBe("not-understood");
    expect(read("-1")).toBe("out-of-range");
  });

  it("is written back as it is weighed out", () => {
    expect(writePerWeight(80_000, "oz")).toBe("1.28 oz to the pound");
    expect(writePerWeight(62_500, "oz")).toBe("1 oz to the pound");
    expect(writePerWeight(80_000, "g")).toBe("80 g to the kilogram");
  });
});
