import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { STARTERS } from "../materials/starters";
import { PRESET_PROCESSES } from "../process/presets/ready";
import { timesOf } from "../process/process";
import { disagreements } from "./disagreements";
import { limitsOf, type Materials } from "./materials";
import { suggestedDose, suggestFormula } from "./suggest";

const id = (n: number) => `0190c0de-0000-7000-8000-${String(n).padStart(12, "0")}`;
const FAMILIES = ["soy", "coconut", "paraffin", "paraffin–soy", "beeswax", "palm", "gel", "blend"];
const blank = { maxLoadPpm: null, flashPoint: 9_000 };
const shelfOf = (waxes: object[], oils: object[] = []) =>
  ({
    waxes: waxes.map((wax, n) => ({ id: id(n), name: `wax ${n}`, maxLoadPpm: null, ...wax })),
    fragrances: oils.map((oil, n) => ({ id: id(50 + n), name: `oil ${n}`, ...blank, ...oil })),
  }) as unknown as Materials;
const all = (shelf: Materials) => ({
  waxes: shelf.waxes.map((wax) => ({ id: wax.id, share: 1 })),
  fragrances: shelf.fragrances.map((fragrance) => ({ id: fragrance.id, share: 1 })),
});
const nameOf = (process: string) => PRESET_PROCESSES.find((preset) => preset.id === process)?.name;
const suggested = (waxes: object[], oils: object[] = []) => {
  const shelf = shelfOf(waxes, oils);
  return suggestFormula(all(shelf), shelf, "C");
};

describe("what a formula begins with", () => {
  it("is the supplier's own temperatures and cure, and the oil's own usual load", () => {
    const sheet = {
      heatRange: { low: 7_500, high: 8_000 },
      addRange: { low: 6_800, high: 7_200 },
      pourRange: { low: 5_000, high: 5_500 },
      ceiling: 9_000,
      leastCureSeconds: 600_000,
      cureSeconds: 900_000,
    };
    const { process, loadPpm } = suggested([{ family: "soy", maxLoadPpm: 100_000, ...sheet }], [{ usualLoadPpm: 40_000 }]);
    expect(process.steps.filter((step) => "range" in step)).toMatchObject([{ range: sheet.heatRange }, { range: sheet.addRange }, { range: sheet.pourRange }]);
    expect(process.ceiling).toBe(9_000);
    expect(timesOf(process)).toMatchObject({ leastCure: 600_000, recommendedCure: 900_000 });
    expect(loadPpm).toBe(40_000);
    expect(suggestedDose({ usualPpm: 5_000 })).toBe(5_000);
    expect(suggestedDose({ maxPpm: 10_000 })).toBe(10_000);
  });

  it("is a process that follows from the whole blend and the scent: common practice, no source", () => {
    const name = (waxes: object[], oils: object[] = []) => suggested(waxes, oils).process.name;
    expect(name([{ family: "soy" }])).toBe(nameOf("soy-bind-hot"));
    expect(name([{ family: "soy" }], [{ kind: "essential oil" }])).toBe(nameOf("essential-oils"));
    expect(name([{ family: "soy" }, { family: "beeswax" }])).toBe(nameOf("soy-beeswax"));
    expect(name([{ family: "coconut" }, { family: "soy" }])).toBe(nameOf("coconut-soy-hot"));
    expect(name([{ family: "soy" }, { family: "gel" }])).toBe(nameOf("gel"));
    expect(name([{ family: "paraffin", name: "hard pillar wax" }])).toBe(nameOf("pillar-glossy"));
    // A blend of the shelf counts by what it is made of.
    const house = shelfOf([
      { family: "soy" },
      { family: "beeswax" },
      {
        family: "blend",
        blend: [
          { id: id(0), share: 9 },
          { id: id(1), share: 1 },
        ],
      },
    ]);
    expect(suggestFormula({ waxes: [{ id: id(2), share: 1 }], fragrances: [] }, house, "C").process.name).toBe(nameOf("soy-beeswax"));
  });

  it("does not hang on the order of choosing, keeps every limit, and agrees with itself", () => {
    const wax = fc.record({
      family: fc.constantFrom(...FAMILIES),
      maxLoadPpm: fc.option(fc.integer({ min: 20, max: 120 }).map((n) => n * 1_000)),
      leastCureSeconds: fc.option(fc.integer({ min: 1, max: 20 }).map((n) => n * 86_400)),
    });
    const oil = fc.record({
      kind: fc.constantFrom("fragrance", "essential oil"),
      usualLoadPpm: fc.option(fc.integer({ min: 10, max: 150 }).map((n) => n * 1_000)),
    });
    fc.assert(
      fc.property(
        fc.array(wax, { minLength: 1, maxLength: 3 }),
        fc.array(oil, { maxLength: 2 }),
        fc.constantFrom("C" as const, "F" as const),
        (waxes, oils, unit) => {
          const shelf = shelfOf(waxes, oils);
          const chosen = all(shelf);
          const out = suggestFormula(chosen, shelf, unit);
          expect(suggestFormula({ waxes: [...chosen.waxes].reverse(), fragrances: [...chosen.fragrances].reverse() }, shelf, unit)).toEqual(out);
          expect(out.loadPpm).toBeLessThanOrEqual(limitsOf(chosen, shelf)[0]?.ppm ?? 1_000_000);
          const found = disagreements({ ...chosen, basis: "wax", ...out }, shelf, unit).map((disagreement) => disagreement.code);
          for (const code of ["cure-short", "load-above-wax", "add-above-heat", "essential-oil-hot", "gel-process"])
            if (code !== "essential-oil-hot" || !waxes.some((wax) => ["palm", "gel"].includes(wax.family))) expect(found).not.toContain(code);
        },
      ),
    );
  });

  it("agrees with the materials that a workshop begins with, also where nothing is on their sheets", () => {
    for (const { family, leastCureSeconds, cureSeconds } of STARTERS)
      expect(timesOf(suggested([{ family }]).process), family).toMatchObject({ leastCure: leastCureSeconds, recommendedCure: cureSeconds });
  });
});

describe("the limit of a blend", () => {
  const shelf = shelfOf([
    { family: "soy", maxLoadPpm: 100_000 },
    { family: "coconut", maxLoadPpm: 120_000 },
  ]);
  const limit = (a: number, b: number) =>
    limitsOf(
      {
        waxes: [
          { id: id(0), share: a },
          { id: id(1), share: b },
        ],
        fragrances: [],
      },
      shelf,
    )[0];

  it("is weighted by its parts, and told with them; each part's own is for information", () => {
    expect(limit(75, 25)).toMatchObject({ ppm: 105_000, of: "wax", parts: [{ share: 750_000 }, { share: 250_000 }] });
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100 }), fc.integer({ min: 1, max: 100 }), (a, b) => {
        expect(limit(a, b)?.ppm).toBe(Math.floor((a * 100_000 + b * 120_000) / (a + b) + 1e-6));
      }),
    );
    const waxes = [
      { id: id(0), share: 75 },
      { id: id(1), share: 25 },
    ];
    const at = (loadPpm: number) => disagreements({ waxes, fragrances: [], basis: "wax", loadPpm }, shelf, "C");
    expect(at(106_000).find((disagreement) => disagreement.code === "load-above-wax")?.message).toContain(
      "10.5 % that the blend takes (75 % wax 0 at 10 % + 25 % wax 1 at 12 %)",
    );
    expect(at(104_000).map((disagreement) => [disagreement.code, disagreement.weight])).toContainEqual(["above-part-of-blend", "inform"]);
    expect(at(104_000).map((disagreement) => disagreement.code)).not.toContain("load-above-wax");
  });
});
