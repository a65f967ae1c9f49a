import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { PRESET_PROCESSES } from "../process/presets/ready";
import { answerSchedule } from "../schedule/answer";
import { scheduleRequest } from "../schedule/request";
import { presetProcess } from "../testing/batch";
import { faultsOf } from "../testing/schedule";
import { coolingMinutes, dropByOil } from "./cooling";
import { choresOf, heatOf, lanesOf, movesOf, requestOfDay, rowsOf, workOfDay } from "./day";
import { jobOfPot } from "./job";
import { type DayPot, gatherPots, type Wanted } from "./pots";
import { readinessOf } from "./ready";
import { type DayRecord, dayRecord } from "./record";

const wanted = (over: Partial<Wanted>): Wanted => ({
  productId: "p",
  name: "tumbler",
  count: 10,
  fillMg: 180_000,
  formulaId: "f",
  formulaName: "Rain",
  process: presetProcess("soy-bind-hot"),
  components: 2,
  ...over,
});
const pot = (process: string, over: Partial<DayPot> = {}): DayPot => ({
  key: process,
  formulaId: "f",
  formulaName: "Rain",
  process: presetProcess(process),
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
    expect(pots.map((pot) => [pot.formulaName, pot.jars, pot.totalMg])).toEqual([
      ["Rain, 1 of 2", 9, Math.round((5 * 180_000 + 4 * 12_500) * 1.05)],
      ["Rain, 2 of 2", 8, Math.round((5 * 180_000 + 3 * 12_500) * 1.05)],
      ["Hay", 3, 567_000],
    ]);
    for (const pot of pots) expect(pot.totalMg).toBeLessThanOrEqual(1_000_000);
    // Three jars of 400 g do not go into two pots of 700 g, though their weight would.
    expect(gatherPots([wanted({ count: 3, fillMg: 400_000 })], 700_000, 0).map((gatherPot) => gatherPot.jars)).toEqual([1, 1, 1]);
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
          const all = lines.map((line, index) => wanted({ ...line, productId: `p${index}`, name: `p${index}` }));
          const pots = gatherPots(all, pitcher, spare);
          for (const [index, item] of all.entries()) {
            const made = pots.flatMap((each) => each.lines.filter((other) => other.name === `p${index}`)).reduce((sum, other) => sum + other.count, 0);
            expect(made).toBe(item.count);
          }
          for (const each of pots) {
            expect(each.jars).toBe(each.lines.reduce((sum, item) => sum + item.count, 0));
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
  const soy = presetProcess("soy-bind-hot");
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
    expect(steps.map((step) => step.name)).toEqual(["weigh", "heat", "add and stir", "cool and pour"]);
    expect(steps.map((step) => [step.hands, step.heats])).toEqual([
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

  it("keeps the waits of molds and layers: holes and a second pour within their time", () => {
    const { job, steps } = jobOfPot(pot("pillar-glossy"));
    const names = steps.map((step) => step.name);
    expect(names.join(" › ")).toMatch(/pour › .*pierce.* › .*pour again/);
    const first = job.steps[names.findIndex((name) => name.includes("pour"))];
    // Two hours until the holes: common practice, no source.
    expect(first?.wait.min).toBeGreaterThanOrEqual(60);
  });

  it("of every ready process fits into a day that keeps all its windows", () => {
    for (const preset of PRESET_PROCESSES) {
      const work = [1, 2].map((number) => {
        const item = { ...pot(preset.id, { key: `${preset.id} ${number}` }), number };
        return { pot: item, ...jobOfPot(item) };
      });
      const request = scheduleRequest.parse(requestOfDay(dayRecord.parse({ hands: 1, burners: 1, pitchers: 2 }), work, 1));
      const answer = answerSchedule({ ...request, seconds: 0.2 }, () => performance.now());
      expect(answer.infeasible, preset.id).toBeUndefined();
      expect(faultsOf(request, answer), preset.id).toEqual([]);
    }
  });
});

describe("a day at the pots", () => {
  const making = [
    { ...wanted({}), wicked: true },
    { ...wanted({ productId: "q", name: "pillar", formulaId: "g", formulaName: "Hay", process: presetProcess("pillar-glossy") }), wicked: true },
  ];
  const day = dayRecord.parse({ counts: {}, hands: 1, burners: 2, pitchers: 4 });
  const record = { ...day, counts: { p: 14, q: 4 } };
  const planned = (of: DayRecord) => {
    const work = workOfDay(of, making);
    const request = scheduleRequest.parse(requestOfDay(of, work, 1));
    const answer = answerSchedule({ ...request, seconds: 0.4 }, () => performance.now());
    return { work, request, answer, rows: rowsOf(work, answer) };
  };

  it("keeps what is held, breaks and losses, and says what moved", () => {
    const first = planned(record);
    expect(first.rows.map((row) => row.number)).toEqual([1, 2, 3]);
    const [row] = first.rows;
    const add = row?.steps.find((step) => step.name.includes("add"));
    if (!row || !add) throw new Error("nothing is added");
    const held = {
      ...record,
      held: { [`${row.key}/${add.id}`]: add.start + 12 },
      breaks: [{ from: 150, minutes: 30 }],
      lost: [{ of: "burner" as const, from: 0 }],
    };
    const then = planned(held);
    expect(faultsOf(then.request, then.answer)).toEqual([]);
    expect(then.rows.find((day) => day.key === row.key)?.steps.find((step) => step.id === add.id)?.start).toBe(add.start + 12);
    for (const step of then.rows.flatMap((row) => row.steps)) if (step.hands) expect(step.end <= 150 || step.start >= 180, step.name).toBe(true);
    expect(Math.max(...lanesOf(then.work, then.rows, "burner").map((lane) => lane.length))).toBe(3);
    expect(lanesOf(then.work, then.rows, "burner")).toHaveLength(1);
    // The day itself is as long as its pots, not as what was lost for good.
    expect(then.answer.makespan).toBe(Math.max(...then.rows.flatMap((row) => row.steps.map((step) => step.end))));
    const moves = movesOf(first.rows, then.rows);
    expect(moves).toContainEqual({ number: row.number, name: row.name, step: add.name, from: add.start, to: add.start + 12 });
    // A pot that was abandoned is gone, and the others keep their numbers.
    expect(planned({ ...record, gone: { [row.key]: 30 } }).rows.map((row) => row.number)).toEqual([2, 3]);
  });

  it("wicks and weighs oils where hands are free and before they are needed, or before the day begins", () => {
    const { work, rows } = planned(record);
    const chores = choresOf(work, rows, day);
    expect(chores.map((chore) => chore.name)).toContain("wick the jars");
    const busy = new Map<number, number>();
    const take = (from: number, to: number) => {
      for (let at = from; at < to; at++) busy.set(at, (busy.get(at) ?? 0) + 1);
    };
    for (const row of rows) for (const step of row.steps) if (step.hands) take(step.start, step.end);
    for (const chore of chores) for (const part of chore.parts) take(part.start, part.end);
    expect(Math.max(...busy.values())).toBe(1);
    for (const item of chores) {
      const dayWork = work.find((other) => other.pot.number === item.number);
      const chore = dayWork?.chores.find((other) => item.key.endsWith(other.kind));
      const by = rows.find((row) => row.number === item.number)?.steps.find((step) => step.id === chore?.before)?.start ?? 0;
      expect(item.parts.reduce((sum, part) => sum + part.end - part.start, 0)).toBe(chore?.minutes);
      for (const part of item.parts) expect(part.end).toBeLessThanOrEqual(Math.max(0, by));
    }
    // What no pot waits for is labeled in what time is left, and never before the day.
    const labels = choresOf(work, rows, day, [{ number: 9, title: "Hay", pieces: 10 }]).find((chore) => chore.key === "label 9");
    expect(labels?.of).toBe("batch 9, Hay");
    expect(labels?.parts.reduce((sum, part) => sum + part.end - part.start, 0)).toBeLessThanOrEqual(5);
    expect(labels?.parts[0]?.start).toBeGreaterThanOrEqual(0);
    // With no time at all in between, all of it is done before the day begins.
    const none = choresOf(work, rows, { hands: 1, breaks: [{ from: 0, minutes: 2_000 }] });
    for (const part of none.flatMap((chore) => chore.parts)) expect(part.end).toBeLessThanOrEqual(0);
  });

  it("draws each pot warm from its burner on, and inside its ranges when it is added to and poured", () => {
    const { work, rows } = planned(record);
    for (const row of rows) {
      const dayWork = work.find((work) => work.pot.key === row.key);
      const points = heatOf(row, dayWork?.pot.totalMg ?? 0);
      for (const [index, point] of points.entries()) expect(point.minute).toBeGreaterThanOrEqual(points[index - 1]?.minute ?? 0);
      const process = dayWork?.pot.process;
      const heat = process?.steps.find((processStep) => processStep.kind === "heat");
      const cool = process?.steps.find((processStep) => processStep.kind === "cool");
      const hot = Math.max(...points.map((point) => point.celsius)) * 100;
      if (heat && "range" in heat && heat.range) {
        expect(hot).toBeGreaterThanOrEqual(heat.range.low);
        expect(hot).toBeLessThanOrEqual(heat.range.high);
      }
      const pour = row.steps.find((step) => step.name.includes("pour"));
      const poured = points.findLast((point) => point.minute === pour?.start);
      if (cool && "range" in cool && cool.range && poured) {
        expect(poured.celsius * 100).toBeGreaterThanOrEqual(cool.range.low - 50);
        expect(poured.celsius * 100).toBeLessThanOrEqual(cool.range.high + 50);
      }
    }
  });

  it("of any wish keeps what was held, breaks and losses, or says which step cannot", () => {
    const seen = { kept: 0, none: 0 };
    const wish = fc.record({
      p: fc.integer({ min: 1, max: 16 }),
      q: fc.integer({ min: 0, max: 4 }),
      hands: fc.integer({ min: 1, max: 2 }),
      held: fc.array(fc.record({ pot: fc.nat(2), step: fc.nat(4), by: fc.integer({ min: -20, max: 60 }) }), { maxLength: 2 }),
      breaks: fc.array(fc.record({ from: fc.integer({ min: 0, max: 120 }), minutes: fc.integer({ min: 1, max: 30 }) }), { maxLength: 1 }),
      lost: fc.array(fc.record({ of: fc.constantFrom("burner" as const, "pitcher" as const), from: fc.integer({ min: 0, max: 60 }) }), { maxLength: 1 }),
    });
    fc.assert(
      fc.property(wish, ({ p, q, hands, held, breaks, lost }) => {
        const plain = { ...day, hands, counts: q > 0 ? { p, q } : ({ p } as Record<string, number>) };
        const { rows } = planned(plain);
        const at = Object.fromEntries(
          held.flatMap(({ pot, step, by }) => {
            const row = rows[pot % rows.length];
            const placedStep = row?.steps[step % row.steps.length];
            return row && placedStep ? [[`${row.key}/${placedStep.id}`, Math.max(0, placedStep.start + by)]] : [];
          }),
        );
        const then = planned({ ...plain, held: at, breaks, lost });
        if (then.answer.infeasible) {
          seen.none += 1;
          expect(
            then.work.some((work) => work.pot.key === then.answer.infeasible?.job) ||
              then.answer.infeasible.job.startsWith("break") ||
              then.answer.infeasible.job.startsWith("lost"),
          ).toBe(true);
          return;
        }
        seen.kept += 1;
        expect(faultsOf(then.request, then.answer)).toEqual([]);
        for (const [key, minute] of Object.entries(at)) {
          const row = then.rows.find((row) => key.startsWith(`${row.key}/`));
          expect(row?.steps.find((step) => `${row.key}/${step.id}` === key)?.start).toBe(minute);
        }
      }),
      { numRuns: 20, seed: 3 },
    );
    expect(Math.min(seen.kept, seen.none)).toBeGreaterThan(1);
  });
});
