import fc from "fast-check";
import { expect, it } from "vitest";
import { type HeatMark, layHeatLine } from "./heat-layout";

const UNITS = {
  temperature: "C" as const,
  t: (centi: number) => `${centi / 100} °C`,
  tParts: (centi: number) => ({ figure: (centi / 100).toFixed(1), unit: "°C" }),
  range: (range: { low: number; high: number }) => `${range.low / 100}–${range.high / 100} °C`,
};
const BEGIN = Date.parse("2026-03-14T09:00:00Z");
const BANDS = [
  { step: "heat", name: "heat", range: { low: 8_300, high: 8_700 } },
  { step: "cool", name: "pour", range: { low: 5_700, high: 6_300 } },
];
const mark = fc.record({ minute: fc.integer({ min: 0, max: 900 }), celsius: fc.integer({ min: 3_000, max: 9_500 }), tool: fc.constantFrom("a", "b", null) });
const toMarks = (all: readonly { minute: number; celsius: number; tool: string | null }[]): HeatMark[] =>
  all.map(({ minute, celsius, tool }) => ({
    at: new Date(BEGIN + minute * 60_000).toISOString(),
    celsius,
    step: "cool",
    instrumentId: tool,
    instrumentKind: tool && "probe",
  }));

it("a heat line holds all its readings within its edges, the newest with its figure, and no figure covers a mark but the newest's", () => {
  fc.assert(
    fc.property(fc.array(mark, { minLength: 1, maxLength: 40 }), fc.integer({ min: 320, max: 1_200 }), (all, width) => {
      const at = layHeatLine({ bands: BANDS, ceiling: 9_300, marks: toMarks(all) }, width, UNITS);
      for (const reading of at.readings) {
        expect(reading.x).toBeGreaterThanOrEqual(at.edge.left - 1e-6);
        expect(reading.x).toBeLessThanOrEqual(width - at.edge.right + 1e-6);
        expect(reading.y).toBeGreaterThanOrEqual(at.edge.top - 1e-6);
        expect(reading.y).toBeLessThanOrEqual(at.foot + 1e-6);
      }
      for (const [index, reading] of at.readings.entries()) expect(reading.x).toBeGreaterThanOrEqual((at.readings[index - 1]?.x ?? 0) - 1e-6);
      expect(at.figures[0]?.mark).toBe(at.sorted.at(-1));
      for (const { x, y, text } of at.figures.slice(1))
        for (const reading of at.readings) expect(Math.abs(reading.x - x) < text.length * 4 && reading.y > y - 12 && reading.y < y + 3).toBe(false);
      expect(at.runs.flat()).toEqual(at.sorted);
      for (const run of at.runs) expect(new Set(run.map((each) => each.instrumentId)).size).toBe(1);
    }),
    { numRuns: 500 },
  );
});

it("ranges that are the same stand as one band under all their names; the scorch is shown only where it is near", () => {
  const same = { low: 8_300, high: 8_700 };
  const bands = [
    { step: "heat", name: "heat", range: same },
    { step: "add", name: "add", range: same },
  ];
  const at = layHeatLine({ bands, ceiling: 9_300, marks: [] }, 640, UNITS);
  expect(at.bands).toEqual([{ range: same, names: ["heat", "add"] }]);
  expect(at.beside.map((item) => item.isScorch)).toEqual([false, true]);
  expect(layHeatLine({ bands, ceiling: 12_000, marks: [] }, 640, UNITS).isScorchShown).toBe(false);
});
