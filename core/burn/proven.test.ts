import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type BurnedCombination, bestTests, type Combination, isInferred, isSameCombination, proofOf } from "./proven";

const base: Combination = { vessel: "tin", wax: "barn soy", family: "soy", wick: "flat 4", wicks: 1, scent: "rain", loadPpm: 80_000 };
const passed = (over: Partial<Combination> = {}): BurnedCombination => ({ ...base, ...over, decided: "passed", trialId: "t" });

describe("what is proven", () => {
  it("is what was burned itself; a burn of the same family within a point of load lets it be inferred, and a failed one does not", () => {
    expect(proofOf(base, [passed()]).status).toBe("proven");
    expect(proofOf(base, [passed({ loadPpm: 84_000 })]).status).toBe("proven");
    expect(proofOf(base, [passed({ scent: "moss", loadPpm: 90_000 })]).status).toBe("inferred");
    expect(proofOf(base, [passed({ wax: "prairie soy" })]).status).toBe("inferred");
    expect(proofOf(base, [passed({ scent: "moss", loadPpm: 90_001 })]).status).toBe("unproven");
    for (const over of [{ vessel: "jar" }, { wick: "flat 5" }, { wicks: 2 }, { family: "paraffin", wax: "p" }])
      expect(proofOf(base, [passed(over)]).status).toBe("unproven");
    expect(proofOf(base, [{ ...base, decided: "failed", trialId: "t" }, passed()]).status).toBe("failed");
    expect(proofOf(base, [{ ...base, scent: "moss", decided: "failed", trialId: "t" }]).status).toBe("unproven");
  });

  it("knows a blend again as it was weighed, whatever its order, and takes no other waxes or shares for it", () => {
    const blend = { ...base, wax: "50 % barn soy + 48 % hive + 2 % palm" };
    const isSame = (wax: string) => isSameCombination(blend, { ...base, wax }) && isSameCombination({ ...base, wax }, blend);
    for (const wax of [blend.wax, "50 % hive + 48 % barn soy + 2 % palm", "49 % barn soy + 47 % hive + 4 % palm"]) expect(isSame(wax)).toBe(true);
    for (const wax of ["barn soy", "53 % barn soy + 45 % hive + 2 % palm", "50 % barn soy + 50 % hive", "50 % barn soy + 48 % hive + 2 % bay"])
      expect(isSame(wax)).toBe(false);
  });

  it("two tests that would prove most cover no fewer than any two others, and what they cover follows from them", () => {
    const combination = fc.record({
      vessel: fc.constantFrom("tin", "jar"),
      wax: fc.constantFrom("barn soy", "prairie soy"),
      family: fc.constantFrom("soy", "paraffin"),
      wick: fc.constantFrom("flat 4", "flat 5"),
      wicks: fc.constant(1),
      scent: fc.constantFrom("rain", "moss", "fig"),
      loadPpm: fc.constantFrom(60_000, 70_000, 80_000, 95_000),
    });
    fc.assert(
      fc.property(fc.array(combination, { maxLength: 12 }), (open) => {
        const { tests, covered } = bestTests(open);
        expect(tests.length).toBeLessThanOrEqual(2);
        const coveredBy = (chosen: readonly number[]) =>
          open.flatMap((item, index) => (chosen.some((test) => test === index || isInferred(open[test] as Combination, item)) ? [index] : []));
        expect(covered).toEqual(coveredBy(tests));
        for (let a = 0; a < open.length; a++) for (let b = 0; b < open.length; b++) expect(coveredBy([a, b]).length).toBeLessThanOrEqual(covered.length);
        for (const item of open) expect(isSameCombination(item, item) && isInferred(item, item)).toBe(true);
      }),
    );
  });
});
