import { describe, expect, it } from "vitest";
import { PRESET_PROCESSES } from "../process/presets/ready";
import { bandsOf } from "../process/process";
import { process as processSchema } from "../process/schema";
import { anId, aPlan } from "../testing/batch";
import { METRIC } from "../units/measured-text";
import { difference, wickToTestAgain } from "./difference";
import { gelFaults } from "./safety";
import { formulaSpec } from "./schema";

const ids = { wax: anId(), oil: anId(), vessel: anId() };
const plan = aPlan(ids);
const spec = formulaSpec.parse({ ...plan.pots[0]?.recipe, process: plan.process });
const withSteps = (change: (step: (typeof spec.process.steps)[number]) => object) => ({
  ...spec,
  process: processSchema.parse({ ...spec.process, steps: spec.process.steps.map((step) => ({ ...step, ...change(step) })) }),
});

describe("what differs between two versions", () => {
  it("says it in a maker's words and units", () => {
    const after = { ...withSteps((step) => (step.kind === "cool" ? { range: { low: 5_400, high: 6_000 } } : {})), loadPpm: 80_000 };
    expect(difference(spec, after, (id) => id, METRIC)).toEqual([
      { what: "load", from: "10 % of wax", to: "8 % of wax" },
      { what: "pour range", from: "57–63 °C", to: "54–60 °C" },
    ]);
    expect(difference(spec, after, (id) => id, { mass: "oz", temperature: "F" })[1]?.to).toBe("129–140 °F");
    expect(difference(spec, structuredClone(spec), (id) => id, METRIC)).toEqual([]);
  });
});

describe("what hides because it prints alike", () => {
  it("is said in finer figures", () => {
    const after = { ...spec, loadPpm: 100_004 };
    expect(difference(spec, after, (id) => id, METRIC)[0]?.what).toBe("load");
    const warmer = withSteps((step) => (step.kind === "cool" ? { range: { low: 5_702, high: 6_300 } } : {}));
    const [change] = difference(spec, warmer, (id) => id, METRIC);
    expect(change?.from).not.toBe(change?.to);
  });
});

describe("what a formula may say", () => {
  it("has ranges below the ceiling in every ready-made process", () => {
    for (const { steps, ceiling, name } of PRESET_PROCESSES) for (const band of bandsOf({ steps })) expect(band.range.high, name).toBeLessThanOrEqual(ceiling);
  });

  it("refuses a load without a fragrance, a load of most of the total, and a cure upside down", () => {
    expect(formulaSpec.safeParse({ ...spec, fragrances: [] }).success).toBe(false);
    expect(formulaSpec.safeParse({ ...spec, fragrances: [], loadPpm: 0 }).success).toBe(true);
    expect(formulaSpec.safeParse({ ...spec, basis: "total", loadPpm: 600_000 }).success).toBe(false);
    expect(
      formulaSpec.safeParse({
        ...spec,
        process: { ...spec.process, steps: spec.process.steps.map((step) => (step.kind === "cure" ? { ...step, least: 3e6 } : step)) },
      }).success,
    ).toBe(false);
  });
});

describe("when the wick must be tested again", () => {
  it("is after another fragrance, or a load changed by more than one point on the wax's basis", () => {
    const load = (loadPpm: number, basis: "wax" | "total" = "wax") => ({ ...spec, loadPpm, basis });
    expect(wickToTestAgain(load(80_000), load(90_000))).toBe(false);
    expect(wickToTestAgain(load(80_000), load(91_000))).toBe(true);
    // 8 % of the wax is 7.41 % of the total: another way to say the same is no change.
    expect(wickToTestAgain(load(80_000), load(74_074, "total"))).toBe(false);
    expect(wickToTestAgain(spec, { ...spec, fragrances: [{ id: ids.vessel, share: 1 }] })).toBe(true);
    expect(wickToTestAgain(spec, { ...spec, notes: "x", process: { ...spec.process, ceiling: 9_000 } })).toBe(false);
  });
});

describe("what stands against a gel candle", () => {
  const gel = { name: "clear gel", family: "gel" };
  const soy = { name: "soy", family: "soy" };
  const oil = (flashPoint: number | null) => ({ name: "reed", flashPoint });
  const said = (...of: Parameters<typeof gelFaults>) => gelFaults(...of).map((gelFault) => [gelFault.of, gelFault.weight]);

  it("stops an oil that flashes at 77 °C or below, or whose flash point nobody knows", () => {
    const stop = (flashPoint: number | null, unit: "C" | "F" = "C") => gelFaults({ waxes: [gel], fragrances: [oil(9_000), oil(flashPoint)] }, unit)[0]?.message;
    expect(stop(7_700)).toMatch(/reed flashes at 77 °C.*choose another oil/);
    expect(stop(5_600, "F")).toMatch(/133 °F.*above 171 °F/);
    expect(stop(null)).toMatch(/not on the shelf/);
  });

  it("is told all at once: oil, dye, wick and process", () => {
    const all = {
      fragrances: [oil(6_000), oil(null)],
      dyes: [{ name: "brick", kind: "block" }],
      wicks: [{ name: "flat 4", kind: "flat-braid cotton" }],
      process: { steps: [{ id: "heat", kind: "heat" as const, range: { low: 8_300, high: 8_700 } }] },
    };
    expect(said({ waxes: [soy, gel], ...all }, "C")).toEqual([
      ["fragrance", "stop"],
      ["fragrance", "stop"],
      ["dye", "stop"],
      ["wick", "warn"],
      ["process", "warn"],
    ]);
    // Each of them in gel only.
    expect(said({ waxes: [soy], ...all }, "C")).toEqual([]);
  });

  it("lets pass what flashes higher, liquid dye, zinc core and a process for gel", () => {
    const process = PRESET_PROCESSES.find((preset) => preset.id === "gel");
    const fine = {
      fragrances: [oil(7_701)],
      dyes: [{ name: "rose", kind: "liquid" }],
      wicks: [{ name: "z", kind: "zinc core" }],
      ...(process ? { process } : {}),
    };
    expect(said({ waxes: [gel], ...fine }, "C")).toEqual([]);
    expect(said({ waxes: [gel], fragrances: [] }, "C")).toEqual([]);
  });
});
