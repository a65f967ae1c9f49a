import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { classNamed, HAZARD_CLASSES } from "./rules";
import { readClasses, readIngredients, readShare, sheetIngredient, supplierSheet } from "./sheet";

const value = <T>(parsed: { ok: true; value: T } | { ok: false; message: string }) => (parsed.ok ? parsed.value : parsed.message);

describe("a supplier's sheet, as it is pasted", () => {
  it("takes shares as sheets write them, and of a range the worst", () => {
    for (const [text, want] of [
      ["12", { percent: 12 }],
      ["2,5 %", { percent: 2.5 }],
      ["10 - 25 %", { from: 10, percent: 25 }],
      ["≥ 1 - < 5", { from: 1, percent: 5 }],
      ["1 – 5", { from: 1, percent: 5 }],
      ["1 to 5 %", { from: 1, percent: 5 }],
      ["< 0.1", { from: 0, percent: 0.1 }],
      ["≤5%", { from: 0, percent: 5 }],
      // It has no upper end: all of it could be.
      ["> 50", { from: 50, percent: 100 }],
    ] as const)
      expect(value(readShare(text)), text).toEqual(want);
    for (const text of ["", "much", "0", "120 %", "25 - 10", "1 - 2 - 3"]) expect(readShare(text).ok, text).toBe(false);
  });

  it("reads every class it knows by its short name, however it is spaced or cased, and names what it does not reckon with", () => {
    fc.assert(
      fc.property(fc.constantFrom(...HAZARD_CLASSES), fc.boolean(), (name, loud) => {
        expect(classNamed(`  ${loud ? name.toUpperCase() : name} `)).toBe(name);
      }),
    );
    expect(readClasses("Skin Sens. 1B, H317; Aquatic Chronic 2, H411")).toEqual({ classes: ["Skin Sens. 1B", "Aquatic Chronic 2"], unread: [] });
    expect(readClasses("Acute Tox. 4; H302; Eye Irrit. 2 (H319)")).toEqual({ classes: ["Acute Tox. 4 oral", "Eye Irrit. 2"], unread: [] });
    expect(readClasses("Repr. 1B, Skin Corr. 1C")).toEqual({ classes: ["Repr. 1", "Skin Corr. 1"], unread: [] });
    // Without its sentence a route is not known, and a class that is not reckoned with must not pass for nothing.
    expect(readClasses("Acute Tox. 4, H312; Acute Tox. 4; Flam. Liq. 2")).toEqual({
      classes: ["Acute Tox. 4 dermal"],
      unread: ["Acute Tox. 4", "Flam. Liq. 2"],
    });
    // What an earlier version could not reckon with is taken from where it was kept.
    const kept = { name: "a", percent: 1, classes: ["Skin Irrit. 2"], unread: ["Resp. Sens. 1", "Flam. Liq. 2", "STOT RE 1"] };
    expect(sheetIngredient.parse(kept)).toMatchObject({ classes: ["Skin Irrit. 2", "Resp. Sens. 1", "STOT RE 1"], unread: ["Flam. Liq. 2"] });
    expect(readClasses("not classified")).toEqual({ classes: [], unread: [] });
  });

  it("finds its columns by their heads in any order, or takes them in the usual one, and says what is wrong row by row", () => {
    const headed = readIngredients([
      ["Conc. %", "Ingredient", "CLP classification", "M-factor", "SCL"],
      ["5 - 10", "fern base", "Skin Sens. 1B; Aquatic Acute 1", "10", "Skin Sens. 1B ≥ 0.5 %"],
      ["", "", "", "", ""],
      ["2", "moss oil", "", "", ""],
    ]);
    expect(headed.map((row) => row.ingredient)).toMatchObject([
      { name: "fern base", from: 5, percent: 10, classes: ["Skin Sens. 1B", "Aquatic Acute 1"], m: 10, limits: [{ class: "Skin Sens. 1B", percent: 0.5 }] },
      { name: "moss oil", percent: 2, classes: [] },
    ]);
    const plain = readIngredients([
      ["bitter", "1,5", "Acute Tox. 4, H302", "", "1200 mg/kg"],
      ["", "3", ""],
      ["odd", "a lot", ""],
    ]);
    expect(plain[0]?.ingredient).toMatchObject({ name: "bitter", percent: 1.5, ateOral: 1_200 });
    expect(plain[1]).toMatchObject({ row: 2, ingredient: null, fault: "The name is missing." });
    expect(plain[2]?.fault).toMatch(/a lot/);
    expect(readIngredients([])).toEqual([]);
    // Numbers of the substance; factors and estimates of more than one kind; routes by their sentences.
    const [whole] = readIngredients([
      ["Name", "%", "Classes", "CAS no.", "EC no.", "M-factor", "ATE"],
      [
        "fern base",
        "3",
        "Acute Tox. 3, H301; Acute Tox. 3, H311; Acute Tox. 4, H332; STOT SE 3, H336; Resp. Sens. 1; Lact., H362",
        "64-17-5",
        "200-578-6",
        "acute 10, chronic 1",
        "oral 218 mg/kg; dermal 810 mg/kg; inhalation 11 mg/l",
      ],
    ]);
    expect(whole?.ingredient).toMatchObject({
      classes: ["Acute Tox. 3 oral", "Acute Tox. 3 dermal", "Acute Tox. 4 inhalation", "STOT SE 3 H336", "Resp. Sens. 1", "Lact."],
      unread: [],
      cas: "64-17-5",
      ec: "200-578-6",
      mAcute: 10,
      mChronic: 1,
      ateOral: 218,
      ateDermal: 810,
      ateInhaled: 11,
    });
    expect(readIngredients([["a", "1", "", "10 (acute); 1 (chronic)"]])[0]?.ingredient).toMatchObject({ mAcute: 10, mChronic: 1 });
    expect(readIngredients([["a", "1", "", "M = 100"]])[0]?.ingredient).toMatchObject({ m: 100 });
    expect(
      readIngredients([
        ["Name", "%", "CAS"],
        ["a", "1", "64175"],
      ])[0]?.fault,
    ).toMatch(/CAS number/);
  });

  it("refuses ingredients that come to more than the whole, but not ranges that may", () => {
    const made = (list: object[]) => supplierSheet.safeParse({ on: "2026-01-10", ingredients: list }).success;
    expect(
      made([
        { name: "a", percent: 60, classes: [] },
        { name: "b", percent: 60, classes: [] },
      ]),
    ).toBe(false);
    expect(
      made([
        { name: "a", from: 40, percent: 60, classes: [] },
        { name: "b", from: 40, percent: 60, classes: [] },
      ]),
    ).toBe(true);
    expect(made([])).toBe(true);
  });
});
