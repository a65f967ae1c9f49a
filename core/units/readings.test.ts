import fc from "fast-check";
import { unit } from "mathjs";
import { describe, expect, it } from "vitest";
import { parseRange, standing, writeRange, writeStanding } from "../heat/range";
import { parseDuration, writeDuration } from "./duration";
import type { Fault } from "./parsed";
import { parseCount, parsePercent } from "./percent";
import { parseTemperature, toFahrenheit, writeDifference, writeTemperature } from "./temperature";

const value = <T>(parsed: { ok: true; value: T } | { ok: false; code: Fault }) => (parsed.ok ? parsed.value : parsed.code);

describe("temperatures", () => {
  it.each([
    ["185F", 8_500],
    ["185 °F", 8_500],
    ["140 f", 6_000],
    ["85", 8_500],
    ["85,5 C", 8_550],
    ["60.25", 6_025],
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
    expect(standing(5_700, pour)).toEqual({ is: "inside" });
    expect(standing(6_300, pour)).toEqual({ is: "inside" });
    expect(standing(6_301, pour)).toEqual({ is: "above", by: 1 });
    expect(writeStanding(7_200, "pour", pour, "C")).toBe("9 °C above the pour range (57–63 °C)");
    expect(writeStanding(5_600, "pour", pour, "F")).toBe("1.8 °F below the pour range (135–145 °F)");
    expect(writeRange({ low: 8_500, high: 8_500 }, "C")).toBe("85 °C");
  });
});

describe("times, shares and counts", () => {
  it.each([
    ["2 min", 120],
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
