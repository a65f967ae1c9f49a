import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { MG_PER } from "../units/mass";
import { restMakes, weightFills } from "./from-weight";

describe("a plan that begins from a weight", () => {
  it("says what it fills: 2 lb in five jars of 6.85 oz are 93.4 %, 2.25 oz short; four are filled whole", () => {
    const jar = Math.round(6.85 * MG_PER.oz);
    const out = weightFills(Math.round(2 * MG_PER.lb), [{ count: 5, fillMg: jar }]);
    expect(out.ratio * 100).toBeCloseTo((32 / (5 * 6.85)) * 100, 3);
    expect(out.shortMg / MG_PER.oz).toBeCloseTo(2.25, 3);
    expect(out).toMatchObject({ whole: 4, restMg: 0 });
  });

  it("is short, or has a rest, or neither; and what is filled whole is never more than there is", () => {
    const line = fc.record({ count: fc.integer({ min: 1, max: 40 }), fillMg: fc.integer({ min: 10_000, max: 400_000 }) });
    fc.assert(
      fc.property(fc.integer({ min: 50_000, max: 20_000_000 }), fc.array(line, { minLength: 1, maxLength: 4 }), (total, lines) => {
        const { neededMg, shortMg, restMg, ratio, whole } = weightFills(total, lines);
        expect(shortMg === 0 || restMg === 0).toBe(true);
        if (shortMg > 0) expect(total + shortMg).toBe(neededMg);
        if (restMg > 0) expect(neededMg + restMg).toBe(total);
        if (shortMg === 0 && restMg === 0) expect(Math.abs(ratio - 1)).toBeLessThanOrEqual(0.005 + 1e-12);
        if (whole !== null) expect(whole * (lines[0]?.fillMg ?? 0)).toBeLessThanOrEqual(total * 1.005 + 1);
      }),
    );
  });

  it("makes of the rest what leaves least of it", () => {
    const pieces = [
      { name: "cup", fillMg: 14_000 },
      { name: "tin", fillMg: 60_000 },
    ];
    expect(restMakes(68_000, pieces)).toMatchObject({ piece: { name: "tin" }, count: 1, leftMg: 8_000 });
    expect(restMakes(57_000, pieces)).toMatchObject({ piece: { name: "cup" }, count: 4, leftMg: 1_000 });
    expect(restMakes(10_000, pieces)).toBeNull();
  });
});
