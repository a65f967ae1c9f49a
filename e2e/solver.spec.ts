import { answerSchedule, type ScheduleRequest, scheduleRequest } from "@hearth/core";
import { ft06 } from "../web/testing/shops";
import { chuffed, constraintsOf } from "./solver";
import { expect, test } from "./support";

/** A small day, invented from a number: pots with windows, burners that stay taken, a step that is held. */
function smallDay(seed: number): ScheduleRequest {
  let state = seed;
  const between = (low: number, high: number) => {
    state = (state * 1_103_515_245 + 12_345) & 0x7fffffff;
    return low + ((state >> 8) % (high - low + 1));
  };
  return scheduleRequest.parse({
    resources: { hands: 1, burner: 1 + (seed % 2), pitcher: 2 },
    seconds: 5,
    jobs: Array.from({ length: 4 }, (_, n) => ({
      id: `pot ${n + 1}`,
      release: between(0, 12),
      steps: [
        { id: "weigh", minutes: between(3, 6), needs: { hands: 1, pitcher: 1 }, keeps: ["pitcher"], wait: { min: 0, max: 30 } },
        { id: "melt", minutes: between(10, 16), needs: { burner: 1, pitcher: 1 }, keeps: ["burner", "pitcher"], wait: { min: 0, max: between(3, 9) } },
        { id: "add", minutes: 3, needs: { hands: 1, pitcher: 1 }, keeps: ["pitcher"], wait: { min: between(4, 8), max: between(9, 16) } },
        { id: "pour", minutes: between(3, 7), needs: { hands: 1, pitcher: 1 }, ...(n === 2 ? { at: 90 } : {}) },
      ],
    })),
  });
}

// Chuffed, a constraint solver that is not ours, in the build that the package `minizinc` carries for browsers.
test("timetables end when a constraint solver says that they can end at best, with windows and with what is held", async ({ page }) => {
  for (const [name, request, horizon] of [
    ["job shop FT06", ft06(), 120],
    ...[1, 2, 3, 4].map((seed) => [`day ${seed}`, smallDay(seed), 400] as const),
  ] as const) {
    const ours = answerSchedule(request, () => performance.now());
    const theirs = await chuffed(page, constraintsOf(request, horizon), 60);
    expect.soft(theirs.proved, name).toBe(true);
    expect.soft(ours.infeasible, name).toBeUndefined();
    expect.soft(ours.makespan, name).toBe(theirs.ways.at(-1)?.value);
    expect.soft(ours.lower_bound, name).toBeLessThanOrEqual(ours.makespan);
  }
});
