import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { ladderProcess } from "../process/ladder";
import { PRESET_PROCESSES } from "../process/presets/ready";
import { potsOf, restOf } from "../process/process";
import { process as processSchema } from "../process/schema";
import { presetProcess } from "../testing/batch";
import { aTestCandle, aTrial, aTrialPlan, burnOnce } from "../testing/trial";
import { firstLadder, parseLadder, writeLadder } from "./ladder";
import { ladderAnswer } from "./ladder-answer";
import { LADDERS, type TestCandle, type TrialPlan } from "./plan";
import { nextTrial } from "./verdict";

describe("the steps of a ladder", () => {
  it("are read as they are typed, in any order, and written back", () => {
    expect(parseLadder("8, 10, 12", "load")).toEqual({ ok: true, value: [8, 10, 12] });
    expect(parseLadder("12 % 8% 10", "load")).toEqual({ ok: true, value: [8, 10, 12] });
    expect(parseLadder("20; 30; 40", "blend")).toEqual({ ok: true, value: [20, 30, 40] });
    for (const text of ["", "8", "8, 8", "8, 200", "8, x"]) expect(parseLadder(text, "load").ok, text).toBe(false);
    expect(parseLadder("2, 2.5", "dye").ok).toBe(false);
    fc.assert(
      fc.property(fc.constantFrom(...LADDERS), fc.uniqueArray(fc.integer({ min: 0, max: 30 }), { minLength: 2, maxLength: 8 }), (ladder, steps) => {
        const sorted = [...steps].sort((a, b) => a - b);
        expect(parseLadder(writeLadder(steps), ladder)).toEqual({ ok: true, value: sorted });
      }),
    );
  });

  it("begin two points apart about the load, from 4 % for essential oils, and never above the limit", () => {
    // Common practice, no source: when raising a load go up by two points; essential oils start near 4 %.
    expect(firstLadder("load", { loadPercent: 10, maxLoadPercent: 12, isEssential: false })).toEqual([8, 10, 12]);
    expect(firstLadder("load", { loadPercent: 8, maxLoadPercent: 9, isEssential: false })).toEqual([6, 8]);
    expect(firstLadder("load", { loadPercent: 3, maxLoadPercent: null, isEssential: true })).toEqual([4, 6, 8]);
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 30 }), fc.option(fc.integer({ min: 3, max: 15 }), { nil: null }), fc.boolean(), (load, most, isEssential) => {
        const steps = firstLadder("load", { loadPercent: load, maxLoadPercent: most, isEssential });
        expect(steps.length).toBeGreaterThan(1);
        for (const step of steps) expect(step).toBeLessThanOrEqual(most ?? 12);
        expect(parseLadder(writeLadder(steps), "load").ok).toBe(true);
      }),
    );
  });

  it("can be poured from one melt by any process of one pot, which stays a process", () => {
    for (const preset of PRESET_PROCESSES.filter((each) => potsOf(each.steps) === 1))
      for (const many of [2, 3, 5]) {
        const ladder = ladderProcess(presetProcess(preset.id), many);
        expect(processSchema.safeParse(ladder).error?.issues, preset.id).toBeUndefined();
        expect(potsOf(ladder.steps)).toBe(many);
        expect(Array.from({ length: many }, (_, pot) => restOf(ladder.steps, pot))).toEqual([undefined, ...Array.from({ length: many - 1 }, (_, n) => n)]);
      }
  });
});

describe("what a ladder says", () => {
  const hot = {
    60: { poolUm: 81_000, flame: "large" as const, bottom: true },
    240: { poolUm: 81_000, depthUm: 22_000, flame: "large" as const, bottom: true },
  };
  const good = {
    120: { poolUm: 60_000, flame: "steady" as const, soot: "none" as const },
    200: { poolUm: 81_000, depthUm: 10_000, flame: "steady" as const, soot: "none" as const },
  };
  const sooty = {
    120: { poolUm: 60_000, flame: "steady" as const, soot: "black" as const, mushroom: "large" as const },
    200: { poolUm: 81_000, depthUm: 10_000, flame: "steady" as const, soot: "black" as const, mushroom: "large" as const },
  };
  const burned = (varies: TrialPlan["varies"], candles: [Partial<TestCandle>, Record<number, object>][]) => {
    const letters = "ABC";
    const trial = aTrial({
      ...aTrialPlan(candles.map(([more], index) => ({ ...aTestCandle(`${letters[index]}1`), variant: letters[index] ?? "", ...more }))),
      varies,
    });
    candles.forEach(([, looks], index) => {
      for (let session = 0; session < 3; session++) burnOnce(trial, `${letters[index]}1`, session * 1_440 + index, 245, looks as never);
    });
    return trial.now();
  };
  const dose = (amount: number) => ({ dose: { name: "beeswax", amount } });

  it("answers a blend in points of the second wax, not in wick sizes", () => {
    const soft = burned("blend", [
      [dose(10), hot],
      [dose(20), hot],
    ]);
    expect(ladderAnswer(soft.plan, soft.state)).toEqual({ isFound: false, says: "10 points of beeswax more: try 30 % beeswax." });
    expect(nextTrial(soft.plan, soft.state)?.varies).toBe("blend");
    const found = burned("blend", [
      [dose(10), hot],
      [dose(20), good],
      [dose(30), good],
    ]);
    expect(ladderAnswer(found.plan, found.state)).toMatchObject({ isFound: true, says: "20 % beeswax is enough." });
  });

  it("answers a load with the least that does well, or with less where all of it soots", () => {
    const load = (percent: number) => ({ loadPpm: percent * 10_000 });
    const found = burned("load", [
      [load(8), good],
      [load(10), good],
      [load(12), sooty],
    ]);
    expect(ladderAnswer(found.plan, found.state)).toMatchObject({ isFound: true, says: "8 % is enough." });
    const all = burned("load", [
      [load(10), sooty],
      [load(12), sooty],
    ]);
    expect(ladderAnswer(all.plan, all.state)).toMatchObject({ isFound: false, says: "2 points less: try 8 %." });
  });

  it("says nothing where something else is varied, or nothing has burned", () => {
    const wick = burned("wick size", [[{}, good]]);
    expect(ladderAnswer(wick.plan, wick.state)).toBeNull();
    const { plan, state } = aTrial({ ...aTrialPlan([aTestCandle("A1"), aTestCandle("B1")]), varies: "load" }).now();
    expect(ladderAnswer(plan, state)).toBeNull();
  });
});
