import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { completeValues, missingValues } from "./complete";

const bare = { name: "cup", headspaceUm: 10_000, shape: "straight", sizeEstimated: false };

describe("a vessel of which little is known", () => {
  it("gets its fill from the weight of water, the volume it is sold as, or its measures: five odd cups by hand", () => {
    const fill = (values: object) => completeValues("vessel", { ...bare, ...values }).workingFillMg as number;
    // Water to wax by 0.9 / 0.9982 g/ml: 200 g of water are 180.3 g, 95 g are 85.7 g.
    expect(fill({ waterMg: 200_000 }) / 1_000).toBeCloseTo(180.3, 1);
    expect(fill({ waterMg: 95_000 }) / 1_000).toBeCloseTo(85.7, 1);
    // Common practice, no source: 0.73 to 0.75 g for each nominal milliliter, 20 cl about 150 g, 30 cl about 220 g.
    expect(fill({ nominalUl: 200_000 })).toBe(148_000);
    expect(fill({ nominalUl: 300_000 })).toBe(222_000);
    // A cylinder of 70 mm, 90 mm high, 10 mm of headspace: π/4 × 70² × 80 = 307.9 ml, 277.1 g at 0.9 g/ml.
    expect(fill({ innerTopUm: 70_000, heightUm: 90_000 }) / 1_000).toBeCloseTo(277.1, 1);
  });

  it("keeps what was measured or said, and marks a size that nobody measured", () => {
    const known = completeValues("vessel", { ...bare, waterMg: 200_000, workingFillMg: 170_000, innerTopUm: 70_000, innerBottomUm: 60_000, heightUm: 90_000 });
    expect(known).toMatchObject({ workingFillMg: 170_000, statedFillMg: 170_000, innerBottomUm: 60_000, sizeEstimated: false });
    expect(completeValues("vessel", { ...bare, nominalUl: 200_000, workingFillMg: null, statedFillMg: null })).toMatchObject({ sizeEstimated: true });
    // A clamshell is weighed empty and full: its fill is all that is known of it.
    expect(completeValues("vessel", { ...bare, workingFillMg: 75_000 })).toMatchObject({ statedFillMg: 75_000, sizeEstimated: true });
  });

  it("needs one of them, and asks for it at its field", () => {
    expect(missingValues("vessel", completeValues("vessel", bare))).toHaveProperty("waterMg");
    expect(missingValues("vessel", completeValues("vessel", { ...bare, innerTopUm: 70_000 }))).toHaveProperty("waterMg");
    expect(missingValues("wax", {})).toEqual({});
  });

  it("is as wide and high as holds its fill, whatever it follows from", () => {
    fc.assert(
      fc.property(fc.integer({ min: 5_000, max: 2_000_000 }), fc.constantFrom("waterMg", "nominalUl", "workingFillMg"), (amount, key) => {
        const done = completeValues("vessel", { ...bare, [key]: amount });
        expect(missingValues("vessel", done)).toEqual({});
        const [diameter, height, fill] = [done.innerTopUm as number, done.heightUm as number, done.workingFillMg as number];
        expect((Math.PI / 4) * (diameter / 1_000) ** 2 * (height / 1_000) * 0.9).toBeGreaterThan(fill * 0.99);
        // Completing what is complete changes nothing.
        expect(completeValues("vessel", done)).toEqual(done);
      }),
    );
  });
});
