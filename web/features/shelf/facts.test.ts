import { describe, expect, it } from "vitest";
import type { ShelfRow } from "@/server/inventory/shelf-page";
import { formatters } from "@/ui/units";
import { factsOf, warnOf } from "./facts";

const metric = formatters({ mass: "g", temperature: "C", zone: "UTC" });
const us = formatters({ mass: "oz", temperature: "F", zone: "UTC", length: "in" });
const row = (over: Record<string, unknown>): ShelfRow => ({ id: "x", name: "thing", version: 1, archived: false, ...over });
const nameOf = (id: string) => ({ a: "container soy", b: "coconut blend" })[id] ?? "something no longer here";
const both = (kind: Parameters<typeof factsOf>[0], of: Record<string, unknown>) => [factsOf(kind, row(of), metric, nameOf), factsOf(kind, row(of), us, nameOf)];

describe("what a row of the shelf says at a glance", () => {
  it("is in the workshop's own units, and leaves out what nobody knows", () => {
    expect(both("wax", { maxLoadPpm: 100_000, melt: 4_900, setDensity: 900_000, blend: null })).toEqual([
      "takes up to 10 % of the wax, melts at 49 °C, 0.9 g/ml",
      "takes up to 10 % of the wax, melts at 120 °F, specific gravity 0.9",
    ]);
    expect(both("wax", { maxLoadPpm: null, melt: null, setDensity: null, blend: null })[0]).toBe("maximum load not known");
    expect(both("wick", { fromUm: 57_150, toUm: 76_200, families: ["soy", "palm"] })).toEqual([
      "for 57.1 mm to 76.2 mm, in soy or palm",
      "for 2 1/4 in to 3 in, in soy or palm",
    ]);
    expect(both("wick", { fromUm: null, toUm: null, families: null })[0]).toBe("");
  });

  it("names the parts of a blend, the floor of what is sold by weight, and the step of a scale", () => {
    const blend = [
      { id: "a", share: 75 },
      { id: "b", share: 25 },
    ];
    expect(both("wax", { maxLoadPpm: null, melt: null, setDensity: null, blend })[0]).toContain("weighed as 75 container soy + 25 coconut blend");
    expect(both("vessel", { workingFillMg: 12_500, statedFillMg: 14_000, material: "metal", soldByWeight: false })[0]).toBe(
      "12.5 g fill weight (14 g stated), metal",
    );
    expect(both("vessel", { workingFillMg: 14_000, statedFillMg: 14_000, material: "metal", soldByWeight: true })[0]).toContain(
      "never filled below the net weight",
    );
    expect(both("instrument", { kind: "scale", resolutionUg: 283_495, capacityMg: 5_000_000 })[1]).toContain("reads to 0.01 oz");
    expect(both("instrument", { kind: "probe", correction: -50 })).toEqual(["correction −0.5 °C", "correction −0.9 °F"]);
    expect(both("mold", { kind: "melt tray", cavities: 6, fillMg: 12_500 })[0]).toBe("melt tray, 6 cavities, 12.5 g each");
    expect(both("dye", { eachMg: 30, kind: "liquid", strength: "strong", colors: "soy: pale rose" })[0]).toBe("0.03 g a drop, strong, sets soy: pale rose");
    expect(both("additive", { usualPpm: 20_000, maxPpm: 50_000, does: "hardens" })[0]).toBe("usually 2 %, at most 5 % of the wax, hardens");
    expect(both("fragrance", { maxLoadPpm: 60_000, flashPoint: 9_300, density: null, strength: "middling" })[1]).toBe(
      "takes up to 6 % of the wax, flash point 199 °F",
    );
  });

  it("cautions where a vessel must not be filled", () => {
    expect(warnOf("vessel", row({ material: "plastic", state: "for sale" })).length).toBeGreaterThan(0);
    expect(warnOf("vessel", row({ material: "heat-safe glass", state: "cracked" })).length).toBeGreaterThan(0);
    expect(warnOf("vessel", row({ material: "heat-safe glass", state: "for sale" }))).toEqual([]);
    expect(warnOf("wax", row({ material: "plastic" }))).toEqual([]);
  });
});
