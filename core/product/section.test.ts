import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { levelFor, volumeTo } from "./section";

describe("volumes of a round vessel", () => {
  it("is π r² h for a cylinder: closed form, any geometry handbook", () => {
    expect(volumeTo({ top: 80, bottom: 80, height: 100 }, 50)).toBeCloseTo(Math.PI * 1_600 * 50, 6);
  });

  it("agrees with summing thin discs for a taper (midpoint rule)", () => {
    const inner = { top: 83, bottom: 76, height: 95 };
    const discs = 20_000;
    let sum = 0;
    for (let i = 0; i < discs; i++) {
      const level = ((i + 0.5) / discs) * inner.height;
      const radius = (inner.bottom + ((inner.top - inner.bottom) * level) / inner.height) / 2;
      sum += (Math.PI * radius * radius * inner.height) / discs;
    }
    expect(volumeTo(inner, inner.height)).toBeCloseTo(sum, 2);
  });

  it("never falls as the level rises, whatever the taper", () => {
    fc.assert(
      fc.property(fc.integer({ min: 10, max: 200 }), fc.integer({ min: 10, max: 200 }), fc.integer({ min: 10, max: 300 }), (top, bottom, height) => {
        const inner = { top, bottom, height };
        let last = 0;
        for (let part = 1; part <= 10; part++) {
          const volume = volumeTo(inner, (height * part) / 10);
          expect(volume).toBeGreaterThan(last);
          last = volume;
        }
        expect(levelFor(inner, last / 3)).toBeLessThan(height);
      }),
    );
  });

  it("finds the level that a volume reaches, and stops at the rim", () => {
    const inner = { top: 83, bottom: 76, height: 95 };
    expect(levelFor(inner, volumeTo(inner, 61.5))).toBeCloseTo(61.5, 6);
    expect(levelFor(inner, volumeTo(inner, 95) * 2)).toBe(95);
  });
});
