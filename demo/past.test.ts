import { describe, expect, it } from "vitest";
import { pastBatches } from "./past";
import { FORMULAS, PRODUCTS } from "./workshop";

const DAY = 86_400;

describe("the months behind the demo", () => {
  const past = pastBatches();

  it("are the same at every loading, so that a picture or a bookmark still fits", () => {
    expect(pastBatches()).toEqual(past);
    expect(new Set(past.map((one) => one.id)).size).toBe(past.length);
  });

  it("lie in the past, in order, and end before they are inspected and closed", () => {
    const starts = past.map((one) => one.startedBefore);
    expect(Math.max(...starts)).toBeLessThan(93 * DAY);
    expect(Math.min(...starts)).toBeGreaterThan(2 * DAY);
    for (const one of past) {
      const times = [one.weighedAt, ...one.readings.map(([, at]) => at), one.pouredAt, one.lookedAt, one.closedAt].filter((at) => at !== undefined);
      expect(times).toEqual([...times].sort((a, b) => a - b));
      expect(Math.max(...times)).toBeLessThan(one.startedBefore);
    }
  });

  it("were good and bad, of every formula, each by a version that there was", () => {
    const versions = new Map(FORMULAS.flatMap((formula) => formula.versions.map((one) => [one.id, formula.id] as const)));
    const made = new Set(past.map((one) => versions.get(one.version)));
    expect(made).toEqual(new Set(FORMULAS.map((one) => one.id)));
    expect(past.filter((one) => (one.flaws ?? []).length > 0).length).toBeGreaterThan(past.length / 5);
    expect(past.filter((one) => one.flaws?.length === 0).length).toBeGreaterThan(past.length / 3);
  });
});

describe("the products of the demo", () => {
  it("are of formulas that there are; a test that was made says what it was of", () => {
    for (const one of PRODUCTS) {
      expect(FORMULAS.some((formula) => formula.id === one.formulaId)).toBe(true);
      expect(one.testedAs === null).toBe(one.wickTest === "test due");
    }
    expect(new Set(PRODUCTS.map((one) => one.wickTest))).toEqual(new Set(["tested", "test due", "failed"]));
  });
});
