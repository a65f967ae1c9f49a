import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { READY_PROCESSES } from "../process/ready/ready";
import { answerSchedule } from "../schedule/answer";
import { scheduleRequest } from "../schedule/request";
import { readyProcess } from "../testing/batch";
import { faultsOf } from "../testing/schedule";
import { coolingMinutes, dropByOil } from "./cooling";
import { dayRequest, jobOfPot } from "./job";
import { type DayPot, gatherPots, type Wanted } from "./pots";
import { readinessOf } from "./ready";

const wanted = (over: Partial<Wanted>): Wanted => ({
  productId: "p",
  name: "tumbler",
  count: 10,
  fillMg: 180_000,
  formulaId: "f",
  formulaName: "Rain",
  process: readyProcess("soy-bind-hot"),
  components: 2,
  ...over,
});
const pot = (process: string, over: Partial<DayPot> = {}): DayPot => ({
  key: process,
  formulaId: "f",
  formulaName: "Rain",
  process: readyProcess(process),
  components: 2,
  totalMg: 1_000_000,
  jars: 6,
  lines: [],
  ...over,
});

describe("a pot that cools", () => {
  it("follows Newton's law: halfway to the room after ln 2 time constants, whatever it began at", () => {
    // 85 min · ln 2 = 58.9 min for a kilogram from 21 + 64 to 21 + 32; eight times the mass takes twice as long.
    expect(coolingMinutes(85, 53, 1_000_000)).toBeCloseTo(85 * Math.LN2, 6);
    expect(coolingMinutes(61, 41, 1_000_000)).toBeCloseTo(85 * Math.LN2, 6);
    expect(coolingMinutes(85, 53, 8_000_000)).toBeCloseTo(2 * 85 * Math.LN2, 6);
    expect(coolingMinutes(60, 70, 1_000_000)).toBe(0);
    expect(coolingMinutes(60, 20, 1_000_000)).toBe(Number.POSITIVE_INFINITY);
  });

  it("drops by cool oil as makers see it: common practice, no source", () => {
    expect(85 - dropByOil(85)).toBeCloseTo(71, 6);
    for (const celsius of [50, 55]) {
      expect(dropByOil(celsius)).toBeGreaterThanOrEqual(1);
      expect(dropByOil(celsius)).toBeLessThanOrEqual(2.5);
    }
  });
});

describe("what is wanted", () => {
  it("shares a pot by formula, and is split evenly where a pitcher does not hold it, no jar lost", () => {
    const pots = gatherPots(
      [
        wanted({}),
        wanted({ productId: "q", name: "cup", count: 7, fillMg: 12_500 }),
        wanted({ formulaId: "g", formulaName: "Hay", count: 3 }),
        wanted({ formulaId: "h", count: 0 }),
      ],
      1_000_000,
      50_000,
    );
    expect(pots.map((one) => [one.formulaName, one.jars, one.totalMg])).toEqual([
      ["Rain, 1 of 2", 9, Math.round((5 * 180_000 + 4 * 12_500) * 1.05)],
      ["Rain, 2 of 2", 8, Math.round((5 * 180_000 + 3 * 12_500) * 1.05)],
      ["Hay", 3, 567_000],
    ]);
    for (const one of pots) expect(one.totalMg).toBeLessThanOrEqual(1_000_000);
    // Three jars of 400 g do not go into two pots of 700 g, though their weight would.
    expect(gatherPots([wanted({ count: 3, fillMg: 400_000 })], 700_000, 0).map((one) => one.jars)).toEqual([1, 1, 1]);
  });
});

describe("pots of any wish", () => {
  it("hold every jar once, in as few pots as do, and none more than a pitcher unless a single jar does", () => {
    const line = fc.record({ count: fc.integer({ min: 0, max: 60 }), fillMg: fc.integer({ min: 12_000, max: 400_000 }), formulaId: fc.constantFrom("f", "g") });
    fc.assert(
      fc.property(
        fc.array(line, { maxLength: 6 }),
        fc.integer({ min: 300_000, max: 3_000_000 }),
        fc.integer({ min: 0, max: 100_000 }),
        (lines, pitcher, spare) => {
          const all = lines.map((one, at) => wanted({ ...one, productId: `p${at}`, name: `p${at}` }));
          const pots = gatherPots(all, pitcher, spare);
          for (const [at, one] of all.entries()) {
            const made = pots.flatMap((each) => each.lines.filter((other) => other.name === `p${at}`)).reduce((sum, other) => sum + other.count, 0);
            expect(made).toBe(one.count);
          }
          for (const each of pots) {
            expect(each.jars).toBe(each.lines.reduce((sum, one) => sum + one.count, 0));
            expect(each.jars).toBeGreaterThan(0);
            // A jar that is too much alone stands alone; rounding is to the milligram.
            if (each.totalMg > pitcher + 1) expect(each.jars).toBe(1);
          }
          expect(new Set(pots.map((each) => each.key)).size).toBe(pots.length);
        },
      ),
    );
  });
});

describe("what is wanted by a day", () => {
  const soy = readyProcess("soy-bind-hot");
  const poured = "2026-03-14T10:00:00.000Z";

  it("is ready with the recommended cure, only with the minimum, or late, and says until when it had to be poured", () => {
    // Soy, 4 to 14 days: trade practice, no source.
    expect(readinessOf(poured, soy, null)).toMatchObject({ is: "unasked", testFrom: "2026-03-18T10:00:00.000Z", sellFrom: "2026-03-28T10:00:00.000Z" });
    expect(readinessOf(poured, soy, "2026-03-29T00:00:00.000Z")).toMatchObject({ is: "ready", short: 0 });
    expect(readinessOf(poured, soy, "2026-03-28T00:00:00.000Z")).toMatchObject({ is: "minimum", short: 10 * 3_600 });
    expect(readinessOf(poured, soy, "2026-03-16T10:00:00.000Z")).toMatchObject({
      is: "late",
      short: 2 * 86_400,
      latest: { recommended: "2026-03-02T10:00:00.000Z", minimum: "2026-03-12T10:00:00.000Z" },
    });
  });
});

describe("the job of a pot", () => {
  it("holds what is hot on its burner, lets it fall into the pour range and not below, and keeps its pitcher until it is poured", () => {
    const { job, steps } = jobOfPot(pot("soy-bind-hot"));
    expect(steps.map((one) => one.name)).toEqual(["weigh", "heat", "add and stir", "cool and pour"]);
    expect(steps.map((one) => [one.hands, one.heats])).toEqual([
      [true, false],
      [false, true],
      [true, false],
      [true, false],
    ]);
    const [, heat, add, pour] = job.steps;
    expect(heat).toMatchObject({ minutes: Math.round(12 + (1_000_000 / 453_592) * 5), wait: { min: 0, max: 15 }, keeps: ["burner", "pitcher"] });
    // From 85 °C, 14 °C lower by the oil, to 63 and to 57 °C: 85 ln(50/42) = 14.8 and 85 ln(50/36) = 27.9 minutes.
    expect(add).toMatchObject({ minutes: 4, needs: { hands: 1, pitcher: 1 }, wait: { min: 15, max: 27 }, keeps: ["pitcher"] });
    expect(pour?.keeps).toEqual([]);
  });

  it("keeps the waits of moulds and layers: holes and a second pour within their time", () => {
    const { job, steps } = jobOfPot(pot("pillar-glossy"));
    const names = steps.map((one) => one.name);
    expect(names.join(" › ")).toMatch(/pour › .*pierce.* › .*pour again/);
    const first = job.steps[names.findIndex((name) => name.includes("pour"))];
    // Two hours until the holes: common practice, no source.
    expect(first?.wait.min).toBeGreaterThanOrEqual(60);
  });

  it("of every ready process fits into a day that keeps all its windows", () => {
    for (const ready of READY_PROCESSES) {
      const jobs = [1, 2].map((n) => jobOfPot(pot(ready.id, { key: `${ready.id} ${n}` })));
      const request = scheduleRequest.parse(dayRequest(jobs, { hands: 1, burner: 1, pitcher: 2 }, 1));
      const answer = answerSchedule({ ...request, seconds: 0.2 }, () => performance.now());
      expect(answer.infeasible, ready.id).toBeUndefined();
      expect(faultsOf(request, answer), ready.id).toEqual([]);
    }
  });
});
