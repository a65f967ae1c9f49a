import { LANGUAGES, type LabelSheet, PRESET_SHEETS, safetyTexts } from "@hearth/core";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Block, layLabel, MIN_POINTS, type Shape } from "./label-layout";
import { MM, Paper } from "./paper";

const paper = new Paper([10, 10], "");
const safety = (language: (typeof LANGUAGES)[number]): Block[] => {
  const { always, more } = safetyTexts("container", language);
  return [
    { is: "safety", signs: always.map((item) => item.sign) },
    { is: "text", text: always.map((item) => item.text).join(" "), bold: true },
    { is: "text", text: more.join(" ") },
  ];
};
const label = (width: number, height: number, round = false) => ({ width: width * 1_000, height: height * 1_000, round });
/** The corners of what is drawn, in points. */
function corners(shape: Shape): [number, number][] {
  const [width, height] = shape.is === "text" ? [paper.measure(shape.text, shape.size, shape.bold), shape.size * 1.1] : [shape.size, shape.size];
  return [
    [shape.x, shape.y],
    [shape.x + width, shape.y],
    [shape.x, shape.y + height],
    [shape.x + width, shape.y + height],
  ];
}
const inside = (of: Pick<LabelSheet, "width" | "height" | "round">, [x, y]: [number, number]) => {
  const [width, height] = [(of.width / 1_000) * MM, (of.height / 1_000) * MM];
  if (!of.round) return x >= 0 && y >= 0 && x <= width && y <= height;
  return Math.hypot(x - width / 2, y - height / 2) <= width / 2 + 0.5;
};
const wordsIn = (shapes: readonly Shape[]) => shapes.flatMap((shape) => (shape.is === "text" ? shape.text.split(" ") : []));

describe("a label, laid out", () => {
  it("is refused, or has all of its words within its edge, whatever the sheet, the shape and the language", () => {
    for (const { name, sheet } of PRESET_SHEETS)
      for (const language of LANGUAGES) {
        const blocks = safety(language);
        const laid = layLabel(paper, blocks, sheet);
        if (!laid) continue;
        expect(laid.size).toBeGreaterThanOrEqual(MIN_POINTS);
        for (const shape of laid.shapes)
          for (const corner of corners(shape)) expect(inside(sheet, corner), `${name}, ${language}: ${JSON.stringify(shape)}`).toBe(true);
        const asked = blocks.flatMap((block) => (block.is === "text" ? block.text.split(" ") : []));
        expect(wordsIn(laid.shapes)).toEqual(asked);
      }
  });

  it("grows with the label, never the other way round, and no line lies on another", () => {
    fc.assert(
      fc.property(fc.integer({ min: 40, max: 100 }), fc.integer({ min: 25, max: 70 }), fc.constantFrom(...LANGUAGES), (width, height, language) => {
        const small = layLabel(paper, safety(language), label(width, height));
        const large = layLabel(paper, safety(language), label(width + 15, height + 15));
        if (small) expect(large?.size).toBeGreaterThanOrEqual(small.size);
        const lines = (large?.shapes ?? []).filter((shape) => shape.is === "text").sort((a, b) => a.y - b.y);
        for (const [index, line] of lines.entries()) {
          const next = lines[index + 1];
          if (next) expect(next.y - line.y).toBeGreaterThanOrEqual(line.size - 0.01);
        }
      }),
      { numRuns: 25 },
    );
  });

  it("keeps the size that a rule asks for, however small the rest must be, and refuses what then does not fit", () => {
    const net: Block = { is: "text", text: "Net weight 180 g", bold: true, least: 14 };
    const laid = layLabel(paper, [...safety("en"), net], label(70, 45));
    const sizes = laid?.shapes.flatMap((shape) => (shape.is === "text" ? [[shape.text, shape.size] as const] : [])) ?? [];
    expect(sizes.filter(([text]) => /Net|180/.test(text)).every(([, size]) => size === 14)).toBe(true);
    expect(sizes[0]?.[1]).toBeLessThan(14);
    expect(layLabel(paper, [net], label(20, 8))).toBeNull();
    // A word that is wider than the label is not cut in two.
    expect(layLabel(paper, [{ is: "text", text: "Brandschutzkennzeichnungsverordnungen" }], label(14, 30))).toBeNull();
  });

  it("puts a code where a phone reads it: square, 17 mm wide, with the text beside it, or below where there is no room", () => {
    const blocks: Block[] = [
      { is: "code", address: "https://example.org/candle-1.html" },
      { is: "text", text: "Cup of rain" },
    ];
    const wide = layLabel(paper, blocks, label(64, 34))?.shapes;
    const code = wide?.find((shape) => shape.is === "code");
    const text = wide?.find((shape) => shape.is === "text");
    expect((code?.size ?? 0) / MM).toBeCloseTo(17, 6);
    expect((text?.x ?? 0) + paper.measure("Cup of rain", text?.size ?? 0, false)).toBeLessThan(code?.x ?? 0);
    const narrow = layLabel(paper, blocks, label(24, 34))?.shapes;
    expect(narrow?.find((shape) => shape.is === "code")?.y).toBeGreaterThan(narrow?.find((shape) => shape.is === "text")?.y ?? 99);
  });

  it("gives a hazard sign the area that is asked, on its tip", () => {
    const laid = layLabel(paper, [{ is: "hazard", codes: ["GHS07", "GHS09"], mm: 12 }], label(64, 34));
    const signs = laid?.shapes.filter((shape) => shape.is === "sign") ?? [];
    expect(signs.map((sign) => sign.name)).toEqual(["GHS07: exclamation mark", "GHS09: environment"]);
    // A square of 12 mm on its tip is 12 × √2 across.
    for (const sign of signs) expect(sign.size / MM).toBeCloseTo(12 * Math.SQRT2, 6);
    expect((signs[1]?.x ?? 0) - (signs[0]?.x ?? 0)).toBeGreaterThanOrEqual(signs[0]?.size ?? 0);
  });
});
