import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import { Ground } from "../units";
import { finenessOf } from "./paint";
import { type Day, gripAt, pictureOf } from "./shapes";
import { Timetable } from "./timetable";

const step = (id: string, start: number, end: number, is: "hands" | "heat" | "none") => ({
  id,
  name: id,
  start,
  end,
  hands: is === "hands",
  heats: is === "heat",
});
const rows = [
  { key: "a", number: 1, name: "Rain on slate", steps: [step("weigh", 0, 6, "hands"), step("heat", 6, 30, "heat"), step("pour", 50, 57, "hands")] },
  {
    key: "b",
    number: 2,
    name: "A very long name of a formula",
    steps: [step("weigh", 6, 13, "hands"), step("heat", 30, 52, "heat"), step("pour", 72, 80, "hands")],
  },
];
const write = {
  clock: (minutes: number) => `${9 + Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, "0")}`,
  t: (centi: number) => `${centi / 100} °C`,
};
const picture = (day: Partial<Day> = {}, width = 900) => pictureOf({ rows, lit: null, ...day }, width, write);
const boxes = (of: string, day: Partial<Day> = {}) => picture(day).shapes.flatMap((shape) => (shape.is === "box" && shape.of === of ? [shape] : []));
const words = (day: Partial<Day> = {}, width = 900) => picture(day, width).shapes.flatMap((shape) => (shape.is === "words" ? [shape] : []));

describe("the timetable of a day", () => {
  it("says every step of every pot, by the clock, to somebody who cannot see it", () => {
    const markup = renderToStaticMarkup(
      <Ground units={{ mass: "g", temperature: "C", zone: "UTC" }} now="2026-03-14T12:00:00.000Z" frozen>
        <Timetable rows={rows} begin="2026-03-14T09:00:00.000Z" lit={null} label="The day" />
      </Ground>,
    );
    expect(markup).toContain("The day. pot 1, Rain on slate: weigh 09:00 to 09:06, heat 09:06 to 09:30, pour 09:50 to 09:57; pot 2,");
  });

  it("draws the hands of all pots in one line, to scale and none on another, each with its pot's number", () => {
    const busy = boxes("hands").sort((item, other) => item.x - other.x);
    expect(busy).toHaveLength(4);
    expect(new Set(busy.map((item) => item.y)).size).toBe(1);
    for (const [index, item] of busy.entries())
      expect(item.x).toBeGreaterThanOrEqual(index === 0 ? 0 : (busy[index - 1]?.x ?? 0) + (busy[index - 1]?.width ?? 0));
    // Seven minutes are as wide at ten to ten as at six past nine; beside each is a px of ground.
    expect(busy[1]?.width).toBeCloseTo(busy[2]?.width ?? 0, 6);
    expect(((busy[0]?.width ?? 0) + 1) / ((busy[1]?.width ?? 0) + 1)).toBeCloseTo(6 / 7, 6);
    const onThem = words().filter((word) => word.y === (busy[0]?.y ?? 0) + 12 && word.ink === "sheet");
    expect(onThem.map((item) => item.says).sort()).toEqual(["1", "1", "2", "2"]);
  });

  it("tells the heat by stripes as well as by color, and lets the pots step back that are not looked at", () => {
    expect(boxes("heat").map((box) => box.fill)).toEqual(["stripes", "stripes"]);
    expect(boxes("heat", { lit: "a" }).map((box) => (box.alpha ?? 1) < 1)).toEqual([false, true]);
    expect(boxes("hands", { lit: "b" }).map((box) => (box.alpha ?? 1) < 1)).toEqual([true, true, false, false]);
  });

  it("puts what is drawn at one moment below one another, however far down it stands", () => {
    const shown = {
      chores: [{ number: 1, name: "wicks", parts: [{ start: 30, end: 44 }] }],
      lanes: [{ name: "burner", taken: [{ number: 2, start: 30, end: 52 }] }],
      heats: [
        {
          key: "b",
          number: 2,
          points: [
            { minute: 30, celsius: 20 },
            { minute: 52, celsius: 85 },
          ],
        },
      ],
      breaks: [{ from: 30, minutes: 20 }],
    };
    const heat = boxes("heat", shown)[1];
    for (const of of ["chore", "lane", "break"]) expect(boxes(of, shown)[0]?.x).toBeCloseTo(heat?.x ?? 0, 6);
    const curve = picture(shown).shapes.find((shape) => shape.is === "line" && shape.thick === 2 && shape.points[0]?.[1] !== shape.points[1]?.[1]);
    expect(curve?.is === "line" && curve.points[0]?.[0]).toBeCloseTo(heat?.x ?? 0, 6);
    // The warmer, the higher.
    expect(curve?.is === "line" && (curve.points[1]?.[1] ?? 0) < (curve.points[0]?.[1] ?? 0)).toBe(true);
    expect(words(shown).map((word) => word.says)).toContain("80 °C");
  });

  it("keeps the names short enough to end before the first step, on a phone too", () => {
    for (const width of [900, 358]) {
      const name = words({}, width).find((word) => word.says.startsWith("A very"));
      expect(name?.says).toMatch(/…$/);
      // Letters of 14 px are about 7.2 px wide.
      expect((name?.x ?? 0) + (name?.says.length ?? 0) * 7.2).toBeLessThan(width < 620 ? 86 : 150);
    }
  });

  it("lets a step be taken hold of where it is drawn, and says where it goes while it is drawn there", () => {
    const still = picture();
    const pour = boxes("by hand").at(-1);
    if (!pour) throw new Error("no step");
    expect(gripAt(still, pour.x + 1, pour.y + 1)).toMatchObject({ row: "b", step: "pour", start: 72 });
    expect(gripAt(still, pour.x - 10, pour.y + 1)).toBeNull();
    expect(gripAt(still, pour.x + 1, pour.y - 40)?.row).not.toBe("b");
    const moved = pictureOf({ rows, lit: null }, 900, write, { row: "b", step: "pour", by: 6 });
    const there = moved.grips.at(-1);
    expect((there?.x ?? 0) - pour.x).toBeCloseTo(6 * moved.perMinute, 6);
    expect(moved.shapes.some((shape) => shape.is === "words" && shape.says === "10:18")).toBe(true);
  });

  it("draws a week's pots no larger than a phone can show", () => {
    expect(finenessOf({ width: 900, height: 600 }, 3)).toBe(3);
    const fine = finenessOf({ width: 1_200, height: 9_000 }, 3);
    expect(1_200 * 9_000 * fine * fine).toBeLessThanOrEqual(16_000_001);
  });
});
