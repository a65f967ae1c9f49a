import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cellInUnits, columnInUnits, metricColumn } from "./measured-columns";
import { inUnits, lengthInBoth, METRIC, massInBoth, temperatureInBoth, US_CUSTOMARY as US } from "./measured-text";

describe("a text with measures in both systems", () => {
  it("is read in the units of the workshop, each kind of measure by its own unit", () => {
    const text = "Trim to {6 mm|1/4 in}, in a room of {20 °C|68 °F}, and weigh {1.2 kg|42.3 oz}.";
    expect(inUnits(text, METRIC)).toBe("Trim to 6 mm, in a room of 20 °C, and weigh 1.2 kg.");
    expect(inUnits(text, US)).toBe("Trim to 1/4 in, in a room of 68 °F, and weigh 42.3 oz.");
    expect(inUnits(text, { ...US, length: "mm" })).toBe("Trim to 6 mm, in a room of 68 °F, and weigh 42.3 oz.");
  });

  it("says a computed measure as each system writes it", () => {
    const text = `${massInBoth(453_592)}, ${temperatureInBoth(6_000)}, ${lengthInBoth(25_400)}`;
    expect(inUnits(text, METRIC)).toBe("453.6 g, 60 °C, 25.4 mm");
    expect(inUnits(text, US)).toMatch(/^16 oz, 140 °F, 1 in$/);
  });

  it("states the same measure twice wherever the program writes one with a figure, to a tenth: figures are rounded to what hands can do", () => {
    // NIST Special Publication 811, appendix B: 1 in = 25.4 mm, 1 oz = 28.349 523 g, 1 lb = 453.592 37 g, 1 US fl oz = 29.573 53 ml.
    const PER: Record<string, number> = { mm: 1, in: 25.4, g: 1, kg: 1_000, oz: 28.349523, lb: 453.59237, ml: 1, "fl oz": 29.57353 };
    const root = new URL("../..", import.meta.url).pathname;
    let pairs = 0;
    for (const folder of ["core", "web"])
      for (const file of readdirSync(join(root, folder), { recursive: true, encoding: "utf8" })) {
        if (!/\.tsx?$/.test(file) || /\.test\.|\.next|node_modules/.test(file)) continue;
        for (const [, metric = "", us = ""] of readFileSync(join(root, folder, file), "utf8").matchAll(/\{(\d[^{}|\n]*)\|(\d[^{}|\n]*)\}/g)) {
          const [, a = "", unitA = ""] = /^([\d.]+) (mm|g|kg|ml)$/.exec(metric) ?? [];
          const [, whole = "0", over, under, unitB = ""] = /^([\d.]+)?(?: ?(\d+)\/(\d+))? (in|oz|lb|fl oz)$/.exec(us.replace(/^(\d+)\/(\d+)/, "0 $1/$2")) ?? [];
          // Amounts of an example are chosen round in each system; what is a length is the same length.
          if (unitA !== "mm" || unitB !== "in") continue;
          const inMm = (Number(whole) + (over ? Number(over) / Number(under) : 0)) * (PER[unitB] as number);
          expect(Math.abs(inMm / Number(a) - 1), `${file}: {${metric}|${us}}`).toBeLessThan(0.1);
          pairs += 1;
        }
      }
    expect(pairs).toBeGreaterThan(1);
  });
});

describe("a column of a log", () => {
  it("is named and filled in the units of the workshop, and read back to what it was", () => {
    const columns = ["pool_mm", "trim_mm", "wall_c", "grams_before", "grams", "wax_celsius", "minute", "reached_percent"];
    fc.assert(
      fc.property(fc.constantFrom(...columns), fc.integer({ min: 0, max: 500_000 }), fc.constantFrom(METRIC, US), (column, thousandths, units) => {
        const value = thousandths / 1_000;
        const read = metricColumn(columnInUnits(column, units));
        expect(read.column).toBe(column);
        expect(read.toMetric(cellInUnits(column, value, units))).toBeCloseTo(value, 3);
      }),
    );
    expect(columns.map((column) => columnInUnits(column, US))).toEqual([
      "pool_in",
      "trim_in",
      "wall_f",
      "ounces_before",
      "ounces",
      "wax_fahrenheit",
      "minute",
      "reached_percent",
    ]);
    expect(columns.map((column) => columnInUnits(column, METRIC))).toEqual(columns);
  });
});
