import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { randomFrom } from "../random";
import { type BatchSums, sumsOf } from "./batch-sums";
import { thresholdOf } from "./threshold";

/** Batches poured at a temperature, each of ten jars, with so many of them flawed. */
const at = (x: number, ...flawed: number[]): BatchSums & { x: number } => ({ x, ...sumsOf(flawed.map((k) => ({ n: 10, k }))) });

describe("the value that divides batches with a flaw from those without", () => {
  it("is found where it was put, whichever side is the worse", () => {
    const below = [60, 61, 62, 63, 64].map((x) => at(x, 0, 0, 0));
    const above = [65, 66, 67, 68, 69].map((x) => at(x, 8, 9, 7));
    // By hand: 15 batches of ten on each side, 5 × (8 + 9 + 7) = 120 jars of 150 flawed.
    expect(thresholdOf([...above, ...below])).toMatchObject({ at: 64, worse: "above", flawed: 120, of: 150, otherFlawed: 0, otherOf: 150 });
    const turned = [...below.map((dose) => ({ ...dose, x: 130 - dose.x })), ...above.map((dose) => ({ ...dose, x: 130 - dose.x }))];
    expect(thresholdOf(turned)).toMatchObject({ worse: "below", flawed: 120, of: 150, otherFlawed: 0 });
  });

  it("does not hang on the order, and its two sides are all the batches", () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.integer({ min: 50, max: 90 }), fc.nat(10)), { minLength: 2, maxLength: 60 }), (batches) => {
        const xs = [...new Set(batches.map(([x]) => x))];
        const doses = xs.map((x) => at(x, ...batches.filter(([other]) => other === x).map(([, k]) => k)));
        const found = thresholdOf(doses);
        expect(thresholdOf([...doses].reverse())).toEqual(found);
        if (!found) return;
        expect(found.of + found.otherOf).toBe(batches.length * 10);
        expect(found.flawed / found.of).toBeGreaterThan(found.otherFlawed / found.otherOf);
        expect(found.p).toBeLessThan(0.05);
        expect(xs.some((x) => x > found.at)).toBe(true);
      }),
    );
  });

  it("is told where there is none in no more than one workshop of twenty", () => {
    const random = randomFrom(11);
    let told = 0;
    const MANY = 400;
    for (let n = 0; n < MANY; n++) {
      const doses = Array.from({ length: 12 }, (_, x) =>
        at(60 + x, ...Array.from({ length: 3 }, () => Array.from({ length: 10 }, () => (random() < 0.2 ? 1 : 0)).reduce<number>((a, b) => a + b, 0))),
      );
      if (thresholdOf(doses)) told += 1;
    }
    expect(told / MANY).toBeLessThanOrEqual(0.05);
  });

  it("is not told from too little, or where nothing varied", () => {
    expect(thresholdOf([])).toBeNull();
    expect(thresholdOf([at(64, 0, 9, 0, 9)])).toBeNull();
    expect(thresholdOf([at(60, 0), at(70, 10)])).toBeNull();
  });
});
