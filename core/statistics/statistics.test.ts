import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cholesky, inverted } from "./linear";
import { mixed, type Observed } from "./mixed";
import { normalBelow, tQuantile } from "./tails";

const entry = fc.integer({ min: -9, max: 9 });

describe("the normal distribution", () => {
  it("is that of a statistics package, far out too", () => {
    // scipy 1.10, scipy.stats.norm.cdf.
    for (const [z, below] of [
      [0, 0.5],
      [1.959963984540054, 0.975],
      [-1, 0.15865525393145707],
      [2.999, 0.9986456634662729],
      [-3.719016485455709, 1e-4],
      [-6, 9.865876450376946e-10],
    ] as const)
      expect(normalBelow(z) / below).toBeCloseTo(1, 9);
  });
});

describe("matrices", () => {
  it("times their inverse are one, and their determinant is the product of what Cholesky leaves on the diagonal", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 5 }).chain((n) => fc.array(fc.array(entry, { minLength: n, maxLength: n }), { minLength: n, maxLength: n })),
        (a) => {
          const n = a.length;
          // A Aᵀ and a little on the diagonal is symmetric and positive definite.
          const m = a.map((row, i) => a.map((other, j) => row.reduce((sum, value, k) => sum + value * (other[k] as number), 0) + (i === j ? 1 : 0)));
          const l = cholesky(m);
          expect(l).not.toBeNull();
          if (!l) return;
          const { inverse } = inverted(l);
          for (let i = 0; i < n; i++)
            for (let j = 0; j < n; j++) {
              const item = (m[i] as number[]).reduce((sum, value, k) => sum + value * (inverse[k]?.[j] as number), 0);
              expect(item).toBeCloseTo(i === j ? 1 : 0, 6);
            }
        },
      ),
      { numRuns: 60 },
    );
    const { logDet } = inverted(
      cholesky([
        [4, 2],
        [2, 5],
      ]) ?? [],
    );
    expect(Math.exp(logDet)).toBeCloseTo(16, 10);
  });

  it("that are none of this kind have no triangle", () => {
    expect(cholesky([[0]])).toBeNull();
    expect(
      cholesky([
        [1, 2],
        [2, 1],
      ]),
    ).toBeNull();
  });
});

describe("a level for each nose", () => {
  const score = fc.integer({ min: 0, max: 10 });
  it("takes a nose that is always so much higher out: in a full table the differences stay as they were", () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(score, score, score), { minLength: 3, maxLength: 3 }), fc.integer({ min: -5, max: 5 }), (table, shift) => {
        const rows = (more: number): Observed[] =>
          table.flatMap((scores, nose) =>
            scores.map((y, option) => ({ y: y + (nose === 0 ? more : 0), group: String(nose), x: [1, Number(option === 1), Number(option === 2)] })),
          );
        const [plain, moved] = [mixed(rows(0)), mixed(rows(shift))];
        expect(plain === null).toBe(moved === null);
        expect(moved?.coefficients[1]).toBeCloseTo(plain?.coefficients[1] ?? 0, 4);
        expect(moved?.coefficients[2]).toBeCloseTo(plain?.coefficients[2] ?? 0, 4);
      }),
      { numRuns: 60 },
    );
  });

  it("is drawn towards none where noses agree, and whole where they never do", () => {
    const rows = (levels: number[]): Observed[] =>
      levels.flatMap((level, nose) => [0, 1, 2, 3].map((n) => ({ y: 5 + level + (n % 2) * 2 + (n > 1 ? 0.1 : 0), group: String(nose), x: [1, n % 2] })));
    expect(mixed(rows([0, 0, 0]))?.between).toBeCloseTo(0, 6);
    const apart = mixed(rows([-3, 0, 3]));
    expect(apart?.levels.get("2")).toBeCloseTo(3, 1);
    expect(apart?.coefficients[1]).toBeCloseTo(2, 6);
  });
});

describe("Student's t", () => {
  it("has the quantiles of any table, asked once or again (from memory: 95 % two-sided, 1, 10 and 30 degrees of freedom)", () => {
    for (const [df, value] of [
      [1, 12.706],
      [10, 2.228],
      [30, 2.042],
    ] as const)
      for (let again = 0; again < 2; again++) expect(tQuantile(0.975, df)).toBeCloseTo(value, 3);
  });
});
