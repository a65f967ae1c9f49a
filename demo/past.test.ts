import { describe, expect, it } from "vitest";
import { pastBatches } from "./past";
import { FORMULAS, PRODUCTS } from "./workshop";

const DAY = 86_400;

describe("the months behind the demo", () => {
  const past = pastBatches();

  it("are the same at every loading, so that a picture or a bookmark still fits", () => {
    expect(pastBatches()).toEqual(past);
    expect(new Set(past.map((demoBatch) => demoBatch.id)).size).toBe(past.length);
  });

  it("lie in the past, in order, and end before they are inspected and closed", () => {
    const starts = past.map((demoBatch) => demoBatch.startedBefore);
    expect(Math.max(...starts)).toBeLessThan(93 * DAY);
    expect(Math.min(...starts)).toBeGreaterThan(2 * DAY);
    for (const demoBatch of past) {
      const times = [demoBatch.weighedAt, ...demoBatch.readings.map(([, at]) => at), demoBatch.pouredAt, demoBatch.lookedAt, demoBatch.closedAt].filter(
        (at) => at !== undefined,
      );
      expect(times).toEqual([...times].sort((a, b) => a - b));
      expect(Math.max(...times)).toBeLessThan(demoBatch.startedBefore);
    }
  });

  it("were good and bad, of every formula, each by a version that there was", () => {
    const versions = new Map(FORMULAS.flatMap((formula) => formula.versions.map((version) => [version.id, formula.id] as const)));
    const made = new Set(past.map((demoBatch) => versions.get(demoBatch.version)));
    expect(made).toEqual(new Set(FORMULAS.map((formula) => formula.id)));
    expect(past.filter((demoBatch) => (demoBatch.flaws ?? []).length > 0).length).toBeGreaterThan(past.length / 5);
    expect(past.filter((demoBatch) => demoBatch.flaws?.length === 0).length).toBeGreaterThan(past.length / 3);
  });
});

describe("the products of the demo", () => {
  it("are of formulas that there are; a test that was made says what it was of", () => {
    for (const product of PRODUCTS) {
      expect(FORMULAS.some((formula) => formula.id === product.formulaId)).toBe(true);
      expect(product.testedAs === null).toBe(product.wickTest === "test due");
    }
    expect(new Set(PRODUCTS.map((product) => product.wickTest))).toEqual(new Set(["tested", "test due", "failed"]));
  });
});
