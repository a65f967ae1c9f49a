import { describe, expect, it } from "vitest";
import { mixed } from "../statistics/mixed";
import { aTestCandle, aTrialPlan } from "../testing/trial";
import { compareThrow, nextForThrow, THROW_ORDER } from "./scent-throw";
import type { Rating } from "./state";

const ROWS: [nose: string, variant: string, room: string, score: number][] = [
  ["Ada", "A", "bath", 7],
  ["Ada", "B", "bath", 5],
  ["Ada", "C", "bath", 8],
  ["Ada", "A", "bed", 6],
  ["Ada", "B", "bed", 4],
  ["Ada", "C", "bed", 7],
  ["Bo", "A", "bath", 9],
  ["Bo", "B", "bath", 8],
  ["Bo", "C", "bath", 9],
  ["Bo", "A", "bed", 8],
  ["Bo", "B", "bed", 6],
  ["Cy", "B", "bath", 4],
  ["Cy", "C", "bath", 6],
  ["Cy", "C", "bed", 5],
  ["Cy", "A", "bath", 5],
];
const plan = aTrialPlan([aTestCandle("A1"), aTestCandle("B1"), aTestCandle("C1")]);
const rating = ([nose, variant, room, score]: (typeof ROWS)[number], at: number): Rating => ({
  id: String(at),
  at: "2026-03-01T10:00:00.000Z",
  scorer: nose,
  testCandle: `${variant}1`,
  throw: "hot",
  room,
  score,
  blind: true,
});

describe("a mixed model with a level for each nose", () => {
  it("agrees with statsmodels 0.13.5, MixedLM by REML, on an unbalanced table", () => {
    const fit = mixed(
      ROWS.map(([nose, variant, room, y]) => ({
        y,
        group: nose,
        x: [Number(variant === "A"), Number(variant === "B"), Number(variant === "C"), Number(room === "bed")],
      })),
    );
    const [a, b, c, bed] = fit?.coefficients ?? [];
    expect(a).toBeCloseTo(7.0732787, 3);
    expect(b).toBeCloseTo(5.4732787, 3);
    expect(c).toBeCloseTo(7.7867759, 3);
    expect(bed).toBeCloseTo(-1.0542675, 3);
    expect(fit?.residual).toBeCloseTo(0.1800687, 3);
    expect(fit?.between).toBeCloseTo(3.224893, 1);
    expect(Math.sqrt(fit?.covariance[3]?.[3] ?? 0)).toBeCloseTo(0.2285556, 3);
    expect(fit?.levels.get("Bo")).toBeCloseTo(1.825344, 2);
  });

  it("is the plain difference within noses where every nose smelled everything", () => {
    const all = ["Ada", "Bo", "Cy"].flatMap((nose, n) =>
      [0, 1].map((o) => ({ y: 5 + n * 2 + o * 1.5 + (n === 1 && o === 1 ? 0.3 : 0), group: nose, x: [1, o] })),
    );
    expect(mixed(all)?.coefficients[1]).toBeCloseTo(1.6, 6);
  });

  it("gives nothing where nothing is left to judge by, or two columns say the same", () => {
    expect(mixed([])).toBeNull();
    expect(
      mixed([
        { y: 1, group: "a", x: [1, 0] },
        { y: 2, group: "a", x: [1, 1] },
      ]),
    ).toBeNull();
    expect(mixed(Array.from({ length: 8 }, (_, index) => ({ y: index, group: String(index % 2), x: [1, 1] })))).toBeNull();
  });
});

describe("throw compared", () => {
  const words = (variant: string) => variant;
  it("takes each nose's own level out, and says what differs with its interval", () => {
    const out = compareThrow(plan, ROWS.map(rating), words);
    const b = out?.variants.find((variant) => variant.variant === "B")?.against;
    expect(b?.value).toBeCloseTo(-1.6, 1);
    expect((b?.low ?? 0) < -1.6 && (b?.high ?? 0) < 0).toBe(true);
    expect(out?.told).toBe(true);
    expect(out?.says).toMatch(/B is 1.6 weaker than A/);
    expect(out?.scorers.map((scorer) => scorer.name)).toEqual(["Ada", "Bo", "Cy"]);
  });

  it("is not fooled by a nose that gives high scores to the one it smelled alone", () => {
    // Bo, who gives 9 to everything, smelled A only once more; by plain means A would lead.
    const fooled = (["A", "B"] as const).flatMap((variant) => [1, 2, 3].map((n) => ["Ada", variant, `room ${n}`, 5 + (n % 2)] as (typeof ROWS)[number]));
    const out = compareThrow(
      plan,
      [...fooled, ["Bo", "A", "room 1", 9], ["Bo", "B", "room 1", 9], ["Bo", "A", "room 2", 9], ["Bo", "A", "room 3", 9]].map((item, index) =>
        rating(item as (typeof ROWS)[number], index),
      ),
      words,
    );
    expect((out?.variants[0]?.mean ?? 0) - (out?.variants[1]?.mean ?? 0)).toBeGreaterThan(0.8);
    expect(Math.abs(out?.variants[1]?.against?.value ?? 9)).toBeLessThan(0.6);
    expect(out?.told).toBe(false);
    expect(out?.says).toMatch(/Too few scores to tell/);
  });

  it("says so where there is too little", () => {
    expect(compareThrow(plan, [], words)).toBeNull();
    expect(compareThrow(plan, [rating(ROWS[0] as never, 0)], words)?.says).toMatch(/Only one/);
    expect(compareThrow(plan, [rating(ROWS[0] as never, 0), rating(ROWS[1] as never, 1)], words)).toMatchObject({
      told: false,
      says: expect.stringMatching(/Too few/),
    });
  });
});

describe("what to try next for a weak throw (common practice, no source)", () => {
  it("goes through load at 8 %, oil, wax, vessel, wick, then 10 %", () => {
    expect(THROW_ORDER.map((item) => item.id)).toEqual(["load_8", "oil", "wax", "vessel", "wick", "load_10"]);
    const next = (over: object) => nextForThrow({ loadPpm: 60_000, tried: [], sooty: false, cured: true, ...over })?.id ?? null;
    expect(next({})).toBe("load_8");
    expect(next({ loadPpm: 80_000 })).toBe("oil");
    expect(next({ loadPpm: 80_000, tried: ["oil", "wax", "vessel", "wick"] })).toBe("load_10");
    expect(next({ loadPpm: 100_000, tried: ["oil", "wax", "vessel", "wick"] })).toBeNull();
    // A strong oil may have to go down several steps before the soot stops.
    expect(next({ sooty: true })).toBe("load_down");
    expect(next({ cured: false })).toBe("cure");
  });
});
