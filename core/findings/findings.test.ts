import { describe, expect, it } from "vitest";
import { randomFrom } from "../random";
import { fTail } from "../statistics/tails";
import { type BatchSums, clusteredShare, NO_BATCHES, squaredResiduals, sumsOf, withBatch } from "./batch-sums";
import { individuals } from "./chart";
import { type Factor, findFactors, type Level } from "./factors";
import { type Dose, logistic } from "./logistic";
import { holm, wilson } from "./proportion";

describe("a proportion", () => {
  it("has the intervals of Newcombe 1998, table I (from memory, recomputed), as a statistics package has", () => {
    // Also by statsmodels 0.13.5, proportion_confint(…, method="wilson").
    for (const [k, n, low, high] of [
      [81, 263, 0.2552885198782742, 0.36620957698280004],
      [15, 148, 0.06238639953073628, 0.16048724172330803],
      [0, 20, 0, 0.1611251580528194],
      [1, 29, 0.006113214292762667, 0.17175521879320294],
    ] as const) {
      expect(wilson(k, n).low).toBeCloseTo(low, 10);
      expect(wilson(k, n).high).toBeCloseTo(high, 10);
    }
    // Batches that differ tell as much as fewer jars would.
    expect(wilson(20, 100, 4).low).toBeCloseTo(wilson(5, 25).low, 12);
    expect(() => wilson(3, 2)).toThrow(RangeError);
  });

  it("is adjusted for many comparisons as a statistics package does by Holm's method", () => {
    // statsmodels 0.13.5, multipletests([0.01, 0.04, 0.03, 0.005], method="holm").
    expect(holm([0.01, 0.04, 0.03, 0.005])).toEqual([0.03, 0.06, 0.06, 0.02].map((value) => expect.closeTo(value, 12)));
  });

  it("is judged by the F distribution as a statistics package has it", () => {
    // scipy 1.10, scipy.stats.f.sf.
    for (const [f, a, b, tail] of F_TAILS) expect(fTail(f, a, b) / tail).toBeCloseTo(1, 7);
    expect(fTail(0, 2, 5)).toBe(1);
  });
});

/** f, degrees of freedom, upper tail. */
const F_TAILS: [number, number, number, number][] = [
  [4, 1, 10, 0.07338803477074],
  [2.5, 3, 40, 0.07325435201795],
  [12, 2, 57, 4.473117935061e-5],
  [0.3, 5, 8, 0.899680153713],
  [3.84, 1, 100000, 0.050046294872615],
];

/** Launch temperature in °F and whether any seal was in distress: Dalal, Fowlkes & Hoadley 1989 (from memory, refitted). */
const SEALS: Dose[] = (() => {
  const x = [66, 70, 69, 68, 67, 72, 73, 70, 57, 63, 70, 78, 67, 53, 67, 75, 70, 81, 76, 79, 75, 76, 58];
  const y = [0, 1, 0, 0, 0, 0, 0, 0, 1, 1, 1, 0, 0, 1, 0, 0, 0, 0, 0, 0, 1, 0, 1];
  return x.map((value, index) => ({ x: value, n: 1, k: y[index] as number }));
})();

describe("a yes or no against a number", () => {
  it("comes to the published maximum likelihood, with the errors of a statistics package, grouped or not", () => {
    const grouped = [...new Set(SEALS.map((seal) => seal.x))].map((x) => {
      const mine = SEALS.filter((seal) => seal.x === x);
      return { x, n: mine.length, k: mine.reduce((sum, dose) => sum + dose.k, 0) };
    });
    for (const doses of [SEALS, grouped]) {
      const fit = logistic(doses, { penalty: 0 });
      // statsmodels 0.13.5, GLM with a binomial family.
      expect(fit?.intercept).toBeCloseTo(15.04290165, 6);
      expect(fit?.slope).toBeCloseTo(-0.23216274, 7);
      expect(fit?.covariance[0][0]).toBeCloseTo(54.4442749, 3);
      expect(fit?.covariance[0][1]).toBeCloseTo(-0.796386825, 5);
      expect(fit?.covariance[1][1]).toBeCloseTo(0.0117151446, 7);
    }
  });

  it("with the mild penalty is where the penalised likelihood is largest, and stays finite where the data part cleanly", () => {
    // Maximised by scipy 1.10 for a normal prior of 2.5 on the slope in standard deviations.
    expect(logistic(SEALS)?.slope).toBeCloseTo(-0.2142655885390632, 6);
    const parted = logistic([1, 2, 3, 4, 5, 6].map((x) => ({ x, n: 10, k: x > 3 ? 10 : 0 })));
    expect(parted?.slope).toBeGreaterThan(0);
    expect(parted?.slope).toBeLessThan(20);
    expect(logistic([{ x: 1, n: 5, k: 2 }])).toBeNull();
    expect(
      logistic([
        { x: 1, n: 5, k: 0 },
        { x: 2, n: 5, k: 0 },
      ]),
    ).toBeNull();
    expect(() => logistic([{ x: 1, n: 5, k: 6 }])).toThrow(RangeError);
  });
});

/** Forty batches of 4, 12 and 48 jars, each with its own level, by a rule that any program can follow. */
const UNEVEN = [1, 2].map((times) =>
  Array.from({ length: 40 }, (_, index) => {
    const n = [4, 12, 48][times === 1 ? (index * index + index) % 3 : index % 3] as number;
    const x = 55 + ((7 * index * times) % 21);
    const own = (((index * 29) % 13) - 6) / 3;
    return { x, n, k: Math.round(n / (1 + Math.exp(1.2 - 0.08 * (x - 65) - own))) };
  }),
);

describe("a curve through batches", () => {
  it("has the cluster-robust errors of a statistics package, of batches of unequal sizes", () => {
    // statsmodels 0.13.5, GLM binomial over single jars, fit(cov_type="cluster", groups = batch).
    const theirs = [
      { n: 732, k: 183, slope: 0.0714367212368185, intercept: -5.5339915988722534, errors: [2.189247218229441, 0.034130722297316965] },
      { n: 836, k: 219, slope: 0.06918298143218223, intercept: -5.396129505533924, errors: [2.572049428188372, 0.039178190866683595] },
    ];
    for (const [index, batches] of UNEVEN.entries()) {
      const fit = logistic(
        batches.map((batch) => ({ ...batch, ...sumsOf([batch]) })),
        { penalty: 0 },
      );
      const they = theirs[index] as (typeof theirs)[number];
      expect([batches.reduce((sum, item) => sum + item.n, 0), batches.reduce((sum, item) => sum + item.k, 0)]).toEqual([they.n, they.k]);
      expect(fit?.slope).toBeCloseTo(they.slope, 8);
      expect(fit?.intercept).toBeCloseTo(they.intercept, 6);
      // They multiply the variance by (jars − 1) / (jars − 2) besides: a part in a thousand.
      expect(Math.sqrt(fit?.covariance[0][0] ?? 0) / (they.errors[0] as number)).toBeCloseTo(1, 2);
      expect(Math.sqrt(fit?.covariance[1][1] ?? 0) / (they.errors[1] as number)).toBeCloseTo(1, 2);
    }
  });
});

describe("a share of batches", () => {
  it("has the ratio estimator's error of a statistics package, with a correction for each batch's own weight", () => {
    // statsmodels 0.13.5, OLS of single jars on a constant, cov_type="cluster", use_correction=False.
    for (const [index, error] of [0.04806725, 0.04360444].entries()) {
      const sums = sumsOf(UNEVEN[index] ?? []);
      expect(Math.sqrt(squaredResiduals(sums, sums.k / sums.n)) / sums.n).toBeCloseTo(error, 7);
      const { low, high } = clusteredShare(sums);
      expect((high - low) / error).toBeGreaterThan(2 * 1.96);
      expect((high - low) / error).toBeLessThan(6);
    }
  });

  it("is Wilson's where batches are no more unlike than jars, where there is one, and where the flaw is on none or on all", () => {
    expect(clusteredShare(sumsOf([{ n: 29, k: 1 }]))).toEqual(wilson(1, 29));
    for (const k of [0, 10]) expect(clusteredShare(sumsOf([1, 2, 3].map(() => ({ n: 10, k })))).low).toBeCloseTo(wilson(3 * k, 30).low, 12);
    const alike = Array.from({ length: 10 }, () => ({ n: 10, k: 3 }));
    expect(clusteredShare(sumsOf(alike))).toEqual(wilson(30, 100));
    expect(() => clusteredShare(sumsOf([]))).toThrow(RangeError);
  });
});

describe("a chart of single values", () => {
  it("has the limits of the handbook: the mean and 2.66 mean moving ranges", () => {
    // NIST/SEMATECH e-Handbook 6.3.2.2, flowrates (from memory): mean 50.81, mean moving range 1.8778, limits 55.8041 and 45.8159.
    const flow = [49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1];
    const chart = individuals(flow);
    expect(chart?.mean).toBeCloseTo(50.81, 6);
    expect(chart?.range).toBeCloseTo(1.8778, 4);
    expect(chart?.high).toBeCloseTo(55.8041, 3);
    expect(chart?.low).toBeCloseTo(45.8159, 3);
    expect(chart?.rangeHigh).toBeCloseTo(1.8778 * 3.267, 3);
    expect(individuals(flow.slice(0, 7))).toBeNull();
  });

  it("calls a point beyond, a drift and a run, and nothing where there is nothing", () => {
    const calm = Array.from({ length: 20 }, (_, index) => 60 + (index % 2 === 0 ? 0.5 : -0.5));
    expect(individuals(calm)?.signals).toEqual([]);
    expect(individuals([...calm, 66])?.signals).toEqual([{ at: 20, rule: "beyond" }]);
    const shifted = [...calm, ...Array.from({ length: 9 }, (_, index) => 60.9 + (index % 2) * 0.1)];
    expect(individuals(shifted)?.signals.some((signal) => signal.at >= 20 && signal.rule !== "beyond")).toBe(true);
    expect(individuals(Array.from({ length: 12 }, () => 60))?.signals).toEqual([]);
  });
});

/** Normal numbers, by Box and Muller. */
const normal = (random: () => number) => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
const EVEN = () => 12;
const MIXED = (random: () => number) => (random() < 0.5 ? 4 : random() < 0.7 ? 12 : 48);

interface Made {
  batches: number;
  size: (random: () => number) => number;
  /** On the logit: how common the flaw is, how much batches differ by themselves, and what the first factor does. */
  base: number;
  sd: number;
  effect?: number;
}

/** A made-up workshop: seven factors of two levels, of which at most the first does anything, and a number that does nothing. */
function someWorkshop(random: () => number, { batches, size, base, sd, effect = 0 }: Made) {
  const factors = Array.from({ length: 7 }, (_, index) => ({ name: String(index), levels: ["no", "yes"].map((level): Level => ({ level, ...NO_BATCHES })) }));
  const doses = new Map<number, BatchSums>();
  let all = NO_BATCHES;
  for (let batch = 0; batch < batches; batch++) {
    const n = size(random);
    const at = factors.map(() => (random() < 0.4 ? 1 : 0));
    const share = 1 / (1 + Math.exp(-(base + sd * normal(random) + (at[0] ? effect : 0))));
    let k = 0;
    for (let jar = 0; jar < n; jar++) if (random() < share) k += 1;
    for (const [which, { levels }] of factors.entries()) {
      const level = levels[at[which] as number] as Level;
      levels[at[which] as number] = { ...level, ...withBatch(level, n, k) };
    }
    const x = 55 + Math.round(random() * 20);
    doses.set(x, withBatch(doses.get(x) ?? NO_BATCHES, n, k));
    all = withBatch(all, n, k);
  }
  return { factors: factors as Factor[], doses: [...doses].map(([x, sums]) => ({ x, ...sums })), all };
}
/** The share of jars with a flaw that such a workshop makes in the long run, by a sum over the normal distribution. */
function longRun({ base, sd }: Made): number {
  let [sum, weight] = [0, 0];
  for (let z = -6; z <= 6; z += 0.01) {
    const density = Math.exp((-z * z) / 2);
    sum += density / (1 + Math.exp(-(base + sd * z)));
    weight += density;
  }
  return sum / weight;
}

/** No to strong clustering, common and rare flaws, few and many batches, of one size and of unequal sizes. */
const WORKSHOPS: Made[] = [12, 40, 200].flatMap((batches) =>
  [EVEN, MIXED].flatMap((size) => [0, 1, 1.5].flatMap((sd) => [-1, -4].map((base) => ({ batches, size, sd, base })))),
);

describe("what made the difference", () => {
  it("is claimed where there is none in no more than one workshop of twenty, whatever the sizes; intervals hold as often as they say", () => {
    const random = randomFrom(11);
    const [claims, slopes, covered]: [number[], number[], number[]] = [[], [], []];
    for (const made of WORKSHOPS) {
      const many = made.batches > 100 ? 120 : 300;
      const truth = longRun(made);
      let [claim, slope, holds] = [0, 0, 0];
      for (let n = 0; n < many; n++) {
        const { factors, doses, all } = someWorkshop(random, made);
        if (findFactors(factors).some((factor) => factor.finding === "differs")) claim += 1;
        if ((logistic(doses)?.p ?? 1) < 0.05) slope += 1;
        const { low, high } = clusteredShare(all);
        if (low <= truth && truth <= high) holds += 1;
      }
      const text = `${made.batches} batches, ${made.size === EVEN ? "equal" : "unequal"}, sd ${made.sd}, base ${made.base}`;
      // 7 %, 8 % and 91 to 99 %, and what chance does to so many (2.5 standard errors).
      const chance = (share: number) => 2.5 * Math.sqrt((share * (1 - share)) / many);
      expect(claim / many, text).toBeLessThanOrEqual(0.07 + chance(0.07));
      expect(slope / many, text).toBeLessThanOrEqual(0.08 + chance(0.08));
      expect(holds / many, text).toBeGreaterThanOrEqual(0.92 - chance(0.08));
      claims.push(claim / many);
      slopes.push(slope / many);
      covered.push(holds / many);
    }
    const mean = (ones: number[]) => ones.reduce((sum, value) => sum + value, 0) / ones.length;
    expect(mean(claims)).toBeLessThan(0.05);
    expect(mean(slopes)).toBeLessThan(0.065);
    expect(mean(covered)).toBeGreaterThan(0.94);
    expect(mean(covered)).toBeLessThan(0.97);
  });

  it("is found where it was planted, with batches enough, though their sizes are unequal", () => {
    const random = randomFrom(12);
    const MANY = 100;
    for (const [made, least] of [
      [{ batches: 80, size: EVEN, base: -1.6, sd: 0.7, effect: 1.3 }, 0.9],
      [{ batches: 200, size: MIXED, base: -1.6, sd: 1, effect: 1.3 }, 0.85],
    ] as const) {
      let found = 0;
      for (let n = 0; n < MANY; n++) if (findFactors(someWorkshop(random, made).factors)[0]?.finding === "differs") found += 1;
      expect(found / MANY).toBeGreaterThan(least);
    }
  });

  it("is not said of what was never varied, nor of a few batches", () => {
    const level = (name: string, batches: number, n: number, k: number): Level => ({
      level: name,
      ...sumsOf(Array.from({ length: batches }, () => ({ n: n / batches, k: k / batches }))),
    });
    const said = findFactors([
      { name: "wax", levels: [level("soy", 30, 400, 80)] },
      { name: "room", levels: [level("cold", 2, 24, 24), level("warm", 30, 400, 0)] },
      { name: "none", levels: [level("x", 20, 240, 0), level("y", 20, 240, 0)] },
    ]);
    expect(said.map((factor) => factor.finding)).toEqual(["never varied", "too little to tell", "no difference seen"]);
    expect(said[1]?.levels[0]).toMatchObject({ level: "cold", share: 1 });
  });
});
