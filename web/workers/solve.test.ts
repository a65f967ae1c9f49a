import { type Choice, LeftoversError, leftoversProgramme, mostAlone, type Programme, type Supply } from "@hearth/core";
import fc from "fast-check";
import loadHighs, { type Highs } from "highs";
import { beforeAll, describe, expect, it } from "vitest";
import { solveProgramme } from "./solve";

let highs: Highs;
beforeAll(async () => {
  highs = await loadHighs();
});

/** The best value by trying every mix: the outside check for small cases. */
function byTrying(programme: Programme): number {
  const columns = programme.cost.length;
  let best = Number.NEGATIVE_INFINITY;
  const go = (column: number, value: number, left: number[]) => {
    if (column === columns) {
      best = Math.max(best, value);
      return;
    }
    for (let count = 0; count <= (programme.high[column] ?? 0); count++) {
      const rest = [...left];
      for (let at = programme.starts[column] ?? 0; at < (programme.starts[column + 1] ?? 0); at++) {
        const row = programme.rows[at] as number;
        rest[row] = (rest[row] as number) - count * (programme.amounts[at] as number);
      }
      if (rest.some((value) => value < 0)) return;
      if (count >= (programme.low[column] ?? 0)) go(column + 1, value + count * (programme.cost[column] as number), rest);
    }
  };
  go(0, 0, programme.have);
  return best;
}

const material = (have: number, leftover = true): Supply => ({ name: `m${have}`, have, leftover });
const product = (name: string, uses: number[], worth = 0, least = 0, most: number | null = null): Choice => ({ name, uses, worth, least, most });

describe("the mix that uses leftovers up best, or earns most", () => {
  it("is found for a shelf of two waxes and two products, proved, with what is left", () => {
    // 5 kg of soy, 300 g of oil, 20 jars; a large jar of 163 + 13 g and a cup of 11.6 + 0.9 g that needs no jar.
    const materials = [material(5_000_000), material(300_000), { ...material(20), leftover: false }];
    const products = [product("jar", [163_000, 13_000, 1], 1_800), product("cup", [11_600, 900, 0], 110)];
    const earn = solveProgramme(highs, leftoversProgramme(products, materials, "earn"), 10);
    expect(earn.proved).toBe(true);
    expect(earn.value).toBe(byTrying(leftoversProgramme(products, materials, "earn")));
    expect(earn.left).toEqual(
      materials.map((material, row) => material.have - earn.counts.reduce((sum, count, column) => sum + count * (products[column]?.uses[row] ?? 0), 0)),
    );
    // Using up is another aim: more of the weight goes, for less money.
    const use = solveProgramme(highs, leftoversProgramme(products, materials, "use"), 10);
    expect(use.value).toBe(byTrying(leftoversProgramme(products, materials, "use")));
    expect(use.counts).not.toEqual(earn.counts);
  });

  it("is the one that trying every mix finds, in whole milligrams", () => {
    const row = fc.integer({ min: 0, max: 4_000 });
    const some = fc.tuple(
      fc.array(
        fc.record({ uses: fc.array(row, { minLength: 3, maxLength: 3 }), worth: fc.integer({ min: 0, max: 900 }), least: fc.integer({ min: 0, max: 1 }) }),
        { minLength: 1, maxLength: 4 },
      ),
      fc.array(fc.integer({ min: 4_000, max: 16_000 }), { minLength: 3, maxLength: 3 }),
      fc.constantFrom("use" as const, "earn" as const),
    );
    fc.assert(
      fc.property(some, ([list, have, aim]) => {
        const materials = have.map((value, index) => material(value, index !== 1));
        const products = list.map((item, index) =>
          product(
            `p${index}`,
            item.uses.map((n, index) => (index === 0 ? n + 900 : n)),
            item.worth,
            item.least,
            9,
          ),
        );
        let programme: Programme;
        try {
          programme = leftoversProgramme(products, materials, aim);
        } catch (error) {
          expect(error).toBeInstanceOf(LeftoversError);
          return;
        }
        const best = solveProgramme(highs, programme, 20);
        expect(best.proved).toBe(true);
        expect(best.value).toBe(byTrying(programme));
        expect(Math.min(...best.left)).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: 60 },
    );
  }, 120_000);

  it("says what cannot be before it asks a solver: least counts beyond the shelf, and products without an end", () => {
    expect(() => leftoversProgramme([product("jar", [600], 1, 3)], [material(1_000)], "earn")).toThrow(/180 % of the m1000/);
    expect(() => leftoversProgramme([product("air", [0], 1)], [material(1_000)], "earn")).toThrow(/air draws on none/);
    expect(() => leftoversProgramme([product("jar", [100], 1, 4, 3)], [material(1_000)], "earn")).toThrow(/least of 4 is above the 3/);
  });

  it("gives the best it has and the bound where the time is too short to prove it", () => {
    // Many near-equal products: hard to prove within no time at all.
    const materials = Array.from({ length: 12 }, (_, index) => material(9_999_991 + index * 7_919));
    const products = Array.from({ length: 40 }, (_, column) =>
      product(
        `p${column}`,
        materials.map((_one, index) => 50_021 + ((column * 7_907 + index * 104_729) % 90_001)),
        1_000 + ((column * 613) % 97),
      ),
    );
    const mixture = solveProgramme(highs, leftoversProgramme(products, materials, "earn"), 0.4);
    expect(mixture.bound).toBeGreaterThanOrEqual(mixture.value);
    expect(mixture.proved).toBe(mixture.bound === mixture.value);
    expect(Math.min(...mixture.left)).toBeGreaterThanOrEqual(0);
  });

  it("tells how many of one product alone there is enough for, and what runs out", () => {
    expect(mostAlone([163_000, 13_000, 1], [5_000_000, 300_000, 20])).toEqual({ n: 20, limitedBy: 2 });
    expect(mostAlone([163_000, 13_000, 0], [5_000_000, 300_000, 20])).toEqual({ n: 23, limitedBy: 1 });
    expect(mostAlone([0, 0], [1, 1])).toBeNull();
  });
});
