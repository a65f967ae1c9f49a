import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DEFAULT_ROOMS } from "./rooms";
import { nextRung, roomsFilled, rungsOf, type ScoredCandle } from "./rungs";
import { THROW_ORDER } from "./scent-throw";

const base: ScoredCandle = {
  at: "2026-01-01T00:00:00.000Z",
  scorer: "Ada",
  room: "bedroom",
  score: 5,
  wax: "soy",
  scent: "rain",
  loadPpm: 60_000,
  vessel: "tin",
  wick: "flat 4",
  ageDays: 14,
};
const day = (n: number) => new Date(Date.UTC(2026, 0, n)).toISOString();
const made = (over: Partial<ScoredCandle> = {}) => ({ ...base, ...over });
const asked = (scores: ScoredCandle[], over: Partial<Parameters<typeof nextRung>[0]> = {}) =>
  nextRung({ scores, made: scores.at(-1) ?? base, maxLoadPpm: 100_000, fillMg: 120_000, strongOil: false, sooty: false, minCureDays: 4, ...over })?.id ?? null;

describe("the rungs of a candle", () => {
  it("are the ways it was made, with what the one change brought", () => {
    const scores = [
      made({ at: day(1), score: 5 }),
      made({ at: day(9), loadPpm: 80_000, score: 6 }),
      made({ at: day(9), loadPpm: 80_000, score: 7 }),
      made({ at: day(20), loadPpm: 80_000, wax: "coco", wick: "flat 5", score: 8 }),
    ];
    const rungs = rungsOf(scores);
    expect(rungs.map((rung) => [rung.mean, rung.scores, rung.after?.changed ?? null, rung.after?.by ?? null])).toEqual([
      [5, 1, null, null],
      [6.5, 2, "loadPpm", 1.5],
      // Two things changed at once: nobody can say which brought it.
      [8, 1, null, null],
    ]);
  });

  it("take each person's own level out: one who scores two lower hides no gain", () => {
    const scores = [
      ...[1, 2, 3].map((n) => made({ at: day(n), scorer: "Ada", score: 7 + (n % 2) / 2 })),
      made({ at: day(4), scorer: "Bo", score: 5 }),
      ...[5, 6, 7].map((n) => made({ at: day(n), scorer: "Bo", loadPpm: 80_000, score: 6 + (n % 2) / 2 })),
      made({ at: day(8), scorer: "Ada", loadPpm: 80_000, score: 8.5 }),
    ];
    const [, second] = rungsOf(scores);
    // Plainly the mean goes from 6.8 to 7.0; within each person it rises by more than one.
    expect(second?.after?.by).toBeGreaterThan(0.9);
    expect(second?.after?.low ?? 0).toBeLessThan(second?.after?.by ?? 0);
  });

  it("follow in the order of the trade, one at a time, and none twice", () => {
    expect(asked([made()])).toBe("load_8");
    expect(asked([made({ loadPpm: 80_000 })])).toBe("oil");
    expect(asked([made({ at: day(1), loadPpm: 80_000 }), made({ at: day(2), loadPpm: 80_000, scent: "moss" })])).toBe("wax");
    expect(asked([made({ loadPpm: 80_000 })], { strongOil: true })).toBe("wax");
    expect(asked([made()], { sooty: true })).toBe("load_down");
    expect(asked([made({ ageDays: 1 })])).toBe("cure");
    expect(asked([])).toBe("load_8");
    const all = [
      made({ at: day(1), loadPpm: 100_000 }),
      made({ at: day(2), loadPpm: 100_000, scent: "moss" }),
      made({ at: day(3), loadPpm: 100_000, wax: "coco" }),
      made({ at: day(4), loadPpm: 100_000, wick: "flat 5" }),
      made({ at: day(5), loadPpm: 100_000, vessel: "jar" }),
    ];
    expect(asked(all)).toBeNull();
  });

  it("never offer a rung whose one change was tried, whatever was scored", () => {
    const score = fc.record({
      at: fc.integer({ min: 1, max: 60 }).map(day),
      scorer: fc.constantFrom("Ada", "Bo"),
      score: fc.integer({ min: 0, max: 20 }).map((n) => n / 2),
      scent: fc.constantFrom("rain", "moss"),
      wax: fc.constantFrom("soy", "coco"),
      wick: fc.constantFrom("flat 4", "flat 5"),
      loadPpm: fc.constantFrom(60_000, 80_000, 100_000),
    });
    const dimensionOf: Record<string, string> = { oil: "scent", wax: "wax", vessel: "vessel", wick: "wick" };
    fc.assert(
      fc.property(fc.array(score, { maxLength: 20 }), (rows) => {
        const scores = rows.map((row) => made(row));
        const next = asked(scores);
        const tried = rungsOf(scores).flatMap((rung) => rung.after?.changed ?? []);
        if (next && dimensionOf[next]) expect(tried).not.toContain(dimensionOf[next]);
        if (next) expect([...THROW_ORDER.map((item) => item.id), "cure", "load_down"]).toContain(next);
        expect(rungsOf(scores).reduce((sum, rung) => sum + rung.scores, 0)).toBe(scores.length);
      }),
    );
  });

  it("say which rooms it fills: 7 of 10 does for a small one, 8 is wanted for a large one", () => {
    const scores = [made({ room: "Bedroom", score: 7 }), made({ room: "living room", score: 7.5 }), made({ room: "bathroom", score: 6.5 })];
    expect(roomsFilled(scores, DEFAULT_ROOMS)).toEqual(["bedroom"]);
  });
});
