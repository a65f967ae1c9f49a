import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { tQuantile } from "../statistics/tails";
import { answerQuantity, meanFactor, quantityRequest, samplePlan, tolerableErrorG } from "./quantity";

describe("net quantity of packed goods", () => {
  it("allows the errors of directive 76/211/EEC (from memory), up to the next tenth", () => {
    for (const [stated, error] of [
      [5, 0.5],
      [14, 1.3],
      [50, 4.5],
      [75, 4.5],
      [141, 6.4],
      [200, 9],
      [250, 9],
      [400, 12],
      [500, 15],
      [800, 15],
      [2_000, 30],
    ] as const)
      expect({ stated, error: tolerableErrorG(stated) }).toEqual({ stated, error });
    expect(() => tolerableErrorG(4)).toThrow(RangeError);
  });

  it("accepts a mean by the factors of its annex II, which are t-quantiles", () => {
    expect([20, 30, 50].map((n) => Math.round(meanFactor(n) * 1_000) / 1_000)).toEqual([0.64, 0.503, 0.379]);
    // scipy 1.10, scipy.stats.t.ppf.
    expect(tQuantile(0.995, 19)).toBeCloseTo(2.860934606449914, 8);
    expect(tQuantile(0.975, 4)).toBeCloseTo(2.7764451051977987, 8);
    expect(tQuantile(0.95, 1000)).toBeCloseTo(1.646378818, 6);
  });

  const twenty = (by: (at: number) => number) => Array.from({ length: 20 }, (_, at) => 200 + by(at));
  it("passes, fails for its mean, for too many short packs, and for one that is short by more than twice", () => {
    const wave = (at: number) => (at % 2 ? 1 : -1);
    expect(answerQuantity({ stated_g: 200, weights_g: twenty(wave) })).toMatchObject({
      verdict: "pass",
      below: 0,
      below_twice: 0,
      mean_g: 200,
      tolerable_negative_error_g: 9,
    });
    const light = answerQuantity({ stated_g: 200, weights_g: twenty((at) => wave(at) - 2) });
    expect(light).toMatchObject({ verdict: "fail", below: 0, mean_g: 198 });
    expect(light.mean_limit_g).toBeCloseTo(200 - 0.64 * (light.sd_g ?? 0), 2);
    expect(light.fill_to_pass_g).toBe(200);
    expect(answerQuantity({ stated_g: 200, weights_g: twenty((at) => (at < 1 ? -9.5 : 3)) })).toMatchObject({ verdict: "fail", below: 1, below_twice: 0 });
    expect(answerQuantity({ stated_g: 200, weights_g: twenty((at) => (at < 1 ? -9 : 3)) })).toMatchObject({ verdict: "pass", below: 0 });
    expect(answerQuantity({ stated_g: 200, weights_g: [181.9, 205] })).toMatchObject({ verdict: "fail", below_twice: 1 });
    expect(answerQuantity({ stated_g: 200, weights_g: [200, 201, 202] })).toMatchObject({ verdict: "too_few" });
    expect(answerQuantity({ stated_g: 200, weights_g: [200] })).toMatchObject({ verdict: "too_few", sd_g: null, mean_limit_g: null, fill_to_pass_g: null });
  });

  it("names a fill that passes with the same spread, whatever it is", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 20, maxLength: 60 }),
        fc.double({ min: 0.1, max: 12, noNaN: true }),
        (noise, spread) => {
          const made = noise.map((one) => 150 + one * spread);
          const { fill_to_pass_g: fill, mean_g: mean } = answerQuantity({ stated_g: 141, weights_g: made });
          const moved = made.map((one) => one + ((fill ?? 0) - mean) + 0.001);
          const after = answerQuantity({ stated_g: 141, weights_g: moved });
          // Its mean passes; of a normal spread one in forty is short, and of any spread no more than Cantelli's inequality leaves.
          expect(after.mean_g).toBeGreaterThanOrEqual(after.mean_limit_g ?? Infinity);
          expect(after.below / made.length).toBeLessThanOrEqual(1 / (1 + 1.95 ** 2));
          expect(after.below_twice / made.length).toBeLessThanOrEqual(1 / (1 + 3.7 ** 2));
        },
      ),
      { numRuns: 60 },
    );
  });

  it("refuses what the rules do not cover", () => {
    for (const body of [
      { stated_g: 4, weights_g: [4] },
      { stated_g: 20_000, weights_g: [1] },
      { stated_g: 200, weights_g: [] },
      { stated_g: 200, weights_g: [-1] },
      { stated_g: 200 },
    ])
      expect(quantityRequest.safeParse(body).success).toBe(false);
  });
});

describe("how many packs are weighed", () => {
  it("follows the plans of directive 76/211/EEC, annex II, single sampling without spoiling (from memory)", () => {
    for (const [lot, sample, mayFall, forMean] of [
      [100, 50, 3, 30],
      [500, 50, 3, 30],
      [501, 80, 5, 50],
      [3_200, 80, 5, 50],
      [3_201, 125, 7, 50],
      [10_000, 125, 7, 50],
    ] as const)
      expect({ lot, ...samplePlan(lot) }).toEqual({ lot, sample, mayFall, forMean });
  });

  it("weighs all of a small lot, and lets no more fall short than the rules let of many", () => {
    for (let lot = 1; lot <= 400; lot++) {
      const { sample, mayFall, forMean } = samplePlan(lot);
      expect(sample).toBeLessThanOrEqual(lot);
      expect(forMean).toBeLessThanOrEqual(sample);
      if (lot < 40) expect(mayFall).toBe(0);
    }
    expect(samplePlan(12)).toEqual({ sample: 12, mayFall: 0, forMean: 12 });
  });
});
