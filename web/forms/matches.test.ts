import { describe, expect, it } from "vitest";
import { type Choice, matching, naturally, suggestedFirst } from "./matches";

const of = (...names: string[]): Choice[] => names.map((name) => ({ value: name, name }));
const found = (choices: Choice[], text: string, most?: number) => matching(choices, text, most).map((choice) => choice.name);

describe("choosing by part of a name", () => {
  it("finds every word, whatever its capitals and accents, what begins so first", () => {
    const shelf = of("Quince and smoke", "Smoked quince", "Crème of hay", "smoke alone");
    expect(found(shelf, "smoke")).toEqual(["Smoked quince", "smoke alone", "Quince and smoke"]);
    expect(found(shelf, "SMO qui")).toEqual(["Quince and smoke", "Smoked quince"]);
    expect(found(shelf, "creme")).toEqual(["Crème of hay"]);
    expect(found(shelf, "tar")).toEqual([]);
    expect(found(shelf, "", 2)).toEqual(["Quince and smoke", "Smoked quince"]);
  });

  it("puts numbers in names in their order", () => {
    expect(["12 oz jar", "8 oz jar", "100 g tin", "20 g tin"].sort(naturally)).toEqual(["8 oz jar", "12 oz jar", "20 g tin", "100 g tin"]);
  });

  it("offers first what was used lately, then what is there", () => {
    const rows = ["a", "b", "c", "d", "e"].map((id) => ({ id, name: `oil ${id}` }));
    const lately = { d: "2026-03-01T00:00:00.000Z", e: "2026-03-09T00:00:00.000Z" };
    expect(suggestedFirst(rows, lately, (id) => ({ c: 5, d: 0, a: -2 })[id]).map((item) => item.id)).toEqual(["e", "d", "c", "a", "b"]);
  });
});
