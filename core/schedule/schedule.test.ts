import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { byTrying, faultsOf } from "../testing/schedule";
import { answering, answerSchedule } from "./answer";
import { type ScheduleRequest, scheduleRequest } from "./request";

/** The job shop FT06 of Fisher and Thompson (1963), as (machine, duration); from memory. Its least makespan is 55. */
const FT06 = [
  "2 1 0 3 1 6 3 7 5 3 4 6",
  "1 8 2 5 4 10 5 10 0 10 3 4",
  "2 5 3 4 5 8 0 9 1 1 4 7",
  "1 5 0 5 2 5 3 3 4 8 5 9",
  "2 9 1 3 4 5 5 4 0 3 3 1",
  "1 3 3 3 5 9 0 10 4 4 2 1",
];
const ft06 = (): ScheduleRequest =>
  scheduleRequest.parse({
    resources: Object.fromEntries(Array.from({ length: 6 }, (_, m) => [`m${m}`, 1])),
    jobs: FT06.map((row, j) => {
      const numbers = row.split(" ").map(Number);
      return { id: `j${j}`, steps: Array.from({ length: 6 }, (_, k) => ({ id: `s${k}`, minutes: numbers[2 * k + 1], needs: { [`m${numbers[2 * k]}`]: 1 } })) };
    }),
    seconds: 30,
  });

/** A clock that counts how often it was looked at: the same work whatever the machine. */
const counted = () => {
  let at = 0;
  return () => ++at;
};

/** Pots with one pair of hands, burners that stay taken, and a window in which each has to be poured. */
const pots = (many: number, more: object = {}, due: number | null = null): ScheduleRequest =>
  scheduleRequest.parse({
    resources: { hands: 1, burner: 2, pitcher: 4 },
    jobs: Array.from({ length: many }, (_, n) => ({
      id: `pot ${n + 1}`,
      due: due && due * (n + 1),
      steps: [
        { id: "weigh", minutes: 6 + (n % 3), needs: { hands: 1, pitcher: 1 }, keeps: ["pitcher"], wait: { min: 0, max: 60 } },
        { id: "melt", minutes: 18 + (n % 4) * 2, needs: { burner: 1, pitcher: 1 }, keeps: ["burner", "pitcher"], wait: { min: 0, max: 8 } },
        { id: "add and stir", minutes: 4, needs: { hands: 1, pitcher: 1 }, keeps: ["pitcher"], wait: { min: 12 + (n % 2) * 6, max: 24 + (n % 2) * 6 } },
        { id: "pour", minutes: 7, needs: { hands: 1, pitcher: 1 }, wait: { min: 45 } },
        { id: "clear", minutes: 3, needs: { hands: 1 } },
      ],
    })),
    ...more,
  });

const someStep = fc.record({
  minutes: fc.integer({ min: 0, max: 3 }),
  needs: fc.record({ hands: fc.integer({ min: 0, max: 1 }), burner: fc.integer({ min: 0, max: 2 }) }),
  wait: fc.record({ min: fc.integer({ min: 0, max: 2 }), more: fc.option(fc.integer({ min: 0, max: 2 })) }),
  keeps: fc.subarray(["hands", "burner"]),
  at: fc.option(fc.integer({ min: 0, max: 9 }), { freq: 2 }),
});
const instance = fc.record({
  burner: fc.integer({ min: 1, max: 2 }),
  jobs: fc.array(
    fc.record({
      release: fc.integer({ min: 0, max: 2 }),
      due: fc.option(fc.integer({ min: 1, max: 6 })),
      steps: fc.array(someStep, { minLength: 1, maxLength: 2 }),
    }),
    { minLength: 1, maxLength: 3 },
  ),
  objective: fc.constantFrom("makespan" as const, "lateness" as const),
});
/** A small request; with what is held to its time, or without. */
const smallRequest = (item: Parameters<Parameters<typeof instance.map>[0]>[0], held: boolean): ScheduleRequest =>
  scheduleRequest.parse({
    resources: { hands: 1, burner: item.burner },
    objective: item.objective,
    jobs: item.jobs.map((each, j) => ({
      id: `j${j}`,
      release: each.release,
      due: each.due,
      steps: each.steps.map(({ wait, at, ...s }, k) => ({
        id: `s${k}`,
        ...s,
        ...(held ? { at } : {}),
        wait: { min: wait.min, max: wait.more === null ? null : wait.min + wait.more },
      })),
    })),
  });

describe("a timetable", () => {
  it("of the job shop FT06 ends after 55 and is proved", () => {
    const request = ft06();
    const answer = answerSchedule(request, () => performance.now());
    expect(faultsOf(request, answer)).toEqual([]);
    expect(answer).toMatchObject({ makespan: 55, lower_bound: 55, proved_optimal: true });
  });

  it("is as good as trying every minute finds, with windows and with what stays taken", () => {
    let compared = 0;
    fc.assert(
      fc.property(instance, (item) => {
        const request = smallRequest(item, false);
        const answer = answerSchedule(request, counted());
        // More burners than there are is the only wish among these that cannot be.
        const over = item.burner < 2 && item.jobs.some((each) => each.steps.some((s) => s.needs.burner === 2));
        expect(answer.infeasible !== undefined).toBe(over);
        if (over) return;
        expect(faultsOf(request, answer)).toEqual([]);
        expect(answer.proved_optimal).toBe(true);
        compared += 1;
        expect(item.objective === "makespan" ? answer.makespan : answer.total_lateness).toBe(byTrying(request, Math.max(20, answer.makespan)));
      }),
      { numRuns: 400, seed: 8 },
    );
    expect(compared).toBeGreaterThan(150);
  });

  it("keeps what is held to its time, is then as good as can be, and says where that cannot be", () => {
    const seen = { kept: 0, none: 0 };
    fc.assert(
      fc.property(instance, (item) => {
        const request = smallRequest(item, true);
        const answer = answerSchedule(request, counted());
        const over = item.burner < 2 && item.jobs.some((each) => each.steps.some((s) => s.needs.burner === 2));
        const least = over ? null : byTrying(request, 34);
        expect(answer.infeasible === undefined).toBe(least !== null);
        if (answer.infeasible) {
          seen.none += 1;
          expect(answer.infeasible.reason).not.toBe("");
          return;
        }
        seen.kept += 1;
        expect(faultsOf(request, answer)).toEqual([]);
        expect(item.objective === "makespan" ? answer.makespan : answer.total_lateness).toBe(least);
      }),
      { numRuns: 400, seed: 8 },
    );
    expect(Math.min(seen.kept, seen.none)).toBeGreaterThan(30);

    // A pour that is held where the wax would have set says when it could be.
    const request = pots(1);
    const job = request.jobs[0] as ScheduleRequest["jobs"][number];
    const held = (times: Record<string, number>): ScheduleRequest => ({
      ...request,
      jobs: [{ ...job, steps: job.steps.map((step) => ({ ...step, at: times[step.id] ?? null })) }],
    });
    expect(answerSchedule(held({ "add and stir": 30, pour: 80 }), counted()).infeasible).toMatchObject({ step: "pour", window: { from: 46, to: 58 } });
    const kept = held({ "add and stir": 30, pour: 50 });
    expect(faultsOf(kept, answerSchedule(kept, counted()))).toEqual([]);
  });

  it("keeps every window of a day at the pots, staggers what one pair of hands cannot do at once, and says a bound that holds", () => {
    for (const request of [pots(12), pots(5, { objective: "lateness" }, 60)]) {
      const found: number[] = [];
      for (const { found: state, answer } of answering({ ...request, seconds: 1.5 }, () => performance.now())) {
        if (state.value !== found.at(-1)) expect(faultsOf(request, answer())).toEqual([]);
        found.push(state.value);
      }
      // It only ever gets better, and whoever leaves early has one that can be kept.
      expect(found).toEqual([...found].sort((a, b) => b - a));
    }
    // Hands alone: 12 pots of 6, 7 or 8 + 4 + 7 + 3 minutes.
    const twelve = answerSchedule({ ...pots(12), seconds: 1 }, () => performance.now());
    expect(twelve.lower_bound).toBeGreaterThanOrEqual(12 * 21);
  });

  it("says what cannot be, and at which step", () => {
    const asked = (steps: object[], resources: object = { hands: 1, burner: 1 }) =>
      answerSchedule(scheduleRequest.parse({ resources, jobs: [{ id: "a", steps }] }), counted());
    expect(asked([{ id: "melt", minutes: 5, needs: { burner: 2 } }]).infeasible).toEqual({
      reason: "“melt” of “a” needs 2 of burner, and there is 1.",
      job: "a",
      step: "melt",
      resource: "burner",
    });
    const wait = [
      { id: "add", minutes: 5, wait: { min: 10, max: 5 } },
      { id: "pour", minutes: 5 },
    ];
    expect(asked(wait).infeasible).toMatchObject({ step: "add", reason: expect.stringContaining("at least 10 and at most 5") });
    expect(
      asked(
        [
          { id: "x", minutes: 1, keeps: ["burner"] },
          { id: "y", minutes: 1 },
        ],
        { burner: 0 },
      ).infeasible,
    ).toMatchObject({ step: "x", resource: "burner" });
    // Nothing to do is done.
    expect(answerSchedule(scheduleRequest.parse({ resources: {}, jobs: [] }), counted())).toMatchObject({ steps: [], makespan: 0, proved_optimal: true });
  });

  it("refuses what it cannot mean, at its place", () => {
    const job = { id: "a", steps: [{ id: "x", minutes: 1 }] };
    const faults = (request: object) => scheduleRequest.safeParse(request).error?.issues.map((issue) => issue.path.join(".")) ?? [];
    expect(faults({ resources: {}, jobs: [job, job] })).toEqual(["jobs.1.id"]);
    expect(faults({ resources: {}, jobs: [{ id: "a", steps: [{ id: "x", minutes: 1, needs: { oven: 1 } }] }] })).toEqual(["jobs.0.steps.0"]);
    expect(faults({ resources: {}, jobs: [{ id: "a", steps: [{ id: "x", minutes: 1.5 }] }] })).toEqual(["jobs.0.steps.0.minutes"]);
    expect(faults({ resources: { oven: -1 }, jobs: [] })).toEqual(["resources.oven"]);
    expect(faults({ resources: {}, jobs: [{ id: "a", steps: [] }] })).toEqual(["jobs.0.steps"]);
    expect(faults({ resources: {}, jobs: [], seconds: 31 })).toEqual(["seconds"]);
  });
});
