import { describe, expect, it } from "vitest";
import { colorsFor } from "./colors";

const [soy, palm, rain, fern, dye] = ["0001", "0002", "0003", "0004", "0005"].map((end) => `00000000-0000-4000-8000-00000000${end}`) as [
  string,
  string,
  string,
  string,
  string,
];
const colour = (name: string, waxId: string | null, fragranceId: string | null) => ({
  name,
  recipe: { waxId, fragranceId, dyes: [{ id: dye, by: "drops" as const, amount: 4 }] },
});

describe("the colours to offer", () => {
  it("begin with what was tried with both, and leave out what was tried with others", () => {
    const all = [
      colour("any", null, null),
      colour("scent only", null, rain),
      colour("wax only", soy, null),
      colour("both", soy, rain),
      colour("another wax", palm, rain),
      colour("another scent", soy, fern),
      colour("a scent elsewhere", null, fern),
    ];
    expect(colorsFor(all, soy, rain).map((one) => one.name)).toEqual(["both", "wax only", "scent only", "any"]);
    // Unscented: what was tried with a scent is no promise.
    expect(colorsFor(all, soy, "").map((one) => one.name)).toEqual(["wax only", "any"]);
  });
});
