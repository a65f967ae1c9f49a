import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { METRIC, US_CUSTOMARY } from "../units/measured-text";
import { guessMapping, readSheet, writeSheet } from "./sheet";

const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, "0")}`;
const context = {
  waxes: [],
  currency: "USD",
  names: {
    formula: [{ id: id(1), name: "Fern" }],
    container: [{ id: id(2), name: "8 oz jar" }],
    wick: [{ id: id(3), name: "braid 4" }],
    material: [
      { id: id(4), name: "container soy", counted: false },
      { id: id(2), name: "8 oz jar", counted: true },
      { id: id(5), name: "twin" },
      { id: id(6), name: "Twin" },
    ],
  },
};
const read = (
  kind: "lot" | "product",
  heads: string[],
  rows: string[][],
  kept: ({ id: string; name: string } & Record<string, unknown>)[] = [],
  decimalComma = false,
) => readSheet(kind, { heads, rows, decimalComma }, guessMapping(kind, heads), kept, context);

describe("lots by rows", () => {
  const heads = ["Of what", "Amount", "Cost of the lot", "Supplier's lot code", "Received on"];

  it("are weights in grams or with their own unit, and pieces of what is counted", () => {
    const rows = read("lot", heads, [
      ["container soy", "10 lb", "$40", "SY-1", "2026-03-01"],
      ["Container Soy", "500", "", "", "2026-03-02"],
      ["8 oz jar", "48", "33.60", "", "2026-03-02"],
    ]);
    expect(rows.map((row) => row.outcome.is)).toEqual(["new", "new", "new"]);
    expect(rows.map((row) => [row.values.materialId, row.values.amount, row.values.cost])).toEqual([
      [id(4), 4_535_924, 4_000],
      [id(4), 500_000, null],
      [id(2), 48, 3_360],
    ]);
  });

  it("are refused row by row with what is wrong, and several of one thing are several lots", () => {
    const rows = read("lot", heads, [
      ["unknown wax", "5", "", "", "2026-03-01"],
      ["8 oz jar", "2.5", "", "", "2026-03-01"],
      ["twin", "5", "", "", "2026-03-01"],
      ["container soy", "5", "", "", "yesterday"],
      ["container soy", "1 l", "", "", "2026-03-01"],
      ["container soy", "5", "-3", "", "2026-03-01"],
      ["container soy", "5", "", "", "2026-03-01"],
      ["container soy", "5", "", "", "2026-03-01"],
    ]);
    expect(rows.map((row) => row.outcome.is)).toEqual(["refused", "refused", "refused", "refused", "refused", "refused", "new", "new"]);
    const why = (at: number) => (rows[at]?.outcome.is === "refused" ? rows[at].outcome.why.join(" ") : "");
    expect(why(0)).toContain("no thing on the shelf called “unknown wax”");
    expect(why(1)).toContain("whole numbers");
    expect(why(2)).toContain("several things called “twin”");
    expect(why(3)).toContain("no day");
  });

  it("are known again by all that they say", () => {
    const kept = { id: id(9), name: "", materialId: id(4), amount: 500_000, cost: null, code: "", receivedOn: "2026-03-02" };
    expect(read("lot", heads, [["container soy", "500", "", "", "2026-03-02"]], [kept])[0]?.outcome.is).toBe("same");
    expect(read("lot", heads, [["container soy", "501", "", "", "2026-03-02"]], [kept])[0]?.outcome.is).toBe("new");
  });

  it("go out and come back the same, whatever their amounts and costs", () => {
    const lot = fc.record({
      counted: fc.boolean(),
      grams: fc.integer({ min: 1, max: 9_000_000 }),
      pieces: fc.integer({ min: 1, max: 9_999 }),
      cost: fc.option(fc.integer({ min: 0, max: 900_000 })),
      day: fc.constantFrom("2026-01-31", "2025-12-01"),
    });
    fc.assert(
      fc.property(fc.array(lot, { minLength: 1, maxLength: 8 }), (lots) => {
        const kept = lots.map((lot, index) => ({
          id: id(100 + index),
          name: "",
          materialId: lot.counted ? id(2) : id(4),
          amount: lot.counted ? lot.pieces : lot.grams,
          cost: lot.cost,
          code: "",
          receivedOn: lot.day,
        }));
        for (const units of [METRIC, US_CUSTOMARY]) {
          const sheet = writeSheet("lot", kept, { ...context, units });
          const back = readSheet("lot", sheet, guessMapping("lot", sheet.heads), kept, { ...context, units });
          expect(back.map((row) => row.outcome.is)).toEqual(kept.map(() => "same"));
        }
      }),
    );
  });
});

describe("products by rows", () => {
  const heads = ["name", "formula", "vessel or mold", "wick", "wicks in one", "price", "pack"];

  it("name formula, vessel and wick as the workshop does, and begin as a form would", () => {
    const [row, melts] = read("product", heads, [
      ["Fern in glass", "fern", "8 OZ JAR", "braid 4", "", "12.50", ""],
      ["Fern melts", "Fern", "8 oz jar", "", "1", "", "6"],
    ]);
    expect(row?.values).toMatchObject({
      formulaId: id(1),
      containerId: id(2),
      wickId: id(3),
      wicks: 1,
      price: 1_250,
      pack: 1,
      soldBy: "piece",
      packCost: null,
    });
    expect(melts?.values).toMatchObject({ wickId: null, price: null, pack: 6 });
  });

  it("change the product of that name, and say what changes in words", () => {
    const kept = {
      id: id(50),
      name: "Fern in glass",
      formulaId: id(1),
      containerId: id(2),
      wickId: id(3),
      wicks: 1,
      price: 1_250,
      pack: 1,
      packCost: null,
      soldBy: "piece",
      remarks: "",
    };
    const [row] = read("product", ["name", "price"], [["fern in GLASS", "13"]], [kept]);
    expect(row?.outcome).toMatchObject({ is: "changed", what: expect.arrayContaining(["Price per pack: 12.5 → 13"]) });
    const sheet = writeSheet("product", [kept], context);
    expect(readSheet("product", sheet, guessMapping("product", sheet.heads), [kept], context)[0]?.outcome.is).toBe("same");
  });

  it("are refused where what they name is not there, or they stand there twice", () => {
    const rows = read("product", heads, [
      ["A", "no such", "8 oz jar", "", "", "", ""],
      ["B", "Fern", "8 oz jar", "no such", "", "", ""],
      ["C", "Fern", "8 oz jar", "", "", "1,250", ""],
      ["D", "Fern", "8 oz jar", "", "", "", ""],
      ["d", "Fern", "8 oz jar", "", "", "", ""],
    ]);
    expect(rows.map((row) => row.outcome.is)).toEqual(["refused", "refused", "refused", "new", "refused"]);
    // Parted by semicolons the comma is the decimal mark.
    expect(read("product", heads, [["C", "Fern", "8 oz jar", "", "", "1,25", ""]], [], true)[0]?.values.price).toBe(125);
  });
});
