import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { blendWords, partsOfBlendWords } from "../batch/contents";
import { scoreDifference, scoresByWax, scoresOfColumn, THROW_COLUMNS, throwColumns } from "./scoreboard";
import type { ThrowScore } from "./throw-levels";

const base: ThrowScore = { score: 5, throw: "cold", wax: "barn soy", oil: "rain", load: 8, wick: "", ageDays: 10, scorer: "Ada", batch: "1", room: null };
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
const SCORES = ROWS.map(([wax, scorer, batch, score]): ThrowScore => ({ ...base, wax, scorer, batch, score }));

describe("scores of waxes", () => {
  it("have each person's level taken out as a mixed model does (statsmodels 0.13.5, MixedLM by REML, a mean for each wax and a level for each person)", () => {
    const means = scoresByWax(SCORES);
    const of = (wax: string) => means.get(wax) ?? { mean: 0, low: 0, high: 0 };
    expect(of("barn soy").mean).toBeCloseTo(5.8141, 3);
    expect(of("coco").mean).toBeCloseTo(7.1796, 3);
    expect(of("hive").mean).toBeCloseTo(4.4824, 3);
    // Standard errors 0.5696, 0.5697 and 0.5751: the likely ranges are in the same proportion.
    const half = (wax: string) => of(wax).mean - (of(wax).low ?? 0);
    expect(half("hive") / half("coco")).toBeCloseTo(0.575062 / 0.569682, 3);
    // Their plain means would stand elsewhere, since Bo scores low and scored coco more often than Ada did.
    expect(SCORES.filter((score) => score.wax === "coco").reduce((sum, score) => sum + score.score, 0) / 5).toBe(7);
  });

  it("differ by what the model of the two says (statsmodels: 1.3517, standard error 0.1954)", () => {
    expect(scoreDifference(SCORES, "barn soy", "coco")?.by).toBeCloseTo(1.351656, 3);
    expect(scoreDifference(SCORES, "hive", "nothing")).toBeNull();
  });

  it("differ by Student's t where one person scored (means 6 and 8, s = 1, four and four: 2.447 · √½ = 1.730)", () => {
    const alone = [5, 6, 7, 6].map((score, index) => ({ ...base, score, batch: `a${index}` }));
    const others = [7, 8, 9, 8].map((score, index) => ({ ...base, wax: "coco", score, batch: `b${index}` }));
    const difference = scoreDifference([...alone, ...others], "barn soy", "coco");
    expect(difference?.by).toBeCloseTo(2, 9);
    expect((difference?.high ?? 0) - 2).toBeCloseTo(2.4469 * Math.sqrt((4 / 6) * (1 / 4 + 1 / 4)), 3);
  });

  it("stay from 0 to 10, the mean within its range, and count every batch and score once, whoever scored", () => {
    const score = fc.record({
      score: fc.integer({ min: 0, max: 20 }).map((n) => n / 2),
      wax: fc.constantFrom("barn soy", "coco", "hive"),
      scorer: fc.constantFrom("Ada", "Bo", null),
      batch: fc.constantFrom("1", "2", "3", null),
    });
    fc.assert(
      fc.property(fc.array(score, { maxLength: 40 }), (rows) => {
        const scores = rows.map((row) => ({ ...base, ...row }));
        const means = scoresByWax(scores);
        expect([...means.values()].reduce((sum, mean) => sum + mean.scores, 0)).toBe(scores.length);
        for (const { mean, low, high } of means.values()) {
          expect(mean).toBeGreaterThanOrEqual(Math.max(0, low ?? 0) - 1e-9);
          expect(mean).toBeLessThanOrEqual(Math.min(10, high ?? 10) + 1e-9);
        }
      }),
    );
  });

  it("stand by age if cold, by the room's size if hot, and nowhere where that is not known", () => {
    const rooms = "den, large\nbath, small";
    const of = (over: Partial<ThrowScore>) => THROW_COLUMNS.find(({ key }) => scoresOfColumn([{ ...base, ...over }], key, rooms).length > 0)?.key ?? null;
    expect([of({ ageDays: 3 }), of({ ageDays: 7 }), of({ ageDays: null })]).toEqual(["coldYoung", "coldOld", null]);
    expect([of({ throw: "hot", room: "Den" }), of({ throw: "hot", room: "bath" }), of({ throw: "hot", room: "not noted" }), of({ throw: "hot" })]).toEqual([
      "hotLarge",
      "hotSmall",
      null,
      null,
    ]);
    expect(throwColumns(SCORES, rooms).coldOld.size).toBe(3);
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
