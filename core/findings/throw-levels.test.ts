import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { THROW_FACTORS, type ThrowFactor, type ThrowScore, throwLevels } from "./throw-levels";

const FACTORS = Object.keys(THROW_FACTORS) as ThrowFactor[];
const base: ThrowScore = { score: 5, throw: "hot", wax: "soy", oil: "rain", load: 8, wick: "flat 4", ageDays: 10, scorer: "Ada", batch: "1", room: null };

describe("throw scores by what they were of", () => {
  it("count each batch once, with Student's interval over the batches (t for 95 %, 2 degrees of freedom: 4.303, Student's tables)", () => {
    const scores = [
      { ...base, batch: "1", score: 6 },
      { ...base, batch: "1", score: 8 },
      { ...base, batch: "2", score: 8 },
      { ...base, batch: "3", score: 9 },
      { ...base, batch: "4", score: 3, wax: "paraffin" },
    ];
    const [soy, paraffin] = throwLevels(scores, "wax");
    // Means 7, 8, 9: mean 8, s 1, half 4.303 / √3 = 2.484.
    expect(soy).toMatchObject({ level: "soy", n: 4, batches: 3, mean: 8 });
    expect(soy?.low).toBeCloseTo(5.516, 2);
    expect(soy?.high).toBe(10);
    expect(paraffin).toMatchObject({ level: "paraffin", low: null, high: null });
  });

  it("are sorted into levels by load and by the age at which they were smelled, and leave out what is not known", () => {
    const item = (more: Partial<ThrowScore>) => ({ ...base, ...more });
    expect(
      throwLevels([item({ load: 7.9 }), item({ load: 8 }), item({ load: null })], "load")
        .map((level) => [level.level, level.n])
        .sort(),
    ).toEqual([
      ["6 to 8 %", 1],
      ["8 to 10 %", 1],
    ]);
    expect(
      throwLevels([item({ ageDays: 1 }), item({ ageDays: 3 }), item({ ageDays: 30 })], "age")
        .map((level) => level.level)
        .sort(),
    ).toEqual(["2 to 7 days", "a week or more", "within 2 days"]);
  });

  it("lose no score and no batch, and keep the mean within its interval, whatever the scores", () => {
    const score = fc.record({
      score: fc.integer({ min: 0, max: 20 }).map((n) => n / 2),
      throw: fc.constant("cold" as const),
      wax: fc.constantFrom("soy", "palm"),
      oil: fc.constantFrom("rain", "moss"),
      load: fc.integer({ min: 0, max: 14 }),
      wick: fc.constantFrom("a", "b"),
      ageDays: fc.integer({ min: 0, max: 40 }),
      scorer: fc.constantFrom("Ada", "Bo"),
      batch: fc.constantFrom("1", "2", "3"),
      room: fc.constant(null),
    });
    fc.assert(
      fc.property(fc.array(score, { maxLength: 60 }), fc.constantFrom(...FACTORS), (scores, factor) => {
        const levels = throwLevels(scores, factor);
        expect(levels.reduce((sum, throwLevel) => sum + throwLevel.n, 0)).toBe(scores.length);
        for (const { mean, low, high } of levels) {
          expect(mean).toBeGreaterThanOrEqual(low ?? 0);
          expect(mean).toBeLessThanOrEqual(high ?? 10);
        }
      }),
    );
  });
});
