import { answering, answerSchedule } from "@hearth/core";
import loadHighs, { type Highs } from "highs";
import { beforeAll, describe, expect, it } from "vitest";
import { dayOf, type ft06, programmeOf } from "../testing/shops";

let highs: Highs;
beforeAll(async () => {
  highs = await loadHighs();
});
const clock = () => performance.now();

/** The least makespan that HiGHS proves for the same wish, written as a mixed-integer programme straight from the request. */
const byProgramme = (request: ReturnType<typeof ft06>, horizon: number): number =>
  highs.withModel(programmeOf(request, horizon, highs), (model) => {
    model.options.set({ output_flag: false, mip_rel_gap: 0, mip_abs_gap: 0.5, time_limit: 60 });
    model.run();
    return Math.round(model.getObjectiveValue());
  });

describe("a timetable, against a mixed-integer model in HiGHS", () => {
  it.each([1, 2, 3, 4, 5, 6, 7, 8])("of three pots ends at the same minute, day %i", (seed) => {
    const request = dayOf(3, seed);
    const answer = answerSchedule(request, clock);
    expect(answer.proved_optimal).toBe(true);
    expect(byProgramme(request, answer.makespan + 30)).toBe(answer.makespan);
    // One minute less is not to be had.
    expect(answer.lower_bound).toBe(answer.makespan);
  });

  it("with a burner less never ends sooner, and with one more never later", () => {
    for (const seed of [1, 2, 3]) {
      const [item, two, three] = [1, 2, 3].map((burner) => {
        const request = dayOf(4, seed);
        const answer = answerSchedule({ ...request, resources: { ...request.resources, burner }, seconds: 3 }, clock);
        return answer;
      });
      // Bounds and ends hold one another, whether or not the best was proved.
      expect(two?.lower_bound).toBeLessThanOrEqual(item?.makespan ?? 0);
      expect(three?.lower_bound).toBeLessThanOrEqual(two?.makespan ?? 0);
      if (item?.proved_optimal && two?.proved_optimal) expect(two.makespan).toBeLessThanOrEqual(item.makespan);
    }
  });

  it("of a dozen pots comes near its bound, and each that is told is better than the last", () => {
    const told: { value: number; bound: number }[] = [];
    for (const { found } of answering({ ...dayOf(12), seconds: 3 }, clock)) told.push({ value: found.value, bound: found.bound });
    const last = told.at(-1);
    expect((last?.value ?? 0) / (last?.bound ?? 1)).toBeLessThan(1.3);
    for (const [index, item] of told.entries()) {
      expect(item.bound).toBeLessThanOrEqual(item.value);
      expect(item.value).toBeLessThanOrEqual(told[index - 1]?.value ?? Number.POSITIVE_INFINITY);
      // A bound that was said once is not taken back.
      expect(item.bound).toBeGreaterThanOrEqual(Math.min(told[index - 1]?.bound ?? 0, item.value));
    }
  });
});
