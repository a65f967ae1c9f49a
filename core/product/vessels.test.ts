import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fourWays, type VesselMeasures } from "./four-ways";
import { fillOf, layerFills, parsePart, writePart } from "./parts";
import { diameterAt, levelFor, volumeTo } from "./section";
import { wickPlaces } from "./wicks";

const jar: VesselMeasures = {
  statedFillMg: 180_000,
  workingFillMg: 176_000,
  soldByWeight: false,
  inner: { top: 78, bottom: 72, height: 60 },
  headspaceMm: 12,
  waterMg: 212_000,
  waterTo: "line",
};
const way = (name: string, over: Partial<VesselMeasures> = {}, density = 900_000) => {
  const found = fourWays({ ...jar, ...over }, density).find((fourWay) => fourWay.way === name);
  if (!found) throw new Error(`no way ${name}`);
  return found;
};

describe("a fill four ways", () => {
  it("takes water to the line by the density, and says what forgetting it would cost (about 10 % over: common practice, no source)", () => {
    // 212 ÷ 0.9982 × 0.90 = 191.14 g.
    expect(way("water").fillMg).toBe(191_144);
    expect(way("water").because).toContain("11 % over");
    expect(way("water").off).toBeCloseTo(191.144 / 176 - 1, 6);
  });

  it("lessens water weighed to the rim by the headspace", () => {
    const cup = { inner: { top: 50, bottom: 50, height: 40 }, headspaceMm: 10, waterTo: "rim" as const, waterMg: 78_400 };
    // A straight cup: three quarters of the height are three quarters of the water.
    expect(way("water", cup).fillMg).toBe(Math.round((58_800 / 0.9982) * 0.9));
  });

  it("agrees with itself: water of the volume that the measures give is the fill by the measures", () => {
    fc.assert(
      fc.property(fc.integer({ min: 30, max: 120 }), fc.integer({ min: 30, max: 120 }), fc.boolean(), (top, bottom, bowl) => {
        const inner = { top, bottom, height: 70, shape: bowl ? ("bowl" as const) : ("straight" as const) };
        const waterMg = Math.round(volumeTo(inner, 70) * 0.9982);
        const over = { inner, waterMg, waterTo: "rim" as const, headspaceMm: 15 };
        expect(way("water", over).fillMg / way("geometry", over).fillMg).toBeCloseTo(1, 4);
      }),
    );
  });
});

describe("parts of a fill", () => {
  it("layers of equal height sum to the fill, and the lower ones of a narrowing jar weigh less", () => {
    const inner = { top: 83, bottom: 76, height: 95 };
    const layers = layerFills(inner, 300_000, 3);
    expect(layers.reduce((sum, value) => sum + value, 0)).toBe(300_000);
    expect(layers[0]).toBeLessThan(layers[1] as number);
    expect(layers[1]).toBeLessThan(layers[2] as number);
    // In a straight tin they are the same: 300 ÷ 3.
    expect(layerFills({ top: 80, bottom: 80, height: 90 }, 300_000, 3)).toEqual([100_000, 100_000, 100_000]);
    expect(fillOf(inner, 283_000, { kind: "half" })).toBe(141_500);
    expect(fillOf(inner, 300_000, { kind: "layer", number: 2, of: 3 })).toBe(layers[1]);
  });

  it("are read as they are written", () => {
    for (const part of [null, { kind: "half" }, { kind: "layer", number: 2, of: 3 }] as const)
      expect(parsePart(part ? writePart(part) : "full")).toEqual({ ok: true, value: part });
    expect(parsePart("layer 4 of 3")).toMatchObject({ ok: false });
    expect(parsePart("a third")).toMatchObject({ ok: false, code: "not-understood", message: expect.stringContaining("layer 1 of 3") });
  });
});

describe("a bowl", () => {
  it("has its rim's diameter at the rim and finds the level of a volume again", () => {
    const bowl = { top: 120, bottom: 120, height: 45, shape: "bowl" as const };
    expect(diameterAt(bowl, 45)).toBeCloseTo(120, 9);
    expect(diameterAt(bowl, 0)).toBe(0);
    expect(levelFor(bowl, volumeTo(bowl, 31))).toBeCloseTo(31, 6);
  });
});

describe("wick places", () => {
  it("stand at the centroid of their slice: 4 R ÷ 3 π for a half disc (handbook), and by summing little squares", () => {
    expect(wickPlaces(80, 1)).toEqual([{ x: 0, y: 0 }]);
    expect(wickPlaces(80, 2).map((wickPlace) => Math.hypot(wickPlace.x, wickPlace.y))).toEqual([
      expect.closeTo((4 * 40) / (3 * Math.PI), 9),
      expect.closeTo(16.977, 3),
    ]);
    // A third of a disc about the upward axis, summed over a grid.
    let area = 0;
    let moment = 0;
    for (let x = -40; x <= 40; x += 0.1)
      for (let y = -40; y <= 40; y += 0.1) {
        if (x * x + y * y > 1_600 || Math.abs(Math.atan2(x, y)) > Math.PI / 3) continue;
        area += 1;
        moment += y;
      }
    expect(wickPlaces(80, 3)[0]?.y).toBeCloseTo(moment / area, 1);
    for (const wickPlace of wickPlaces(80, 3)) expect(Math.hypot(wickPlace.x, wickPlace.y)).toBeCloseTo(22.05, 2);
  });
});
