import fc from "fast-check";
import { evaluate } from "mathjs";
import { describe, expect, it } from "vitest";
import { WATER_DENSITY_20C } from "../units/density";
import { fillByGeometry, fillByWater } from "./fill";
import { answerFill, fillRequest } from "./fill-api";
import { bowlVolume } from "./section";

/** Simpson's rule over the level, as a numerical library would integrate the cross-section. */
function integrate(area: (level: number) => number, to: number, parts = 2_000): number {
  let sum = area(0) + area(to);
  for (let i = 1; i < parts; i++) sum += area((to * i) / parts) * (i % 2 === 0 ? 2 : 4);
  return (sum * to) / parts / 3;
}

describe("fill by water", () => {
  it("takes the density of water from the CRC Handbook (from memory): 0.9982 g/ml at 20 °C", () => {
    expect(WATER_DENSITY_20C).toBe(998_200);
    // 212 g of water are 212.38 ml, and so 191.14 g of wax at 0.90 g/ml.
    expect(fillByWater(212_000, 900_000).fillMg / 1_000).toBeCloseTo((212 / 0.9982) * 0.9, 3);
    // At 25 °C water is 0.9970 g/ml: the same jar reads less water, and the same fill follows.
    expect(fillByWater(Math.round(212_000 * (0.997 / 0.9982)), 900_000, 997_000).fillMg).toBeCloseTo(fillByWater(212_000, 900_000).fillMg, -1);
  });

  it("gives less wax than water, by the factor that is forgotten", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1_000, max: 2_000_000 }), (water) => {
        expect(fillByWater(water, 900_000).fillMg / water).toBeCloseTo(0.9 / 0.9982, 2);
      }),
    );
  });
});

describe("fill by geometry", () => {
  it("agrees with integrating the cross-section (Simpson's rule), for a taper and a bowl", () => {
    const taper = { shape: "taper", topMm: 83, bottomMm: 76, heightMm: 95, headspaceMm: 12 } as const;
    const byLevel = (level: number) => Math.PI * (38 + (3.5 * level) / 95) ** 2;
    expect(fillByGeometry(taper, 900_000).fillMg).toBeCloseTo(integrate(byLevel, 83) * 0.9, 0);
    const radius = (60 ** 2 + 45 ** 2) / (2 * 45);
    const segment = (level: number) => Math.PI * (2 * radius * level - level * level);
    expect(bowlVolume(120, 45, 35)).toBeCloseTo(integrate(segment, 35), 3);
  });

  it("is half a sphere where a bowl is as deep as half its width: 2 π r³ / 3", () => {
    expect(bowlVolume(100, 50, 50)).toBeCloseTo((2 * Math.PI * 50 ** 3) / 3, 6);
  });

  it("fills less for more headspace, and refuses one that leaves no room", () => {
    const jar = (headspaceMm: number) => ({ shape: "cylinder", diameterMm: 75, heightMm: 80, headspaceMm }) as const;
    expect(fillByGeometry(jar(10), 900_000).fillMg).toBeGreaterThan(fillByGeometry(jar(30), 900_000).fillMg);
    expect(() => fillByGeometry(jar(80), 900_000)).toThrow(/80 mm leaves no room in a vessel 80 mm high/);
  });
});

describe("the calculation interface", () => {
  it("opens to a working from which the volume can be worked out again, whatever the shape (mathjs evaluates it)", () => {
    const mm = fc.integer({ min: 200, max: 1_500 }).map((tenths) => tenths / 10);
    const shapes = fc.oneof(
      fc.record({ shape: fc.constant("cylinder" as const), diameterMm: mm, heightMm: mm, headspaceMm: fc.constant(8) }),
      fc.record({ shape: fc.constant("taper" as const), topMm: mm, bottomMm: mm, heightMm: mm, headspaceMm: fc.constant(8) }),
      fc.record({ shape: fc.constant("bowl" as const), diameterMm: mm, depthMm: mm, headspaceMm: fc.constant(8) }),
    );
    fc.assert(
      fc.property(shapes, (shape) => {
        const { fillMg, working } = fillByGeometry(shape, 900_000);
        const given = Object.values(shape).filter((item) => typeof item === "number");
        for (const { gives, by, from, expression } of working) {
          // What a step names was given, or comes from a step before it.
          for (const figure of from)
            if (!working.some((step) => step.gives.name === figure.name)) expect([...given, 2, 0.9], figure.name).toContain(figure.value);
          const [a = 0, b = 1] = from.map((figure) => figure.value);
          const plain = [...from]
            .sort((x, y) => y.name.length - x.name.length)
            .reduce((text, figure) => text.replaceAll(figure.name, `(${figure.value})`), expression ?? "")
            .replaceAll("π", "pi")
            .replaceAll("×", "*")
            .replaceAll("÷", "/")
            .replaceAll("−", "-")
            .replaceAll("²", "^2");
          const value = { subtract: () => a - b, divide: () => a / b, multiply: () => a * b, formula: () => evaluate(plain) as number }[by as "formula"]();
          expect(gives.value, gives.name).toBeCloseTo(value, by === "multiply" ? 2 : 6);
        }
        expect(working.at(-1)?.gives.value).toBe(fillMg / 1_000);
      }),
      { numRuns: 200 },
    );
  });

  it("answers with the fill and its working", () => {
    const out = answerFill(fillRequest.parse({ water_g: 212, wax_density: 0.9 }));
    expect(out.fill_g).toBeCloseTo(191.144, 3);
    expect(out.working.map((step) => step.gives.name)).toEqual(["volume to the line", "fill"]);
    const bowl = answerFill(fillRequest.parse({ geometry: { shape: "bowl", diameter_mm: 100, depth_mm: 50 }, wax_density: 0.9 }));
    expect(bowl.fill_g).toBeCloseTo(((2 * Math.PI * 125) / 3) * 0.9, 2);
    const taper = answerFill(fillRequest.parse({ geometry: { shape: "taper", top_mm: 80, bottom_mm: 80, height_mm: 70 }, wax_density: 0.9 }));
    const cylinder = answerFill(fillRequest.parse({ geometry: { shape: "cylinder", diameter_mm: 80, height_mm: 70 }, wax_density: 0.9 }));
    expect(taper.fill_g).toBe(cylinder.fill_g);
  });

  it.each([
    [{ wax_density: 0.9 }],
    [{ water_g: 212 }],
    [{ water_g: 212, wax_density: 9 }],
    [{ water_g: -1, wax_density: 0.9 }],
    [{ water_g: 212, wax_density: 0.9, geometry: { shape: "cylinder", diameter_mm: 75, height_mm: 80 } }],
    [{ wax_density: 0.9, geometry: { shape: "cone", diameter_mm: 75, height_mm: 80 } }],
    [{ wax_density: 0.9, geometry: { shape: "cylinder", diameter_mm: 0, height_mm: 80 } }],
  ])("refuses %j", (body) => {
    expect(fillRequest.safeParse(body).success).toBe(false);
  });
});
