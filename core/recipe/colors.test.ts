import { describe, expect, it } from "vitest";
import { colorsFor } from "./colors";

const [soy, palm, rain, fern, dye] = ["0001", "0002", "0003", "0004", "0005"].map((end) => `00000000-0000-4000-8000-00000000${end}`) as [
  string,
  string,
  string,
  string,
  string,
];
const color = (name: string, waxId: string | null, fragranceId: string | null) => ({
  name,
  recipe: { waxId, fragranceId, dyes: [{ id: dye, by: "drops" as const, amount: 4 }] },
});

describe("the colors to offer", () => {
  it("begin with what was tried with both, and leave out what was tried with others", () => {
    const all = [
      color("any", null, null),
      color("scent only", null, rain),
      color("wax only", soy, null),
      color("both", soy, rain),
      color("another wax", palm, rain),
      color("another scent", soy, fern),
      color("a scent elsewhere", null, fern),
    ];
    expect(colorsFor(all, soy, rain).map((color) => color.name)).toEqual(["both", "wax only", "scent only", "any"]);
    // Unscented: what was tried with a scent is no promise.
    expect(colorsFor(all, soy, "").map((color) => color.name)).toEqual(["wax only", "any"]);
  });
});
