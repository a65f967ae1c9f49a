import { unit } from "mathjs";
import { describe, expect, it } from "vitest";
import { parseDensity, writeDensity } from "./density";
import { parseLength, writeLength } from "./length";
import { isCurrency, parseMoney, writeMoney } from "./money";
import type { Fault } from "./parsed";
import { bottlesFor, ML_PER, parseAmount, parseVolume, parseWater } from "./volume";

const value = <T>(parsed: { ok: true; value: T } | { ok: false; message: string } | null): T => {
  if (!parsed?.ok) throw new Error(parsed?.message ?? "not read");
  return parsed.value;
};
const fault = (parsed: { ok: boolean; code?: Fault } | null) => (parsed && !parsed.ok ? parsed.code : "was taken");

describe("a volume where a weight belongs", () => {
  it("knows the units of volume as NIST SP 811 (from memory) and the units of mathjs do", () => {
    expect(ML_PER["fl oz"]).toBeCloseTo(29.57353, 5);
    expect(ML_PER["fl oz"]).toBeCloseTo(unit(1, "floz").toNumber("ml"), 4);
    for (const text of ["10 ml", "20 cl", "1.5 dl", "0.25 l", "4 fl oz", "2 fl. oz.", "3 fluid ounces"]) {
      const { amount, unit: name, ml } = value(parseVolume(text));
      expect(ml).toBeCloseTo(unit(amount, name === "fl oz" ? "floz" : name).toNumber("ml"), 3);
    }
    expect(parseVolume("8 oz")).toBeNull();
  });

  it("turns it into weight by the oil's density and says what the mistake would have been", () => {
    // 4 fl oz at 0.96 g/ml: 118.294 ml, 113.562 g; taken for ounces it would have been 113.398 g.
    const thin = value(parseAmount("4 fl oz", { unit: "g", density: 960_000, name: "fern" }));
    expect(thin).toMatchObject({ mg: 113_562, volume: { unit: "fl oz", takenForMg: 113_398, ofMistake: "fluid ounces taken for ounces" } });
    // A heavy oil shows the mistake plainly: 10 ml at 1.04 are 10.4 g, not 10.
    expect(value(parseAmount("10 ml", { unit: "oz", density: 1_040_000, name: "fern" }))).toMatchObject({ mg: 10_400, volume: { takenForMg: 10_000 } });
    expect(value(parseAmount("4 oz", { unit: "g", density: null, name: "fern" }))).toEqual({ mg: 113_398, volume: null });
  });

  it("takes a volume of water for water: 8 fl oz weigh 8.33 oz (density at 20 °C from the CRC Handbook, from memory)", () => {
    expect(value(parseWater("8 fl oz", { unit: "oz" })) / 28_349.523125).toBeCloseTo(8.33, 2);
    expect(value(parseWater("20 cl", { unit: "g" }))).toBe(199_640);
    expect(value(parseWater("200 ml", { unit: "oz" }))).toBe(199_640);
    expect(value(parseWater("200", { unit: "g" }))).toBe(200_000);
    expect(fault(parseWater("5 l", { unit: "g", most: 1_000_000 }))).toBe("too-large");
  });

  it("asks for the density where it is not known", () => {
    expect(fault(parseAmount("4 fl oz", { unit: "g", density: null, name: "fern" }))).toBe("density-unknown");
    expect(fault(parseAmount("0 ml", { unit: "g", density: 900_000, name: "fern" }))).toBe("too-small");
  });

  it("counts sample bottles: about three of 10 ml to a fluid ounce (common practice, no source)", () => {
    const fluidOunceMg = Math.round(ML_PER["fl oz"] * 960);
    expect(bottlesFor(fluidOunceMg, 960_000, 10)).toBe(3);
    expect(bottlesFor(9_600, 960_000, 10)).toBe(1);
    expect(bottlesFor(9_601, 960_000, 10)).toBe(2);
  });
});

describe("densities and lengths", () => {
  it("are read as sheets write them", () => {
    expect(value(parseDensity("0,912 g/ml"))).toBe(912_000);
    expect(value(parseDensity("900 kg/m³"))).toBe(900_000);
    expect(writeDensity(912_000)).toBe("0.912 g/ml");
    expect(fault(parseDensity("90"))).toBe("out-of-range");
    expect(value(parseLength('3"', { least: 5, most: 1_000 }))).toBe(Math.round(unit(3, "inch").toNumber("mm") * 1_000));
    expect(value(parseLength("7.8 cm", { least: 5, most: 1_000 }))).toBe(78_000);
    expect(fault(parseLength("2", { least: 5, most: 1_000 }))).toBe("out-of-range");
    expect(value(parseLength("3 1/16", { least: 5, most: 1_000 }, "in"))).toBe(Math.round(unit(3.0625, "inch").toNumber("mm") * 1_000));
    expect(value(parseLength("3/8 in", { least: 5, most: 1_000 }))).toBe(9_525);
    expect(value(parseLength("78 mm", { least: 5, most: 1_000 }, "in"))).toBe(78_000);
  });

  it("are written in inches by sixteenths, or with two decimals where they lie on none", () => {
    expect(writeLength(77_788, "in")).toBe("3 1/16 in");
    expect(writeLength(25_400, "in")).toBe("1 in");
    expect(writeLength(9_525, "in")).toBe("3/8 in");
    expect(writeLength(78_000, "in")).toBe("3.07 in");
    expect(writeLength(400, "in")).toBe("0.02 in");
    for (let n = 1; n < 400; n++)
      expect(value(parseLength(writeLength(Math.round((n * 25_400) / 16), "in"), { least: 1, most: 1_000 }))).toBe(Math.round((n * 25_400) / 16));
  });
});

describe("money", () => {
  it("is whole coins of the currency: ISO 4217 as JavaScript's own data has it", () => {
    expect(value(parseMoney("18,40", "EUR"))).toBe(1_840);
    expect(value(parseMoney("€ 1,250.5", "EUR"))).toBe(125_050);
    expect(value(parseMoney("300", "JPY"))).toBe(300);
    expect(fault(parseMoney("3.5", "JPY"))).toBe("too-fine");
    expect(fault(parseMoney("-4", "EUR"))).toBe("negative");
    expect(fault(parseMoney("free", "EUR"))).toBe("not-understood");
    expect(writeMoney(1_840, "EUR")).toBe("€18.40");
    expect(writeMoney(41.27, "EUR", 2)).toBe("€0.4127");
    expect([isCurrency("GBP"), isCurrency("XQZ")]).toEqual([true, false]);
  });
});
