import { describe, expect, it } from "vitest";
import { randomFrom } from "../random";
import { fTail } from "../statistics/tails";
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
    expect(holm([0.01, 0.04, 0.03, 0.005])).toEqual([0.03, 0.06, 0.06, 0.02].map((one) => expect.closeTo(one, 12)));
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
  return x.map((one, at) => ({ x: one, n: 1, k: y[at] as number }));
})();

describe("a yes or no against a number", () => {
  it("comes to the published maximum likelihood, with the errors of a statistics package, grouped or not", () => {
    const grouped = [...new Set(SEALS.map((one) => one.x))].map((x) => {
      const mine = SEALS.filter((one) => one.x === x);
      return { x, n: mine.length, k: mine.reduce((sum, one) => sum + one.k, 0) };
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

describe("a curve through batches", () => {
  it("is as wide as they scatter round it: where none was planted it claims a slope in no more than one of twenty", () => {
    const random = randomFrom(21);
    const MANY = 300;
    let [wrong, plain] = [0, 0];
    for (let n = 0; n < MANY; n++) {
      const batches = Array.from({ length: 40 }, (): Required<Dose> => {
        const own = (random() + random() + random() - 1.5) * 2;
        const share = 1 / (1 + Math.exp(1 - own));
        const jars = 12;
        let k = 0;
        for (let jar = 0; jar < jars; jar++) if (random() < share) k += 1;
        return { x: 55 + Math.round(random() * 20), n: jars, k, kk: (k * k) / jars, batches: 1 };
      });
      if ((logistic(batches)?.p ?? 1) < 0.05) wrong += 1;
      if ((logistic(batches.map(({ x, n: jars, k }) => ({ x, n: jars, k })))?.p ?? 1) < 0.05) plain += 1;
    }
    expect(wrong / MANY).toBeLessThan(0.075);
    // As single jars they would be claimed far more often than chance allows.
    expect(plain / MANY).toBeGreaterThan(0.15);
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
    const calm = Array.from({ length: 20 }, (_, at) => 60 + (at % 2 === 0 ? 0.5 : -0.5));
    expect(individuals(calm)?.signals).toEqual([]);
    expect(individuals([...calm, 66])?.signals).toEqual([{ at: 20, rule: "beyond" }]);
    const shifted = [...calm, ...Array.from({ length: 9 }, (_, at) => 60.9 + (at % 2) * 0.1)];
    expect(individuals(shifted)?.signals.some((one) => one.at >= 20 && one.rule !== "beyond")).toBe(true);
    expect(individuals(Array.from({ length: 12 }, () => 60))?.signals).toEqual([]);
  });
});

/** A made-up workshop: batches of jars with a flaw, by factors that may matter; batches differ by themselves too. */
function someWorkshop(random: () => number, planted: number): Factor[] {
  const names = ["planted", "a", "b", "c", "d", "e", "f"];
  const levels = new Map<string, Map<string, Level>>(names.map((name) => [name, new Map()]));
  for (let batch = 0; batch < 80; batch++) {
    const at = Object.fromEntries(names.map((name) => [name, random() < 0.4 ? "yes" : "no"]));
    const n = 8 + Math.floor(random() * 20);
    // What nobody recorded makes one batch worse than another.
    const own = (random() + random() + random() - 1.5) * 1.4;
    const share = 1 / (1 + Math.exp(1.6 - own - (at.planted === "yes" ? planted : 0)));
    let k = 0;
    for (let jar = 0; jar < n; jar++) if (random() < share) k += 1;
    for (const name of names) {
      const of = levels.get(name) as Map<string, Level>;
      const level = of.get(at[name] as string) ?? { level: at[name] as string, batches: 0, n: 0, k: 0, kk: 0 };
      of.set(level.level, { ...level, batches: level.batches + 1, n: level.n + n, k: level.k + k, kk: level.kk + (k * k) / n });
    }
  }
  return names.map((name) => ({ name, levels: [...(levels.get(name)?.values() ?? [])] }));
}

describe("what made the difference", () => {
  it("is found where it was planted, and claimed where there is none no more often than one workshop in twenty", () => {
    const random = randomFrom(11);
    const MANY = 300;
    let [found, wrong, none] = [0, 0, 0];
    for (let n = 0; n < MANY; n++) {
      const with_ = findFactors(someWorkshop(random, 1.3)).filter((one) => one.finding === "differs");
      if (with_.some((one) => one.name === "planted")) found += 1;
      if (with_.some((one) => one.name !== "planted")) wrong += 1;
      if (findFactors(someWorkshop(random, 0)).some((one) => one.finding === "differs")) none += 1;
    }
    expect(found / MANY).toBeGreaterThan(0.85);
    // 5 %, and what chance does to 300 workshops (2 standard errors: 2.5 %).
    expect(none / MANY).toBeLessThan(0.075);
    expect(wrong / MANY).toBeLessThan(0.075);
  });

  it("is not said of what was never varied, nor of a few batches", () => {
    const level = (name: string, batches: number, n: number, k: number): Level => ({ level: name, batches, n, k, kk: (k * k) / n });
    const said = findFactors([
      { name: "wax", levels: [level("soy", 30, 400, 80)] },
      { name: "room", levels: [level("cold", 2, 24, 24), level("warm", 30, 400, 0)] },
      { name: "none", levels: [level("x", 20, 240, 0), level("y", 20, 240, 0)] },
    ]);
    expect(said.map((one) => one.finding)).toEqual(["never varied", "too little to tell", "no difference seen"]);
    expect(said[1]?.levels[0]).toMatchObject({ level: "cold", share: 1 });
  });
});
