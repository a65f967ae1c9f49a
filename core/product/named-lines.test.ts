import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { namedLines } from "./named-lines";

const wick = (name: string, count = 1) => ({ name, count });

describe("the lines of a pot", () => {
  it("name what differs between those that are called alike, and only that", () => {
    const glass = { name: "20 cl glass", wicks: wick("flat 4"), fillMg: 150_000 };
    const names = (lines: Parameters<typeof namedLines>[0]) => namedLines(lines).map((line) => line.name);
    expect(names([glass, { ...glass, wicks: wick("flat 6", 2) }])).toEqual(["20 cl glass · flat 4", "20 cl glass · 2 × flat 6"]);
    expect(names([glass, { ...glass, part: { kind: "half" } }])).toEqual(["20 cl glass · full", "20 cl glass · half fill"]);
    expect(names([glass, { ...glass, wicks: null, part: { kind: "half" } }])).toEqual(["20 cl glass · flat 4 · full", "20 cl glass · no wick · half fill"]);
    expect(names([glass, { ...glass, name: "tin", wicks: null }])).toEqual(["20 cl glass", "tin"]);
    expect(names([glass])).toEqual(["20 cl glass"]);
  });

  it("are told apart wherever their wick or fill differs", () => {
    const line = fc.record({
      name: fc.constantFrom("glass", "tin"),
      wicks: fc.option(fc.record({ name: fc.constantFrom("flat 4", "flat 6"), count: fc.integer({ min: 1, max: 3 }) })),
      part: fc.option(fc.constantFrom({ kind: "half" as const }, { kind: "layer" as const, number: 1, of: 2 }, { kind: "layer" as const, number: 2, of: 2 }), {
        nil: undefined,
      }),
      fillMg: fc.constant(100_000),
    });
    fc.assert(
      fc.property(fc.uniqueArray(line, { minLength: 1, maxLength: 8, selector: (item) => JSON.stringify(item) }), (lines) => {
        const names = namedLines(lines).map((line) => line.name);
        expect(new Set(names).size).toBe(lines.length);
      }),
    );
  });
});
