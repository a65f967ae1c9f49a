import { describe, expect, it } from "vitest";
import { batchOf } from "../../batch/batch";
import { dueOf, progress } from "../../batch/phase";
import { jobOfPot } from "../../day/job";
import type { DayPot } from "../../day/pots";
import { withChange } from "../../diagnosis/change";
import { diagnosisOf } from "../../diagnosis/of-batch";
import { learnedFrom } from "../../forecast/forecast-view";
import { forecastTarget } from "../../forecast/watch";
import { aBatch, at, presetProcess } from "../../testing/batch";
import { bandsOf, recorderOf, type Step, timesOf } from "../process";
import { type Process, process } from "../schema";

const RANGE = { low: 4_500, high: 5_000 };
/** The process for soy, with tempering at 45 to 50 °C for ten minutes in place of cooling to the pour. */
const tempered = (): Process => {
  const soy = presetProcess("soy-bind-hot");
  return process.parse({ ...soy, steps: soy.steps.map((step) => (step.id === "cool" ? { id: "temper", kind: "temper", range: RANGE, seconds: 600 } : step)) });
};
const pot: DayPot = {
  key: "a",
  formulaId: "f",
  formulaName: "Rain",
  process: tempered(),
  components: 2,
  totalMg: 1_000_000,
  jars: 6,
  lines: [],
};

/** A batch that is tempered, weighed, with its oil in at 85 °C. */
function aTempered() {
  const batch = aBatch();
  const [start] = batch.events;
  if (start?.kind !== "started") throw new Error("No start.");
  start.payload = { ...start.payload, plan: { ...start.payload.plan, process: tempered() } };
  batch.weigh(batch.wax, 127_000);
  batch.weigh(batch.oil, 13_000);
  batch.read("heat", 8_500);
  batch.read("add", 8_500);
  batch.add({ kind: "stirred", payload: { step: "stir", seconds: 120 } });
  const read = (minute: number, celsius: number) =>
    batch.add({ kind: "read", payload: { step: "temper", shown: celsius * 100, correction: 0 } }, { happenedAt: at(minute), arrivedAt: at(minute) });
  return { batch, read, now: () => batchOf(batch.events) };
}

describe("tempering", () => {
  it("is planned from its own range: one fall from the oil to 45–50 °C, and so many minutes on the burner", () => {
    const { job, steps } = jobOfPot(pot);
    expect(steps.map((step) => step.name)).toEqual(["weigh", "heat", "add and stir", "temper and pour"]);
    // From 71 °C after the oil to 50 and to 45 °C in a room of 21 °C: 85 ln(50/29) = 46.3 and 85 ln(50/24) = 62.4 minutes.
    expect(job.steps[2]?.wait).toEqual({ min: 47, max: 62 });
    expect(job.steps[3]).toMatchObject({ minutes: 1 + 10 + 2 + 6 / 3, needs: { hands: 1, burner: 1, pitcher: 1 } });
    expect(steps[3]?.after).toBe(47.5);
  });

  it("counts its time from the first reading inside the range, anew once the pot has left it", () => {
    const { read, now } = aTempered();
    const hold = () => {
      const { plan, state } = now();
      const { prompts } = progress(plan, state);
      const prompt = prompts.find((prompt) => prompt.key === "temper:hold");
      return prompt && dueOf(prompts, prompt)?.from;
    };
    read(30, 49);
    read(34, 47);
    expect(hold()).toBe(at(40));
    read(36, 44);
    read(38, 46);
    expect(hold()).toBe(at(48));
  });

  it("is foreseen on the way to its range, drawn as a range, and recorded as what was poured at", () => {
    const { batch, read, now } = aTempered();
    read(12, 65);
    const { plan, state } = now();
    expect(forecastTarget(plan, state)).toMatchObject({ name: "temper", range: RANGE, heating: false });
    expect(bandsOf(plan.process).map((band) => band.name)).toEqual(["heat", "add", "temper"]);
    for (const [minute, celsius] of [
      [20, 55],
      [30, 49],
      [35, 48],
      [40, 46],
    ] as const)
      read(minute, celsius);
    batch.add({ kind: "stepDone", payload: { step: "temper" } });
    batch.pour();
    const done = now();
    const { record, ranges } = diagnosisOf(done.plan, done.state, done.state.lastAt);
    expect([record.pour_c, ranges.pour_c]).toEqual([46, [45, 50]]);
    // How it fell while it was kept warm tells nothing of how pots cool.
    expect(learnedFrom(done.plan, done.state)).toBeNull();
    expect(timesOf(done.plan.process)).toEqual(timesOf(presetProcess("soy-bind-hot")));
  });

  it("after cooling is what the pour is measured by, and what a change of the pour changes", () => {
    const soy = presetProcess("soy-bind-hot");
    const cool = soy.steps.find((step) => step.id === "cool") as Step;
    const both = process.parse({ ...soy, steps: tempered().steps.flatMap((step) => (step.id === "temper" ? [cool, step] : [step])) });
    expect(recorderOf(both.steps, "pour_c")?.id).toBe("temper");
    expect(recorderOf(both.steps, "add_c")?.id).toBe("add");
    const spec = { waxes: [{ id: "w", share: 1 }], fragrances: [], basis: "wax" as const, loadPpm: 0, notes: "", process: both };
    const changed = withChange(spec, { what: "pour_c", from: 52, to: 48, why: "" }, "batch 7").process.steps;
    expect(changed.filter((step, index) => step !== both.steps[index])).toEqual([
      { id: "temper", kind: "temper", range: { low: 4_650, high: 4_950 }, seconds: 600 },
    ]);
  });

  it("of several pots is of the first that has such an act, also where that is not the first pot", () => {
    const later = presetProcess("soy-bind-hot").steps.map((step) => ({ ...step, pot: 1 }));
    expect(recorderOf(later, "add_c")).toBe(later.find((step) => step.id === "add"));
  });
});
