import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Recipe } from "../recipe/schema";
import { amountsFor } from "../weigh-out/amounts";
import { hazardOf, joinParts, loadsWithout, type MixPart, partsOfPot, partsOfRecipe } from "./mixture";
import { precautionsFor, wordsOf } from "./sentences";
import { type SupplierSheet, supplierSheet } from "./sheet";

const id = (n: number) => `0190c0de-0000-7000-8000-${String(n).padStart(12, "0")}`;
const shelf = {
  waxes: [
    { id: id(1), name: "soy" },
    { id: id(2), name: "coconut" },
    {
      id: id(3),
      name: "house blend",
      blend: [
        { id: id(1), share: 3 },
        { id: id(2), share: 1 },
      ],
    },
  ],
  fragrances: [
    { id: id(10), name: "fern" },
    { id: id(11), name: "moss" },
  ],
  additives: [{ id: id(20), name: "stearic acid" }],
  dyes: [{ id: id(30), name: "green", eachMg: 30 }],
};
const recipe = (over: Partial<Recipe> = {}): Recipe => ({
  waxes: [{ id: id(1), share: 1 }],
  fragrances: [{ id: id(10), share: 1 }],
  basis: "wax",
  loadPpm: 80_000,
  notes: "",
  ...over,
});
const sheet = (ingredients: object[]): SupplierSheet => supplierSheet.parse({ on: "2026-01-10", ingredients });
/** The oil of the check document: 12 % of a 1B sensitiser and 35 % of a chronic 2 ingredient. */
const OIL = sheet([
  { name: "a", percent: 12, classes: ["Skin Sens. 1B"] },
  { name: "b", percent: 35, classes: ["Aquatic Chronic 2"] },
]);
const NOTHING = sheet([]);
const sheets = (oil = OIL) =>
  new Map([
    [id(1), NOTHING],
    [id(10), oil],
  ]);
const percents = (parts: MixPart[]) => Object.fromEntries(parts.map((part) => [part.name, Math.round(part.percent * 1_000) / 1_000]));

describe("what a candle is made of", () => {
  it("is shared out by weight: 8 % of the wax are 7.407 % of the candle, on either basis", () => {
    expect(percents(partsOfRecipe(recipe(), shelf))).toEqual({ soy: 92.593, fern: 7.407 });
    expect(percents(partsOfRecipe(recipe({ basis: "total" }), shelf))).toEqual({ soy: 92, fern: 8 });
    const all = recipe({
      waxes: [{ id: id(3), share: 1 }],
      fragrances: [
        { id: id(10), share: 3 },
        { id: id(11), share: 1 },
      ],
      additives: [{ id: id(20), ppm: 20_000 }],
      dyes: [{ id: id(30), by: "drops", amount: 10 }],
    });
    const parts = percents(partsOfRecipe(all, shelf));
    // Ten drops of 30 mg to a pound of 453.592 37 g (NIST SP 811): 0.066 % of the wax.
    expect(parts).toEqual({ soy: 68.141, coconut: 22.714, fern: 5.451, moss: 1.817, "stearic acid": 1.817, green: 0.06 });
    expect(Object.values(parts).reduce((a, b) => a + b, 0)).toBeCloseTo(100, 1);
  });

  it("is just what is weighed out of the same recipe, whatever it is: blends, several oils, additives, dyes by weight, on either basis", () => {
    const materials = {
      waxes: shelf.waxes.map((wax) => ({ family: "soy", maxLoadPpm: null, ...wax })),
      fragrances: shelf.fragrances.map((fragrance) => ({ maxLoadPpm: null, flashPoint: null, ...fragrance })),
      additives: shelf.additives,
      dyes: shelf.dyes.map((dye) => ({ kind: "powder", ...dye })),
    };
    const scale = { id: null, name: "scale", resolutionUg: 1_000 };
    const share = fc.integer({ min: 1, max: 9 });
    fc.assert(
      fc.property(
        fc.record({
          waxes: fc.uniqueArray(fc.record({ id: fc.constantFrom(id(1), id(2), id(3)), share }), { minLength: 1, maxLength: 3, selector: (item) => item.id }),
          fragrances: fc.uniqueArray(fc.record({ id: fc.constantFrom(id(10), id(11)), share }), { minLength: 1, maxLength: 2, selector: (item) => item.id }),
          additives: fc.constantFrom<NonNullable<Recipe["additives"]>>([], [{ id: id(20), ppm: 200_000 }], [{ id: id(20), ppm: 1_500 }]),
          dyes: fc.constantFrom<NonNullable<Recipe["dyes"]>>([], [{ id: id(30), by: "percent", amount: 0.3 }]),
          basis: fc.constantFrom("wax" as const, "total" as const),
          loadPpm: fc.integer({ min: 10_000, max: 200_000 }),
        }),
        (over) => {
          const made = recipe(over);
          const { components, totalMg } = amountsFor(made, materials, {
            fills: [{ name: "jar", fillMg: 1_000_000, count: 50 }],
            sparePpm: 0,
            scales: { wax: scale, oil: scale },
          });
          const weighed = Object.fromEntries(components.map((component) => [component.id, (100 * component.mg) / totalMg]));
          const parts = partsOfRecipe(made, shelf);
          expect(parts.map((part) => part.id).sort()).toEqual(Object.keys(weighed).sort());
          for (const part of parts) expect(part.percent, part.name).toBeCloseTo(weighed[part.id] as number, 3);
        },
      ),
      { numRuns: 150 },
    );
    // The example of a label that used too little oil: 10 % of the total with 20 % additive.
    const additive = recipe({ basis: "total", loadPpm: 100_000, additives: [{ id: id(20), ppm: 200_000 }] });
    expect(percents(partsOfRecipe(additive, shelf)).fern).toBe(10);
    // What is gone from the shelf is in the candle all the same.
    const gone = partsOfRecipe(recipe({ fragrances: [{ id: id(99), share: 1 }] }), shelf);
    expect(gone.map((mixPart) => [mixPart.id, mixPart.name])).toContainEqual([id(99), "something no longer here"]);
  });

  it("has the load of the total that is weighed out, with additives and without", () => {
    fc.assert(
      fc.property(fc.integer({ min: 5_000, max: 300_000 }), fc.integer({ min: 0, max: 300_000 }), (loadPpm, ppm) => {
        const parts = partsOfRecipe(recipe({ basis: "total", loadPpm, additives: ppm === 0 ? [] : [{ id: id(20), ppm }] }), shelf);
        expect(parts.find((part) => part.kind === "fragrance")?.percent).toBeCloseTo(loadPpm / 10_000, 6);
      }),
    );
  });

  it("is what was weighed, where it was; and says where the plan stands in", () => {
    const scale = { id: null, name: "scale", resolutionUg: 1_000_000 };
    const pot = {
      components: [
        { kind: "wax", id: id(1), name: "soy", mg: 1_000_000, scale },
        { kind: "fragrance", id: id(10), name: "fern", mg: 80_000, scale },
      ],
      totalMg: 1_080_000,
    } as never;
    const weighed = (mg: number) => ({ [`0:${id(1)}`]: { mg: 1_000_000, at: "", n: 1 }, [`0:${id(10)}`]: { mg, at: "", n: 1 } });
    const real = partsOfPot({ pots: [pot] }, 0, { weighed: weighed(100_000), counted: {}, targets: {}, splits: {} });
    expect(percents(real.parts)).toEqual({ soy: 90.909, fern: 9.091 });
    expect(real.planned).toEqual([]);
    expect(partsOfPot({ pots: [pot] }, 0, { weighed: {}, counted: {}, targets: {}, splits: {} })).toMatchObject({ planned: ["soy", "fern"] });
    // The real load crosses the limit that the planned one does not.
    expect(hazardOf(real.parts, sheets()).answer.classes).toContain("Skin Sens. 1");
    expect(hazardOf(partsOfRecipe(recipe(), shelf), sheets()).answer.classes).not.toContain("Skin Sens. 1");
    const joined = joinParts([
      { parts: real.parts, totalMg: 1_100_000 },
      { parts: [{ id: id(1), name: "soy", kind: "wax", percent: 100 }], totalMg: 1_100_000 },
    ]);
    expect(percents(joined)).toEqual({ soy: 95.455, fern: 4.545 });
  });
});

describe("the label of a recipe", () => {
  it("comes to the worked values, and says which sheet it lacks on its face", () => {
    const { answer, without } = hazardOf(partsOfRecipe(recipe(), shelf), sheets());
    expect(answer).toMatchObject({ classes: ["Aquatic Chronic 3"], h: ["H412"], euh: ["EUH208"], contains: ["a"] });
    expect(without).toEqual([]);
    const shortage = hazardOf(partsOfRecipe(recipe(), shelf), new Map());
    expect(shortage.without.map((mixPart) => mixPart.name)).toEqual(["soy", "fern"]);
    const words = wordsOf(shortage.answer, "en", ["soy", "fern"]);
    expect(words.rests).toBe("Incomplete: no supplier's sheet of soy, fern.");
    // Nobody is told that it is not classified where nobody knows.
    expect(words.h).toEqual([]);
    expect(wordsOf(hazardOf([], new Map()).answer, "en").h).toEqual(["Not classified by these rules."]);
  });

  it("says the largest load without each class: at that load it is free, a hundredth of a percent above it is not", () => {
    // 1 % of the candle at 12 % of the oil: 8.333 % of the candle, 9.09 % of the wax.
    const at10 = loadsWithout(recipe({ loadPpm: 100_000 }), shelf, sheets());
    expect(at10).toContainEqual({ class: "Skin Sens. 1", loadPpm: 90_900 });
    // 25 / (10 × 35 %) = 7.142 857 % of the candle, 7.6923 % of the wax: recomputed by hand.
    expect(at10).toContainEqual({ class: "Aquatic Chronic 3", loadPpm: 76_900 });
    // A tenth of 1 % of the sensitiser: 0.8333 % of the candle, 0.8403 % of the wax.
    expect(loadsWithout(recipe(), shelf, sheets())).toContainEqual({ class: "EUH208", loadPpm: 8_400 });
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 60 }),
        fc.integer({ min: 1, max: 200 }),
        fc.constantFrom("Skin Sens. 1", "Eye Irrit. 2", "Aquatic Chronic 2"),
        (share, load, name) => {
          const of = recipe({ loadPpm: load * 1_000 });
          const mine = sheets(sheet([{ name: "x", percent: share, classes: [name] }]));
          const has = (loadPpm: number, cls: string) => {
            const { classes, euh } = hazardOf(partsOfRecipe(of, shelf, loadPpm), mine).answer;
            return classes.includes(cls) || euh.includes(cls);
          };
          for (const { class: cls, loadPpm } of loadsWithout(of, shelf, mine)) {
            expect(loadPpm).not.toBeNull();
            expect(has(loadPpm as number, cls)).toBe(false);
            expect(has((loadPpm as number) + 100, cls)).toBe(true);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it("says that no load would do where something else than the scent brings the class", () => {
    const dyed = recipe({ dyes: [{ id: id(30), by: "percent", amount: 5 }] });
    const mine = new Map([...sheets(NOTHING), [id(30), sheet([{ name: "pigment", percent: 60, classes: ["Skin Sens. 1"] }])]]);
    expect(loadsWithout(dyed, shelf, mine)).toEqual([{ class: "Skin Sens. 1", loadPpm: null }]);
  });

  it("is written in each language, with few precautions that fit, each once", () => {
    const { answer } = hazardOf(partsOfRecipe(recipe({ loadPpm: 100_000 }), shelf), sheets());
    for (const language of ["en", "de", "fr"] as const) {
      const words = wordsOf(answer, language);
      expect(words.h).toHaveLength(2);
      expect([words.signal, words.contains, ...words.h, ...words.p].join(" ")).not.toMatch(/H\d{3}|P\d{3}|\{|undefined/);
    }
    expect(wordsOf(answer, "de")).toMatchObject({ signal: "Achtung", contains: "Enthält: a" });
    expect(precautionsFor(["H317", "H319", "H412"])).toEqual(["P102", "P101", "P280", "P305+P351+P338", "P273", "P302+P352"]);
    expect(precautionsFor([])).toEqual([]);
  });
});
