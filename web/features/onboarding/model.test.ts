import { PRESET_PROCESSES, STARTERS, stopOf } from "@hearth/core";
import { describe, expect, it } from "vitest";
import type { First } from "@/server/workshops/onboarding";
import { isDone, nextStep, STEPS, specOf, suggestionFor } from "./model";

const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, "0")}`;
const blank: First = { scale: null, thermometer: null, wax: null, vessel: null, fragrance: null, wick: null, formula: null, product: null, started: false };
const wax = (family: string, maxLoadPpm: number | null = null) => ({ id: id(1), name: "wax", family, maxLoadPpm }) as unknown as First["wax"];
const oil = (kind: string, maxLoadPpm: number | null = null) =>
  ({ id: id(2), name: "oil", kind, maxLoadPpm, flashPoint: null }) as unknown as First["fragrance"];

const loadOf = (first: First) => suggestionFor(first, "C").loadPpm;

describe("the guided first batch", () => {
  it("goes on from what the workshop has, in whatever order it came there", () => {
    expect(nextStep(blank)).toBe("tools");
    const tooled = { ...blank, scale: { id: id(3) }, thermometer: { id: id(4) } } as First;
    expect(nextStep({ ...tooled, scale: null })).toBe("tools");
    expect(nextStep(tooled)).toBe("wax");
    expect(nextStep({ ...tooled, fragrance: oil("fragrance") })).toBe("wax");
    expect(nextStep({ ...tooled, wax: wax("soy"), fragrance: oil("fragrance") })).toBe("jar");
    expect(STEPS.filter((step) => isDone(step, blank))).toEqual([]);
    // The formula's step makes the product too; a workshop that began a batch without one is not sent back.
    const formula = { id: id(5), name: "formula" };
    expect(isDone("formula", { ...blank, formula })).toBe(false);
    expect(isDone("formula", { ...blank, formula, product: { id: id(6), name: "product" } })).toBe(true);
    expect(isDone("formula", { ...blank, formula, started: true })).toBe(true);
  });

  it.each(STARTERS)("begins $family within what it takes, worked in a way that suits it", ({ family, maxLoadPpm, loadPpm, leastCureSeconds, cureSeconds }) => {
    expect(loadPpm).toBeLessThanOrEqual(maxLoadPpm);
    expect(leastCureSeconds).toBeLessThanOrEqual(cureSeconds);
    const first = { ...blank, wax: wax(family, maxLoadPpm), fragrance: oil("fragrance") };
    expect(loadOf(first)).toBe(loadPpm);
    const { process } = suggestionFor(first, "F");
    expect(PRESET_PROCESSES.find((preset) => preset.name === process.name)?.families).toContain(family);
  });

  it("begins an essential oil near 4 %, and never above what wax or oil take: common practice, no source", () => {
    expect(loadOf({ ...blank, wax: wax("soy", 100_000), fragrance: oil("essential oil") })).toBe(40_000);
    expect(loadOf({ ...blank, wax: wax("gel", 30_000), fragrance: oil("essential oil") })).toBe(20_000);
    expect(loadOf({ ...blank, wax: wax("soy", 50_000), fragrance: oil("fragrance") })).toBe(50_000);
    expect(loadOf({ ...blank, wax: wax("soy", 100_000), fragrance: oil("fragrance", 30_000) })).toBe(30_000);
  });

  it("works an essential oil by the process that adds it cool", () => {
    const { process } = suggestionFor({ ...blank, wax: wax("soy", 100_000), fragrance: oil("essential oil") }, "C");
    expect(process.name).toBe(PRESET_PROCESSES.find((preset) => preset.id === "essential-oils")?.name);
  });

  it("makes a formula only of what is there, and stops gel with an oil whose flash point nobody knows", () => {
    expect(specOf(blank, 80_000, "C")).toBeNull();
    const gel = specOf({ ...blank, wax: wax("gel", 30_000), fragrance: oil("fragrance") }, 20_000, "C");
    const shelf = {
      waxes: [{ id: id(1), name: "gel", family: "gel", maxLoadPpm: 30_000 }],
      fragrances: [{ id: id(2), name: "oil", maxLoadPpm: null, flashPoint: null }],
    };
    expect(gel && stopOf(gel, shelf as never, "C")).not.toBeNull();
  });
});
