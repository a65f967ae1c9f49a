import { describe, expect, it } from "vitest";
import { randomFrom } from "../random";
import { tQuantile } from "../statistics/tails";
import { answerQuantity, meanFactor, samplePlan, tolerableErrorG } from "./quantity";
import { quantityRulesOf } from "./rules";
import { quantityRequest } from "./schema";

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

  const twenty = (by: (at: number) => number) => Array.from({ length: 20 }, (_, index) => 200 + by(index));
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
    // One of twenty may; two may not.
    expect(answerQuantity({ stated_g: 200, weights_g: twenty((at) => (at < 1 ? -9.5 : 3)) })).toMatchObject({ verdict: "pass", below: 1, may_fall_short: 1 });
    expect(answerQuantity({ stated_g: 200, weights_g: twenty((at) => (at < 2 ? -9.5 : 3)) })).toMatchObject({ verdict: "fail", below: 2, below_twice: 0 });
    expect(answerQuantity({ stated_g: 200, weights_g: twenty((at) => (at < 1 ? -9 : 3)) })).toMatchObject({ verdict: "pass", below: 0 });
    expect(answerQuantity({ stated_g: 200, weights_g: [181.9, 205] })).toMatchObject({ verdict: "fail", below_twice: 1 });
    expect(answerQuantity({ stated_g: 200, weights_g: [200, 201, 202] })).toMatchObject({ verdict: "too_few" });
    expect(answerQuantity({ stated_g: 200, weights_g: [200] })).toMatchObject({ verdict: "too_few", sd_g: null, mean_limit_g: null, fill_to_pass_g: null });
  });

  it("judges a sample by the plan of its size, and as the whole lot only where all are weighed (76/211/EEC, annex II, from memory)", () => {
    const with_ = (short: number, n: number, lot?: number) =>
      answerQuantity({ stated_g: 200, weights_g: Array.from({ length: n }, (_, index) => (index < short ? 190.9 : 202.3)), lot });
    for (const [n, mayFall] of [
      [20, 1],
      [50, 3],
      [80, 5],
      [125, 7],
    ] as const)
      for (const short of [mayFall, mayFall + 1])
        expect({ n, short, ...with_(short, n, 5_000) }).toMatchObject({ verdict: short > mayFall ? "fail" : "pass", below: short, may_fall_short: mayFall });
    // All forty of a lot: 2.5 % of it is one; of all thirty-nine none may.
    expect([with_(1, 40, 40).verdict, with_(2, 40, 40).verdict, with_(1, 39, 39).verdict, with_(1, 39, 400).verdict]).toEqual(["pass", "fail", "fail", "pass"]);
    // A whole lot reaches what it states, with no room for chance; a few are enough where they are all.
    const light = { stated_g: 200, weights_g: [199, 199.5, 200, 201] };
    expect([answerQuantity({ ...light, lot: 4 }), answerQuantity({ ...light, lot: 5 })]).toMatchObject([
      { verdict: "fail", mean_limit_g: 200 },
      { verdict: "too_few" },
    ]);
    // Beyond the plans: as scipy.stats.binom.ppf(0.975, 1000, 0.025) = 35 (scipy 1.10).
    expect(answerQuantity({ stated_g: 200, weights_g: Array.from({ length: 1_000 }, () => 200) }).may_fall_short).toBe(35);
  });

  it("judges by NIST Handbook 133 where that is asked (tables 2-1 and 2-5, from memory)", () => {
    for (const [grams, error] of [
      [14, 1.4],
      [36.3, 3.6],
      [60, 5.4],
      [200, 10.9],
      [227, 12.7],
      [454, 20],
      [1_000, 35.4],
    ] as const)
      expect({ grams, error: tolerableErrorG(grams, "us") }).toEqual({ grams, error });
    // The sample correction factors of table 2-1, and as t-quantiles.
    expect([2, 12, 24, 48].map((n) => Math.round(meanFactor(n, "us") * 1_000) / 1_000)).toEqual([8.985, 0.635, 0.422, 0.29]);
    expect([100, 250, 251, 3_200, 3_201].map((lot) => samplePlan(lot, "us"))).toMatchObject([
      { sample: 12, mayFall: 0 },
      { sample: 12, mayFall: 0 },
      { sample: 24, mayFall: 0 },
      { sample: 24, mayFall: 0 },
      { sample: 48, mayFall: 1 },
    ]);
    const of = (short: number, n: number) =>
      answerQuantity({ stated_g: 200, weights_g: Array.from({ length: n }, (_, index) => (index < short ? 189 : 202)), lot: 5_000, rules: "us" });
    expect([of(0, 11), of(0, 12), of(1, 12), of(1, 24), of(1, 48), of(2, 48)].map((item) => item.verdict)).toEqual([
      "too_few",
      "pass",
      "fail",
      "fail",
      "pass",
      "fail",
    ]);
    expect([quantityRulesOf("en-US"), quantityRulesOf("en-GB"), quantityRulesOf(undefined)]).toEqual(["us", "eu", "eu"]);
  });

  it("names a fill that passes in at least nine of ten lots, and says with what chance, whichever sample is weighed", () => {
    const random = randomFrom(31);
    const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    const LOTS = 300;
    for (const [rules, samples] of [
      ["eu", [20, 50, 125]],
      ["us", [12, 24, 48]],
    ] as const)
      for (const [stated, sd] of [
        [200, 5],
        [200, 4],
        [200, 6],
        [200, 2],
        [75, 2.5],
        [14, 0.7],
      ] as const) {
        // A sample whose deviation is just this one.
        const [n, wave] = [40, sd * Math.sqrt(39 / 40)];
        const made = answerQuantity({ stated_g: stated, weights_g: Array.from({ length: n }, (_, index) => stated + (index % 2 ? wave : -wave)), rules });
        expect(made.sd_g).toBeCloseTo(sd, 3);
        expect(made.fill_passes_share).toBeGreaterThanOrEqual(0.9);
        for (const sample of samples) {
          let passed = 0;
          for (let lot = 0; lot < LOTS; lot++) {
            const weights = Array.from({ length: sample }, () => (made.fill_to_pass_g ?? 0) + sd * normal());
            if (answerQuantity({ stated_g: stated, weights_g: weights, rules }).verdict === "pass") passed += 1;
          }
          expect(passed / LOTS, `${rules}, ${stated} g, deviation ${sd}, ${sample} weighed`).toBeGreaterThanOrEqual(0.9);
        }
      }
    expect(answerQuantity({ stated_g: 200, weights_g: [205, 205] }).fill_to_pass_g).toBe(200);
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
