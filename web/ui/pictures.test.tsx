import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import { HeatLine, type HeatMark } from "./heat-line";
import { commonScale, JarSection } from "./jar-section";
import { PotStrip } from "./pot-strip";
import { Ground, type Units } from "./units";

const draw = (picture: React.ReactElement, units: Partial<Units> = {}) =>
  renderToStaticMarkup(
    <Ground units={{ mass: "g", temperature: "C", zone: "UTC", ...units }} now="2026-03-14T12:00:00.000Z" frozen>
      {picture}
    </Ground>,
  );
const all = (markup: string, pattern: RegExp) => [...markup.matchAll(pattern)];

describe("the heat line", () => {
  const bands = [
    { step: "heat", name: "heat", range: { low: 8_300, high: 8_700 } },
    { step: "add", name: "add", range: { low: 8_300, high: 8_700 } },
    { step: "cool", name: "pour", range: { low: 5_700, high: 6_300 } },
  ];
  const mark = (minute: number, celsius: number, step: HeatMark["step"], tool: string | null): HeatMark => ({
    at: `2026-03-14T11:${String(minute).padStart(2, "0")}:00.000Z`,
    celsius,
    step,
    instrumentId: tool,
    instrumentKind: tool,
  });
  const line = (marks: HeatMark[], units: Partial<Units> = {}) => draw(<HeatLine bands={bands} ceiling={9_330} marks={marks} label="Pot 3" />, units);

  it("says every reading to somebody who cannot see it", () => {
    expect(line([mark(20, 6_600, "cool", "probe"), mark(10, 8_500, "heat", "probe")])).toContain(
      'aria-label="Pot 3. 11:10 85 °C for heat; 11:20 66 °C for pour"',
    );
    expect(line([])).toContain("No readings yet");
  });

  it("marks a reading outside its range by a sign as well as a color", () => {
    const markup = line([mark(10, 8_500, "heat", "probe"), mark(20, 7_200, "cool", "probe"), mark(30, 5_000, "cool", "probe"), mark(40, 7_000, null, "probe")]);
    expect(markup).toMatch(/fill="var\(--color-inside\)"[^>]*>85</);
    expect(markup).toMatch(/fill="var\(--color-hot\)"[^>]*>▲ 72</);
    expect(markup).toMatch(/fill="var\(--color-cool\)"[^>]*>▼ 50</);
    expect(markup).toMatch(/fill="var\(--color-ink\)"[^>]*>70</);
  });

  it("never draws one line through two instruments", () => {
    const markup = line([mark(1, 6_000, null, "probe"), mark(2, 6_500, null, "probe"), mark(3, 7_000, null, "infrared"), mark(4, 7_500, null, "infrared")]);
    const paths = all(markup, /<path d="([^"]*)"/g).map(([, d]) => d ?? "");
    expect(paths).toHaveLength(2);
    for (const d of paths) expect(all(d, /L/g)).toHaveLength(1);
    // Round for a probe, square on its point for infrared.
    expect(all(markup, /<circle/g)).toHaveLength(2);
    expect(all(markup, /rotate\(45/g)).toHaveLength(2);
  });

  it("folds hours in which nothing happened, and says how long they were", () => {
    const at = (hour: number, minute: number, celsius: number): HeatMark => ({
      ...mark(0, celsius, null, "probe"),
      at: `2026-03-14T${String(hour).padStart(2, "0")}:${String(minute).padStart(2, "0")}:00.000Z`,
    });
    const marks = [at(8, 0, 6_000), at(8, 10, 7_000), at(8, 20, 8_000), at(15, 20, 5_000), at(15, 30, 6_000)];
    const places = (drawn: string) => all(drawn, /<circle cx="([\d.]+)"/g).map(([, x]) => Number(x));
    const [a = 0, b = 0, c = 0, d = 0, e = 0] = places(line(marks));
    // Ten minutes are as wide before the break as after it, and far wider than if seven hours were drawn.
    expect(b - a).toBeCloseTo(c - b, 0);
    expect(e - d).toBeCloseTo(b - a, 0);
    expect(b - a).toBeGreaterThan(40);
    expect(line(marks)).toContain("6 h 40 min");
    // An hour and a half is no break.
    expect(line([at(8, 0, 6_000), at(9, 30, 7_000)])).not.toContain("rotate(-90)");
  });

  it("gives names at one moment and ranges side by side a place each", () => {
    const close = [
      { step: "heat", name: "heat", range: { low: 8_300, high: 8_700 } },
      { step: "hold", name: "hold", range: { low: 8_200, high: 8_600 } },
      { step: "add", name: "add", range: { low: 8_100, high: 8_500 } },
    ];
    const moments = ["stirred", "weighed", "poured"].map((name, minute) => ({ at: `2026-03-14T11:0${minute}:00.000Z`, name }));
    const drawn = draw(
      <HeatLine bands={close} ceiling={9_330} marks={[mark(0, 8_500, "heat", "probe"), mark(59, 8_500, "add", "probe")]} moments={moments} label="Pot" />,
    );
    const texts = all(drawn, /<text x="([\d.]+)" y="([\d.]+)"[^>]*>(stirred|weighed|poured|heat|hold|add)</g).map(([, x, y, name]) => ({
      x: Number(x),
      y: Number(y),
      name,
    }));
    expect(texts).toHaveLength(6);
    for (const text of texts)
      for (const other of texts)
        if (text !== other && Math.abs(text.x - other.x) < 50) expect(Math.abs(text.y - other.y), `${text.name}, ${other.name}`).toBeGreaterThanOrEqual(13);
  });

  it("puts two ranges with the same span into one band, and speaks the workshop's unit", () => {
    const markup = line([], { temperature: "F" });
    expect(markup).toContain("heat, add");
    expect(markup).toContain("135–145 °F");
    expect(markup).not.toContain("°C");
  });
});

describe("the jar section", () => {
  const jar = { innerTopUm: 80_000, innerBottomUm: 80_000, heightUm: 100_000, name: "jar" };
  const surface = (markup: string) => Number(/<line x1="[^"]*" x2="[^"]*" y1="([\d.]+)"/.exec(markup)?.[1]);

  it("is to scale: half the wax stands half as high", () => {
    const height = (fillMg: number) => {
      const markup = draw(<JarSection {...jar} fillMg={fillMg} scale={2} />);
      const floor = Math.max(
        ...all(markup, /<polygon points="([^"]*)"/g).flatMap(([, points]) => (points ?? "").split(" ").map((point) => Number(point.split(",")[1]))),
      );
      return floor - surface(markup);
    };
    expect(height(360_000) / height(180_000)).toBeCloseTo(2, 1);
    // 180 g at 0.9 g/ml are 200 ml: 200 000 mm³ ÷ (π · 40²) = 39.8 mm, at 2 px a mm.
    expect(height(180_000)).toBeCloseTo(79.6, 0);
  });

  it("warns of a fill that goes over the rim", () => {
    expect(draw(<JarSection {...jar} fillMg={600_000} scale={2} />)).toContain("over the rim");
    expect(draw(<JarSection {...jar} fillMg={400_000} scale={2} />)).not.toContain("over the rim");
  });

  it("draws a row of jars at one scale, the tallest fitting", () => {
    const scale = commonScale([jar, { ...jar, heightUm: 20_000 }], 120);
    expect(scale * 103).toBeLessThanOrEqual(120 - 34 + 1e-9);
  });
});

describe("the pot strip", () => {
  it("is to scale by weight and fills the whole bar", () => {
    const parts = [
      { name: "soy", kind: "wax" as const, mg: 127_000 },
      { name: "rain", kind: "fragrance" as const, mg: 13_000 },
    ];
    const markup = draw(<PotStrip parts={parts} />);
    const widths = all(markup, /<rect x="[\d.]+%" width="([\d.]+)%"/g).map(([, width]) => Number(width));
    expect(widths[0]).toBeCloseTo((127 / 140) * 100, 6);
    expect(widths.reduce((sum, width) => sum + width, 0)).toBeCloseTo(100, 6);
    expect(markup).toContain('aria-label="soy 127 g, rain 13 g"');
  });
});

describe("the places of a jar", () => {
  const tall = { innerTopUm: 76_000, innerBottomUm: 76_000, heightUm: 90_000, fillMg: 320_000, name: "tumbler", scale: 2 };
  const zones = (markup: string) => all(markup, /data-place="(\w+)"(?: data-wall="([\w ]+)")?/g).map((match) => [match[1], match[2]].filter(Boolean).join(" "));

  it("are top, wick, bottom, and both walls in thirds where a thumb can tell them apart; a flat cup has each wall once", () => {
    expect(zones(draw(<JarSection {...tall} onPlace={() => undefined} />)).sort()).toEqual(
      ["bottom", "side left high", "side left low", "side left middle", "side right high", "side right low", "side right middle", "top", "wick"].sort(),
    );
    const flat = zones(draw(<JarSection {...tall} heightUm={17_000} fillMg={14_000} innerTopUm={38_000} innerBottomUm={38_000} onPlace={() => undefined} />));
    expect(flat.filter((text) => text.startsWith("side"))).toEqual(["side left middle", "side right middle"]);
    // Where nothing is marked there is nothing to tap.
    expect(zones(draw(<JarSection {...tall} />))).toEqual([]);
  });

  it("keep flaws where they are: on their side of the jar, at their height, a safety flaw in its own color", () => {
    const at = (side: "left" | "right", height: "high" | "low") => {
      const flaw = { place: "side" as const, wall: { side, height }, extent: "patch" as const, safety: false };
      const [, x, y] = /transform="translate\(([\d.]+) ([\d.]+)\)"/.exec(draw(<JarSection {...tall} flaws={[flaw]} />)) ?? [];
      return [Number(x), Number(y)] as const;
    };
    expect(at("left", "high")[0]).toBeLessThan(at("right", "high")[0]);
    expect(at("left", "high")[1]).toBeLessThan(at("left", "low")[1]);
    expect(draw(<JarSection {...tall} flaws={[{ place: "side", severity: "severe", safety: true }]} />)).toContain('stroke="var(--color-safety)"');
  });
});
