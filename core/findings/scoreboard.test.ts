import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { blendWords, partsOfBlendWords } from "../batch/contents";
import { scoreDifference, scoresByWax, sumScores } from "./scoreboard";

const ROWS = [
  ["barn soy", "Ada", "1", 6.5],
  ["barn soy", "Ada", "2", 7],
  ["barn soy", "Bo", "1", 4.5],
  ["barn soy", "Bo", "3", 5],
  ["barn soy", "Cy", "2", 6],
  ["coco", "Ada", "4", 8],
  ["coco", "Bo", "5", 6.5],
  ["coco", "Bo", "6", 6],
  ["coco", "Cy", "4", 7.5],
  ["coco", "Cy", "5", 7],
  ["hive", "Ada", "7", 5.5],
  ["hive", "Cy", "8", 4],
  ["hive", "Cy", "7", 5],
  ["hive", "Bo", "9", 3.5],
] as const;
const SUMS = sumScores(ROWS.map(([wax, scorer, batch, score]) => ({ wax, scorer, batch, score })));

describe("scores of waxes", () => {
  it("have each person's level taken out as a mixed model does (statsmodels 0.13.5, MixedLM by REML, a mean for each wax and a level for each person)", () => {
    const means = scoresByWax(SUMS);
    const of = (wax: string) => means.get(wax) ?? { mean: 0, low: 0, high: 0 };
    expect(of("barn soy").mean).toBeCloseTo(5.8141, 3);
    expect(of("coco").mean).toBeCloseTo(7.1796, 3);
    expect(of("hive").mean).toBeCloseTo(4.4824, 3);
    // Standard errors 0.5696, 0.5697 and 0.5751: the likely ranges are in the same proportion.
    const half = (wax: string) => of(wax).mean - (of(wax).low ?? 0);
    expect(half("hive") / half("coco")).toBeCloseTo(0.575062 / 0.569682, 3);
    // Their plain means would stand elsewhere, since Bo scores low and scored coco more often than Ada did.
    const coco = ROWS.filter(([wax]) => wax === "coco");
    expect(coco.reduce((sum, [, , , score]) => sum + score, 0) / coco.length).toBe(7);
  });

  it("count a batch once for each person, by the mean of what that person said of it", () => {
    const scores = [
      ["Ada", "1", 4],
      ["Ada", "1", 6],
      ["Ada", "2", 7],
      [null, "1", 3],
    ] as const;
    expect(sumScores(scores.map(([scorer, batch, score]) => ({ wax: "barn soy", scorer, batch, score })))).toEqual([
      {
        wax: "barn soy",
        batches: 2,
        scores: 4,
        scorers: [
          { scorer: "Ada", n: 2, sum: 12, squares: 74 },
          { scorer: "", n: 1, sum: 3, squares: 9 },
        ],
      },
    ]);
  });

  it("differ by what the model of the two says (statsmodels: 1.3517, standard error 0.1954)", () => {
    expect(scoreDifference(SUMS, "barn soy", "coco")?.by).toBeCloseTo(1.351656, 3);
    expect(scoreDifference(SUMS, "hive", "nothing")).toBeNull();
  });

  it("differ by Student's t where one person scored (means 6 and 8, s = 1, four and four: 2.447 · √½ = 1.730)", () => {
    const alone = [5, 6, 7, 6].map((score, index) => ({ wax: "barn soy", scorer: "Ada", score, batch: `a${index}` }));
    const others = [7, 8, 9, 8].map((score, index) => ({ wax: "coco", scorer: "Ada", score, batch: `b${index}` }));
    const difference = scoreDifference(sumScores([...alone, ...others]), "barn soy", "coco");
    expect(difference?.by).toBeCloseTo(2, 9);
    expect((difference?.high ?? 0) - 2).toBeCloseTo(2.4469 * Math.sqrt((4 / 6) * (1 / 4 + 1 / 4)), 3);
  });

  it("stay from 0 to 10, the mean within its range, and count every batch and score once, whoever scored", () => {
    const score = fc.record({
      score: fc.integer({ min: 0, max: 20 }).map((n) => n / 2),
      wax: fc.constantFrom("barn soy", "coco", "hive"),
      scorer: fc.constantFrom("Ada", "Bo", null),
      batch: fc.constantFrom("1", "2", "3", "4"),
    });
    fc.assert(
      fc.property(fc.array(score, { maxLength: 40 }), (rows) => {
        const means = scoresByWax(sumScores(rows));
        expect([...means.values()].reduce((sum, mean) => sum + mean.scores, 0)).toBe(rows.length);
        for (const { mean, low, high } of means.values()) {
          expect(mean).toBeGreaterThanOrEqual(Math.max(0, low ?? 0) - 1e-9);
          expect(mean).toBeLessThanOrEqual(Math.min(10, high ?? 10) + 1e-9);
        }
      }),
    );
  });
});

it("a blend is told by its shares, the largest first, and its words give them back", () => {
  const part = (name: string, mg: number) => ({ kind: "wax" as const, name, mg });
  expect(blendWords([part("hive", 20), part("soy", 80)])).toBe("80 % soy + 20 % hive");
  expect(blendWords([part("soy", 80)])).toBe("soy");
  expect(partsOfBlendWords("80 % soy + 20 % hive")).toEqual([
    { name: "soy", share: 0.8 },
    { name: "hive", share: 0.2 },
  ]);
  expect(partsOfBlendWords("soy")).toEqual([{ name: "soy", share: 1 }]);
});
