import { describe, expect, it } from "vitest";
import { withChange } from "../diagnosis/change";
import type { ChangeNext } from "../diagnosis/diagnosis";
import type { FormulaSpec } from "../recipe/schema";
import { anId, presetProcess } from "../testing/batch";
import { comparable, recordDifferences, shareDifference } from "./compare";
import { wilson } from "./proportion";

describe("two batches side by side", () => {
  it("differ in what was recorded otherwise, by more than a thermometer does; what only one recorded is unknown", () => {
    const a = { pour_c: 72, load_percent_of_wax: 8, vessel_warmed: true, stir_minutes: 2, room_c: 20 };
    const item = recordDifferences(a, { ...a, pour_c: 60, load_percent_of_wax: 8.1, room_c: 21 });
    expect(item.differ).toEqual([{ key: "pour_c", a: 72, b: 60 }]);
    expect(comparable(item.differ.length)).toBe("one thing");
    const { vessel_warmed: _w, ...less } = a;
    const two = recordDifferences(a, { ...less, pour_c: 60, load_percent_of_wax: 10 });
    expect(two.differ.map((each) => each.key)).toEqual(["pour_c", "load_percent_of_wax"]);
    expect(two.unknown).toEqual([{ key: "vessel_warmed", a: true, b: null }]);
    expect(comparable(two.differ.length)).toBe("several things");
    // What was asked is compared even where it is none; what follows from the rest is no change of its own.
    expect(recordDifferences({ dye_drops_per_lb: 0, minutes_hot_with_oil: 3 }, { dye_drops_per_lb: 6, minutes_hot_with_oil: 40 }).differ).toHaveLength(1);
  });

  it("have the interval of a difference as published", () => {
    // Newcombe 1998b, table II (from memory): 56/70 − 48/80, method 10: 0.0524 to 0.3339.
    const { by, low, high } = shareDifference(wilson(48, 80), wilson(56, 70));
    expect(by).toBeCloseTo(0.2, 10);
    expect(low).toBeCloseTo(0.0524, 4);
    expect(high).toBeCloseTo(0.3339, 4);
  });
});

describe("one change for next time", () => {
  const spec: FormulaSpec = {
    waxes: [{ id: anId(), share: 1 }],
    fragrances: [{ id: anId(), share: 1 }],
    dyes: [{ id: anId(), by: "drops", amount: 12 }],
    basis: "total",
    loadPpm: 90_000,
    notes: "For the market.",
    process: presetProcess("soy-bind-hot"),
  };
  const change = (what: string, from: ChangeNext["from"], to: ChangeNext["to"]): ChangeNext => ({ what, from, to, why: "" });
  const differing = (next: FormulaSpec) => ({
    steps: spec.process.steps.filter((step, index) => JSON.stringify(step) !== JSON.stringify(next.process.steps[index])).map((step) => step.kind),
    load: next.loadPpm === spec.loadPpm,
  });

  it("is made in the formula, alone, within its range, and written in its notes", () => {
    const cooler = withChange(spec, change("pour_c", 72, 60), "batch 41");
    expect(differing(cooler)).toEqual({ steps: ["cool"], load: true });
    expect(cooler.process.steps.find((step) => step.kind === "cool")).toMatchObject({ range: { low: 5_850, high: 6_150 } });
    expect(cooler.notes).toBe("For the market.\nOne change after batch 41: poured at: 60 °C instead of 72 °C.");
    // The same change again stays inside what was drawn in.
    expect(withChange(cooler, change("pour_c", 72, 63), "x").process.steps.find((step) => step.kind === "cool")).toMatchObject({
      range: { low: 6_150, high: 6_150 },
    });
    // 8 % of the wax is 7.41 % of the total, in which this formula is written.
    expect(withChange(spec, change("load_percent_of_wax", 9.9, 8), "x").loadPpm).toBe(74_074);
    expect(differing(withChange(spec, change("stir_minutes", 1, 3), "x"))).toEqual({ steps: ["stir"], load: true });
    expect(withChange(spec, change("dye_drops_per_lb", 12, 10), "x").dyes?.[0]?.amount).toBe(10);
    expect(withChange(spec, change("dye_drops_per_lb", 12, 0), "x").dyes).toEqual([]);
  });

  it("that no formula can say stands in its notes only", () => {
    const warm = withChange(spec, change("vessel_warmed", false, true), "batch 7");
    expect({ ...warm, notes: "" }).toEqual({ ...spec, notes: "" });
    expect(warm.notes).toContain("vessels warmed: yes instead of no");
  });
});
