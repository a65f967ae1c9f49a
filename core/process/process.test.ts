import { describe, expect, it } from "vitest";
import { batchOf } from "../batch/batch";
import { fillsByPot, fillsByPour } from "../batch/fills";
import { cureClocks, cureTimes, dueOf, progress } from "../batch/phase";

import { writeRange } from "../heat/range";
import { layerFills } from "../product/parts";
import { aBatch, anId, aPlan, at, presetProcess } from "../testing/batch";
import { inUnit, PRESET_PROCESSES, processFrom } from "./presets/ready";
import { potsOf, type Step } from "./process";
import { promptsOf } from "./prompts";
import { process, step } from "./schema";
import { STEP_TYPES } from "./steps";
import { processOfProfile } from "./upcast";

const ids = () => ({ wax: anId(), oil: anId(), vessel: anId() });

describe("ready-made processes: common practice, no source", () => {
  it.each(PRESET_PROCESSES.map((preset) => [preset.id, preset] as const))("%s holds to the schema, with a reason", (_id, preset) => {
    expect(process.safeParse(processFrom(preset)).error?.issues ?? []).toEqual([]);
    expect(preset.reason).not.toBe("");
    // Every entry names its step: the steps of a plan have keys of their own.
    const plan = aPlan({ ...ids(), process: preset.id, pots: potsOf(preset.steps) });
    const keys = promptsOf(plan).map((prompt) => prompt.key);
    expect(new Set(keys).size).toBe(keys.length);
  });

  it("are there for every family of wax and every kind of container, each with a name of its own", () => {
    expect([...new Set(PRESET_PROCESSES.flatMap((preset) => preset.families))].sort()).toEqual([
      "beeswax",
      "blend",
      "coconut",
      "gel",
      "palm",
      "paraffin",
      "paraffin–soy",
      "soy",
    ]);
    expect([...new Set(PRESET_PROCESSES.map((preset) => preset.makes))].sort()).toEqual(["gel", "jar", "layers", "melts", "pillar", "tealights"]);
    expect(new Set(PRESET_PROCESSES.map((preset) => preset.name)).size).toBe(PRESET_PROCESSES.length);
  });

  it("stay under the scorch of 93.3 °C / 200 °F, but palm, gel and the hot coconut blend", () => {
    const above = PRESET_PROCESSES.filter((preset) => preset.ceiling > 9_333).map((preset) => preset.id);
    expect(above.sort()).toEqual(["coconut-soy-hot", "gel", "gel-embeds", "gel-split", "palm"]);
  });

  it("read as whole degrees in °F: 135–145 and 200, never 199.9", () => {
    for (const preset of PRESET_PROCESSES) {
      const { steps, ceiling } = inUnit(processFrom(preset), "F");
      for (const each of steps) if ("range" in each && each.range) expect(writeRange(each.range, "F"), preset.id).toMatch(/^\d+(–\d+)? °F$/);
      expect(writeRange({ low: ceiling, high: ceiling }, "F"), preset.id).toMatch(/^\d+ °F$/);
    }
    const soy = inUnit(presetProcess("soy-bind-hot"), "F");
    const cool = soy.steps.find((step) => step.kind === "cool");
    expect(cool?.kind === "cool" && writeRange(cool.range, "F")).toBe("135–145 °F");
  });
});

describe("a process", () => {
  const soy = presetProcess("soy-bind-hot");
  it.each(STEP_TYPES.map((stepType) => [stepType.kind, stepType] as const))("takes a %s as it is first added", (kind, item) => {
    expect(step.safeParse({ id: "x", kind, ...item.first }).success).toBe(true);
    expect(item.why).not.toBe("");
  });

  it("refuses two acts of one name, pours that do not come to the fill, a pot that nobody weighs, and a cure upside down", () => {
    const faults = (steps: Step[]) => process.safeParse({ ...soy, steps }).error?.issues.map((issue) => issue.message) ?? [];
    expect(faults([...soy.steps, { id: "heat", kind: "pierce" }])).toEqual([expect.stringContaining("called “heat”")]);
    expect(faults(soy.steps.map((step) => (step.kind === "pour" ? { ...step, share: 500_000 } : step)))).toEqual([expect.stringContaining("50 % of the fill")]);
    expect(faults([...soy.steps, { id: "heat-2", kind: "heat", pot: 1, range: { low: 1, high: 2 } }])).toEqual(["Pot 2 is never weighed."]);
    expect(faults(soy.steps.map((step) => (step.kind === "cure" ? { ...step, recommended: 1 } : step)))).toEqual([expect.stringContaining("cure")]);
  });

  it("is what an older profile of three ranges meant", () => {
    const range = (low: number) => ({ low, high: low + 400 });
    const old = {
      name: "mine",
      heat: range(8_300),
      add: range(8_200),
      pour: range(5_700),
      ceiling: 9_330,
      stirSeconds: 90,
      setSeconds: 1,
      leastCureSeconds: 2,
      recommendedCureSeconds: 3,
    };
    expect(process.parse(processOfProfile(old)).steps.map((step) => step.kind)).toEqual(["weigh", "heat", "add", "stir", "cool", "pour", "set", "cure"]);
  });
});

describe("a pillar, from the mold to the shelf", () => {
  it("waits for its film, is pierced, poured again from what was kept, and unmolded", () => {
    const batch = aBatch({ process: "pillar-glossy" });
    const state = () => batch.state(at(9_999));
    batch.weigh(batch.wax, 127_000);
    batch.weigh(batch.oil, 13_000);
    batch.read("heat", 8_000);
    batch.read("add", 7_900);
    batch.add({ kind: "stirred", payload: { step: "stir", seconds: 120 } });
    batch.read("cool", 7_900);
    const pour = batch.pour("pour");
    expect(state()).toMatchObject({ pouredAt: null, next: { key: "wait", least: 7_200, most: 10_800 } });
    const due = dueOf(state().prompts, state().next as never);
    expect(Date.parse(due?.from ?? "") - Date.parse(pour.happenedAt)).toBe(7_200_000);
    for (const step of ["wait", "pierce"]) batch.add({ kind: "stepDone", payload: { step } });
    expect(state().next).toMatchObject({ key: "pour-again:range", entry: "read" });
    batch.read("pour-again", 7_400);
    expect(state().next).toMatchObject({ key: "pour-again", entry: "poured" });
    const again = batch.pour("pour-again");
    expect(state()).toMatchObject({ pouredAt: again.happenedAt, next: { key: "wait-2" } });
    for (const step of ["wait-2", "unmold", "finish"]) batch.add({ kind: "stepDone", payload: { step } });
    expect(state().next).toBeNull();
    // The container and wick are drawn by the first pour only.
    expect(batchOf(batch.events).state.drawn[batch.vessel]?.amount).toBe(10);
  });
});

describe("layers from two pots", () => {
  it("weigh each pot by what its layer holds, and keep the same wax in two pots apart", () => {
    const batch = aBatch({ process: "straight-layers", pots: 2 });
    const { plan } = batch.state(at(1));
    expect(plan.pots.map((pot) => pot.totalMg)).toEqual([70_000, 70_000]);
    batch.weigh(batch.wax, 64_000, 0);
    const prompts = batch.state(at(9)).prompts.filter((prompt) => prompt.component?.id === batch.wax);
    expect(prompts.map((prompt) => [prompt.pot, prompt.done])).toEqual([
      [0, true],
      [1, false],
    ]);
    expect(progress(plan, batch.state(at(9)).state).next?.key).toBe(`weigh:0:${batch.oil}`);
  });

  it("weigh less low in a narrowing jar, where they are of equal height", () => {
    const jar = { top: 80, bottom: 60, height: 90 };
    const byPot = fillsByPot(presetProcess("straight-layers"), jar, 200_000, 0);
    expect(byPot).toEqual(layerFills(jar, 200_000, 2));
    expect(byPot[0] ?? 0).toBeLessThan(byPot[1] ?? 0);
    expect([...fillsByPour(presetProcess("pillar-rustic"), jar, 262_000, 0).values()]).toEqual([235_800, 26_200]);
  });
});

describe("the cure of what is in jars and in molds", () => {
  const [jar, mold] = (["vessel", "mold"] as const).map((container) => ({ container })) as never[];
  const poured = "2026-03-01T10:00:00.000Z";

  it("is one clock where both go by the same steps, and the longest of two is that of the batch", () => {
    for (const preset of PRESET_PROCESSES) {
      const made = processFrom(preset);
      expect(cureClocks({ process: made, products: [jar] as never[] }, poured)).toHaveLength(1);
      const clocks = cureClocks({ process: made, products: [jar, mold] as never[] }, poured);
      const latest = clocks
        .map(({ times }) => times.sellFrom)
        .sort()
        .at(-1);
      expect(latest, preset.name).toBe(cureTimes(poured, made).sellFrom);
    }
  });

  it("is a clock each where a step is for one of them only", () => {
    const made = presetProcess("soy-bind-hot");
    const steps = made.steps.flatMap((each): Step[] =>
      each.kind === "cure"
        ? [
            { ...each, id: "cure-jars", only: "vessels", least: 7 * 86_400, recommended: 14 * 86_400 },
            { ...each, id: "cure-molds", only: "molds", least: 86_400, recommended: 2 * 86_400 },
          ]
        : [each],
    );
    const clocks = cureClocks({ process: { ...made, steps }, products: [jar, mold] as never[] }, poured);
    expect(clocks.map(({ of, times }) => [of, times.sellFrom])).toEqual([
      ["vessels", "2026-03-15T10:00:00.000Z"],
      ["molds", "2026-03-03T10:00:00.000Z"],
    ]);
  });
});
