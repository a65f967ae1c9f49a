import fc from "fast-check";
import { bignumber, fraction } from "mathjs";
import { describe, expect, it } from "vitest";
import { workingOf } from "../working";
import { loadOnBasis, OUNCE_PER_POUND } from "./load";
import { type ScaleInput, scaleFormula } from "./scale";
import { answerScale, fieldErrors, scaleRequest } from "./scale-api";

const GRAM = 1_000_000;
const input = (over: Partial<ScaleInput>): ScaleInput => ({
  basis: "wax",
  loadPpm: 100_000,
  maxLoadPpm: 120_000,
  vessels: [{ name: "cup", fillMg: 14_000, count: 10 }],
  sparePpm: 0,
  resolutionUg: GRAM,
  ...over,
});
const grams = (over: Partial<ScaleInput>) => {
  const scaled = scaleFormula(input(over));
  return [scaled.totalMg, scaled.waxMg, scaled.fragranceMg].map((mg) => mg / 1_000);
};

describe("worked amounts: common practice, no source", () => {
  it("140 g at 10 % of the wax is 127 + 13 on a 1 g scale", () => {
    expect(grams({})).toEqual([140, 127, 13]);
    const scaled = scaleFormula(input({}));
    expect(scaled.loadPercentOfWax).toBeCloseTo(10.236, 3);
    expect(scaled.loadPercentOfTotal).toBeCloseTo(9.286, 3);
  });

  it("75 g at 15 % of the wax is 65 + 10, and really 15.38 %", () => {
    const cups = { vessels: [{ name: "sample cup", fillMg: 12_500, count: 6 }], loadPpm: 150_000, maxLoadPpm: 160_000 };
    expect(grams(cups)).toEqual([75, 65, 10]);
    expect(scaleFormula(input(cups)).loadPercentOfWax).toBeCloseTo(15.38, 2);
  });

  it("140 g at 10 % of the total is 126 + 14", () => {
    expect(grams({ basis: "total" })).toEqual([140, 126, 14]);
  });

  it("8 % of the wax is 7.41 % of the total, and back", () => {
    expect(loadOnBasis(80_000, "wax", "total") / 10_000).toBeCloseTo(7.41, 2);
    expect(loadOnBasis(loadOnBasis(80_000, "wax", "total"), "total", "wax")).toBeCloseTo(80_000, 6);
  });

  it("an ounce a pound is 0.0625 of the wax: 28 g to 454 g; 8 % of a pound is 1.28 oz", () => {
    expect(OUNCE_PER_POUND / 1e6).toBe(0.0625);
    // One pound of wax plus its ounce, given as the total: the split must come back.
    const pound = grams({ vessels: [{ name: "all", fillMg: 453_592 + 28_350, count: 1 }], loadPpm: OUNCE_PER_POUND });
    expect(pound[1]).toBe(454);
    expect(pound[2]).toBeCloseTo(28, 0);
    const eight = scaleFormula(input({ vessels: [{ name: "all", fillMg: Math.round(453_592.37 * 1.08), count: 1 }], loadPpm: 80_000, resolutionUg: 1_000 }));
    expect(eight.fragranceMg / 28_349.523125).toBeCloseTo(1.28, 3);
  });

  it("fills several kinds of vessel from one pot, with spare", () => {
    const two = [
      { name: "cup", fillMg: 12_500, count: 6 },
      { name: "tealight", fillMg: 14_000, count: 10 },
    ];
    expect(grams({ vessels: two, sparePpm: 0 })[0]).toBe(215);
    expect(grams({ vessels: two, sparePpm: 100_000 })[0]).toBe(236.5);
  });
});

describe("rounding", () => {
  it("goes up to the next mark where the nearest would pass the limit", () => {
    // 127.27 g rounds to 127 g, and 13 ÷ 127 = 10.24 % is over a limit of 10 %.
    const scaled = scaleFormula(input({ maxLoadPpm: 100_000 }));
    expect([scaled.waxMg, scaled.fragranceMg]).toEqual([128_000, 12_000]);
    expect(scaled.loadPercentOfWax).toBeLessThanOrEqual(10);
  });

  it("warns plainly of a load over what the wax takes, on either basis", () => {
    const codes = (over: Partial<ScaleInput>) => scaleFormula(input(over)).warnings.map((warning) => warning.code);
    expect(codes({ loadPpm: 130_000 })).toContain("load-above-limit");
    // 11 % of the total is 12.36 % of the wax.
    expect(codes({ basis: "total", loadPpm: 110_000 })).toContain("load-above-limit");
    expect(codes({ loadPpm: 120_000 })).not.toContain("load-above-limit");
    expect(codes({ loadPpm: 990_000, maxLoadPpm: null })).not.toContain("load-above-limit");
  });

  it("says so, and stays exact, where the scale is too coarse for the batch", () => {
    const scaled = scaleFormula(input({ vessels: [{ name: "drop", fillMg: 500, count: 1 }] }));
    expect(scaled.waxMg + scaled.fragranceMg).toBe(500);
    expect(scaled.waxMg).toBeGreaterThan(0);
    expect(scaled.warnings.map((warning) => warning.code)).toContain("scale-too-coarse");
  });

  it("names the spare that brings a fragrance between two marks onto them", () => {
    const scaled = scaleFormula(input({ vessels: [{ name: "cup", fillMg: 12_500, count: 7 }] }));
    expect(scaled.warnings.find((warning) => warning.code === "between-marks")?.message).toContain("spare of 0.57 %");
    expect(scaleFormula(input({ vessels: [{ name: "cup", fillMg: 12_500, count: 7 }], sparePpm: 5_714 })).totalMg).toBe(88_000);
  });

  it("refuses what cannot be a batch", () => {
    expect(() => scaleFormula(input({ vessels: [] }))).toThrow(/nothing to fill/);
    expect(() => scaleFormula(input({ vessels: [{ name: "vat", fillMg: 100_000_000, count: 11 }] }))).toThrow(/1100 kg is more than one batch/);
  });
});

const anyInput = fc.record({
  basis: fc.constantFrom("wax" as const, "total" as const),
  loadPpm: fc.integer({ min: 0, max: 300_000 }),
  maxLoadPpm: fc.option(fc.integer({ min: 10_000, max: 300_000 })),
  vessels: fc.array(fc.record({ name: fc.constant(""), fillMg: fc.integer({ min: 5_000, max: 400_000 }), count: fc.integer({ min: 1, max: 30 }) }), {
    minLength: 1,
    maxLength: 6,
  }),
  sparePpm: fc.integer({ min: 0, max: 300_000 }),
  resolutionUg: fc.constantFrom(1_000, 10_000, 100_000, GRAM, 2_834_952),
});

describe("properties of scaling", () => {
  it("keeps the sum exact to the milligram, and never lets rounding pass the limit", () => {
    fc.assert(
      fc.property(anyInput, (one) => {
        const scaled = scaleFormula(one);
        expect(scaled.waxMg + scaled.fragranceMg).toBe(scaled.totalMg);
        expect(scaled.fragranceMg).toBeGreaterThanOrEqual(0);
        const asked = loadOnBasis(one.loadPpm, one.basis, "wax");
        // Exact rational arithmetic of mathjs settles the comparison.
        if (one.maxLoadPpm !== null && asked <= one.maxLoadPpm) {
          expect(fraction(scaled.fragranceMg, scaled.waxMg).compare(fraction(one.maxLoadPpm, 1_000_000))).toBeLessThanOrEqual(0);
        }
      }),
      { numRuns: 500 },
    );
  });

  it("is within one step of the exact amount (big decimals of mathjs)", () => {
    fc.assert(
      fc.property(anyInput, (one) => {
        const scaled = scaleFormula(one);
        const total = bignumber(scaled.totalMg);
        const wax =
          one.basis === "wax"
            ? total.div(bignumber(1).plus(bignumber(one.loadPpm).div(1e6)))
            : total.times(bignumber(1).minus(bignumber(one.loadPpm).div(1e6)));
        expect(wax.minus(scaled.waxMg).abs().toNumber()).toBeLessThanOrEqual(one.resolutionUg / 1_000 + 1);
      }),
    );
  });

  it("gives no less fragrance for more load, and no less wax for more jars or larger fills", () => {
    fc.assert(
      fc.property(anyInput, fc.integer({ min: 1, max: 90_000 }), (one, more) => {
        const base = scaleFormula(one);
        expect(scaleFormula({ ...one, loadPpm: one.loadPpm + more }).fragranceMg).toBeGreaterThanOrEqual(base.fragranceMg);
        const [first, ...rest] = one.vessels;
        if (!first) return;
        expect(scaleFormula({ ...one, vessels: [{ ...first, count: first.count + 1 }, ...rest] }).waxMg).toBeGreaterThanOrEqual(base.waxMg);
        expect(scaleFormula({ ...one, vessels: [{ ...first, fillMg: first.fillMg + more }, ...rest] }).waxMg).toBeGreaterThanOrEqual(base.waxMg);
      }),
      { numRuns: 500 },
    );
  });

  it("gives n times as much for n times the jars, up to rounding", () => {
    fc.assert(
      fc.property(anyInput, fc.integer({ min: 2, max: 9 }), (one, n) => {
        const single = scaleFormula(one);
        const many = scaleFormula({ ...one, vessels: one.vessels.map((vessel) => ({ ...vessel, count: vessel.count * n })) });
        const step = (one.resolutionUg / 1_000 + 1) * (n + 1);
        expect(Math.abs(many.waxMg - n * single.waxMg)).toBeLessThanOrEqual(step);
        expect(Math.abs(many.totalMg - n * single.totalMg)).toBeLessThanOrEqual(n);
      }),
    );
  });
});

describe("the working", () => {
  it("opens a figure to the steps it rests on, and each step's sum is right", () => {
    const steps = workingOf(scaleFormula(input({ sparePpm: 50_000 })).working, "wax");
    expect(steps.map((step) => step.gives.name)).toEqual(["cup, all", "fills", "total", "wax, exact", "wax"]);
    for (const step of steps) {
      const [a, b] = step.from.map((figure) => figure.value) as [number, number];
      const expected = { multiply: a * b, divide: a / b, add: step.from.reduce((sum, one) => sum + one.value, 0), subtract: a - b }[step.by as "add"];
      if (expected !== undefined) expect(step.gives.value).toBeCloseTo(expected, 2);
    }
  });
});

describe("the calculation interface", () => {
  const answer = (body: unknown) => {
    const parsed = scaleRequest.safeParse(body);
    if (!parsed.success) return fieldErrors(parsed.error);
    return answerScale(parsed.data);
  };
  const whole = { basis: "wax", load_percent: 10, max_load_percent: 12, vessels: [{ fill_g: 14, count: 10 }], spare_percent: 0, scale_resolution_g: 1 };

  it("answers the published example to the letter", () => {
    expect(answer(whole)).toMatchObject({ total_g: 140, wax_g: 127, fragrance_g: 13, load_percent_of_wax: 10.236, load_percent_of_total: 9.286 });
  });

  it.each([
    ["load_percent", { load_percent: -1 }],
    ["load_percent", { load_percent: Number.NaN }],
    ["load_percent", { load_percent: "10" }],
    ["load_percent", { basis: "total", load_percent: 60 }],
    ["vessels", { vessels: [] }],
    ["vessels", { vessels: [{ fill_g: 14, count: 0 }] }],
    ["vessels.0.count", { vessels: [{ fill_g: 14, count: 1.5 }] }],
    ["vessels.0.fill_g", { vessels: [{ fill_g: 1e12, count: 1 }] }],
    ["basis", { basis: "oil" }],
    ["spare_percent", { spare_percent: -5 }],
    ["scale_resolution_g", { scale_resolution_g: 0 }],
  ])("tells a fault at %s", (field, over) => {
    expect(answer({ ...whole, ...over })).toHaveProperty([field]);
  });
});
