import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { across } from "./across";

const rising = (least: number) =>
  fc.uniqueArray(fc.integer({ min: -100_000, max: 100_000 }), { minLength: least, maxLength: 8 }).map((all) => [...all].sort((a, b) => a - b));

describe("values across a drawing", () => {
  it("stand at their corners, in order between them, and go on in a straight line beyond", () => {
    fc.assert(
      fc.property(rising(2), (values) => {
        const places = values.map((value, at) => value * 2 + at * 10);
        const x = across(values, places);
        expect(x.ends).toEqual([values[0], values.at(-1)]);
        for (const [at, value] of values.entries()) expect(x(value)).toBeCloseTo(places[at] as number, 6);
        for (let at = 1; at < values.length; at++) {
          const middle = ((values[at - 1] as number) + (values[at] as number)) / 2;
          expect(x(middle)).toBeCloseTo(((places[at - 1] as number) + (places[at] as number)) / 2, 6);
        }
        const [last, before] = [values.at(-1) as number, values.at(-2) as number];
        expect(x(last + (last - before)) - x(last)).toBeCloseTo(x(last) - x(before), 6);
      }),
    );
  });

  it("take moments as they take numbers, and two corners in one place give that place", () => {
    const x = across([0, 1_000], [10, 20]);
    expect(x(new Date(500))).toBe(15);
    expect(x(-1_000)).toBe(0);
    expect(across([5, 5], [3, 9])(5)).toBe(3);
    expect(across([0, 100], [200, 0])(25)).toBe(150);
  });
});
