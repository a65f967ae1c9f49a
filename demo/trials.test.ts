import { dueChecks, nextTrial, sessionOf, TRIAL, type TrialEvent, testCandleNow, variantVerdicts, verdictOf } from "@hearth/core";
import { describe, expect, it } from "vitest";
import { demoTrials } from "./trials";

const NOW = new Date("2026-03-14T14:20:00Z");
const told = demoTrials(NOW).map((demoTrial) => ({ ...demoTrial, ...TRIAL.of(demoTrial.events) }));
const [first, second] = told;
if (!first || !second) throw new Error("The demo has two trials.");

describe("the demo's burn trials", () => {
  it("hold nothing that the program would not have taken, entry by entry", () => {
    for (const { events } of told) {
      const before: TrialEvent[] = [];
      for (const event of events) {
        if (event.kind !== "started") expect(TRIAL.refusal(TRIAL.of(before), event), `${event.kind} ${event.happenedAt}`).toBeNull();
        before.push(event);
      }
      expect(new Set(events.map((event) => event.id)).size).toBe(events.length);
      expect(events.every((event) => Date.parse(event.happenedAt) <= NOW.getTime())).toBe(true);
    }
  });

  it("are one that is closed, with a wick that passed and one that is too small, noses of two people, and a look that nobody made", () => {
    const verdicts = variantVerdicts(first.plan, first.state);
    expect(verdicts.map((verdict) => [verdict.words, verdict.safe, verdict.pool, first.state.decided[verdict.variant]?.verdict])).toEqual([
      ["flat-braid cotton 4", true, "small", "failed"],
      ["flat-braid cotton 6", true, "right", "passed"],
    ]);
    expect(first.state.closed).not.toBeNull();
    expect(new Set(first.state.ratings.map((rating) => rating.scorer)).size).toBe(2);
    expect(nextTrial(first.plan, first.state)).toBeNull();
    const missed = first.plan.testCandles.flatMap(({ key }) =>
      (first.state.testCandles[key]?.sessions ?? []).flatMap((session, index) =>
        dueChecks(sessionOf(first.plan.protocol, index)?.checks ?? [], session, NOW.toISOString()).filter((look) => look.state === "missed"),
      ),
    );
    expect(missed).toHaveLength(1);
  });

  it("and one that burns now, its next look within minutes, with one wick put out for safety", () => {
    const states = second.plan.testCandles.map(({ key }) =>
      testCandleNow(second.plan.protocol, second.state.testCandles[key] ?? { sessions: [], stopped: null }, NOW.toISOString()),
    );
    expect(states.map((state) => state.state)).toEqual(["burning", "burning", "burning", "burning", "stopped", "stopped"]);
    const next = Date.parse(states[0]?.next?.at ?? "") - NOW.getTime();
    expect(next).toBeGreaterThan(0);
    expect(next).toBeLessThan(15 * 60_000);
    expect(verdictOf(second.plan, second.state, "C1")).toMatchObject({ safe: false, advice: { what: "wick_down" } });
    expect(verdictOf(second.plan, second.state, "A1")?.safe).toBe(true);
  });
});
