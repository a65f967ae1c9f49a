import { describe, expect, it } from "vitest";
import { nextAge, roomOf, throwPoints } from "./model";

const POURED = "2026-03-01T12:00:00.000Z";
const day = (days: number) => new Date(Date.parse(POURED) + days * 86_400_000).toISOString();

describe("what the rack shows", () => {
  it("draws cold throw nose by nose, in order of age, whoever entered first", () => {
    const smell = (days: number, personId: string | null, score: number) => ({ eventId: `${days}`, at: day(days), personId, score, room: "bath" });
    const points = throwPoints({ smells: [smell(8, "a", 7), smell(1, "a", 2), smell(4, "b", 9), smell(2, null, 3)] }, POURED, [
      { id: "a", name: "Ansa" },
      { id: "b", name: "Bo" },
    ]);
    expect(points.map((point) => [point.nose, point.scores.map((score) => [score.days, score.score])])).toEqual([
      [
        "Ansa",
        [
          [1, 2],
          [8, 7],
        ],
      ],
      ["somebody", [[2, 3]]],
      ["Bo", [[4, 9]]],
    ]);
  });

  it("asks for cold throw at the same ages of every batch, each once", () => {
    const smell = (days: number) => ({ eventId: `${days}`, at: day(days), personId: "a", score: 5, room: "" });
    expect(nextAge({ smells: [] }, POURED, day(0.2))).toEqual({ days: 1, at: day(1) });
    expect(nextAge({ smells: [] }, POURED, day(1.2))).toMatchObject({ days: 1 });
    expect(nextAge({ smells: [smell(1.1)] }, POURED, day(1.2))).toMatchObject({ days: 2 });
    // What was missed is behind.
    expect(nextAge({ smells: [smell(1.1)] }, POURED, day(5))).toMatchObject({ days: 7 });
    expect(nextAge({ smells: [smell(14)] }, POURED, day(14.1))).toBeNull();
    expect(nextAge({ smells: [] }, POURED, day(30))).toBeNull();
  });

  it("takes of a logger's file only the time in which the jars stood there", () => {
    const readings = [-1, 0, 1, 2, 3].map((days) => ({ at: day(days), celsius: 2_000 + days * 100 }));
    expect(roomOf(readings, POURED, day(2))).toEqual({ mean: 2_100, low: 2_000, high: 2_200, readings: 3 });
    expect(roomOf(readings, day(10), day(20))).toBeNull();
  });
});
