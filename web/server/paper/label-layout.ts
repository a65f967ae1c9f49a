import { SAFETY_PATHS, type SafetySign, SIGN_PATHS, type SignCode } from "@hearth/core";
import { MM, type Paper } from "./paper";

/** What stands on a label, from the top. Sizes relative to the text, or in points where a rule asks for them. */
export type Block =
  | { is: "text"; text: string; scale?: number; bold?: boolean; least?: number; gap?: number }
  | { is: "hazard"; codes: readonly string[]; mm: number; wishMm?: number }
  | { is: "safety"; signs: readonly SafetySign[] }
  | { is: "code"; address: string };

/** What is drawn, in points from the label's top left corner. */
export type Shape =
  | { is: "text"; text: string; x: number; y: number; size: number; bold: boolean }
  | {
      is: "sign";
      paths: readonly { d: string; fill?: "black" | "white" | undefined; stroke?: number | undefined; color?: string }[];
      x: number;
      y: number;
      size: number;
      name: string;
    }
  | { is: "code"; address: string; x: number; y: number; size: number };

export interface Laid {
  shapes: Shape[];
  /** The size of the text, in points. */
  size: number;
}

/** The smallest text that is printed, and the largest, in points. Below it no label is given out. */
export const MIN_POINTS = 4.5;
const MAX_POINTS = 11;
/** Letters that are read without effort: an x-height of about 1.2 mm, in points. */
const READABLE_POINTS = 6.5;
const STEP = 0.25;
/** Lines stand so far apart. */
const LEADING = 1.18;
/** From a label's edge to what stands on it: cutters and printers are off by a millimeter. */
const EDGE = 1.8 * MM;
/** Of a round label's width, what a rectangle of text may take in it. */
const IN_ROUND = 0.72;
/** The smallest code that phones read from a hand's length: common practice, no source. */
const CODE_MM = 17;

const FRAME = { d: "M50 3 97 50 50 97 3 50Z", fill: "white" as const, stroke: 6, color: "#d00000" };
const RING = { d: "M50 4a46 46 0 1 1 0 92 46 46 0 0 1 0-92z", stroke: 5 };
const STRUCK = { d: "M18 18 82 82", stroke: 6 };

/** Lays blocks out within a width, at a size of text; how high they come. */
function layAt(paper: Paper, blocks: readonly Block[], width: number, size: number, asWished = false): { shapes: Shape[]; height: number; wide: boolean } {
  const shapes: Shape[] = [];
  let y = 0;
  let wide = false;
  // A code stands on the right, with the text beside it as long as it is so high.
  const code = blocks.find((block) => block.is === "code");
  const side = code ? Math.min(CODE_MM * MM, width) : 0;
  const beside = code && width - side > 60;
  for (const block of blocks) {
    if (block.is === "code") continue;
    const narrow = beside && y < side ? width - side - 4 : width;
    if (block.is === "text") {
      const points = Math.max(size * (block.scale ?? 1), block.least ?? 0);
      y += (block.gap ?? 0) * size;
      // A word that does not fit is not cut in two: the text is made smaller, or refused.
      if (block.text.split(/\s+/).some((word) => paper.measure(word, points, block.bold ?? false) > narrow)) wide = true;
      const lines = paper.lines(block.text, points, block.bold ?? false, narrow, 99);
      for (const text of lines) {
        shapes.push({ is: "text", text, x: 0, y, size: points, bold: block.bold ?? false });
        y += points * LEADING;
      }
    } else if (block.is === "hazard") {
      const each = Math.max(block.mm, asWished ? (block.wishMm ?? 0) : 0) * MM * Math.SQRT2;
      let x = 0;
      for (const code of block.codes) {
        const sign = SIGN_PATHS[code as SignCode];
        if (!sign) continue;
        if (x > 0 && x + each > narrow) {
          x = 0;
          y += each;
        }
        if (each > narrow + 0.5) wide = true;
        shapes.push({ is: "sign", paths: [FRAME, ...sign.paths], x, y, size: each, name: `${code}: ${sign.name}` });
        x += each + 2;
      }
      if (x > 0) y += each + 1;
    } else {
      const each = Math.min(9 * MM, Math.max(5 * MM, size * 2.6), (narrow - 6) / block.signs.length);
      block.signs.forEach((name, index) => {
        const sign = SAFETY_PATHS[name];
        shapes.push({
          is: "sign",
          paths: [RING, ...sign.paths, ...(sign.struck ? [STRUCK] : [])],
          x: index * (each + 2),
          y,
          size: each,
          name: sign.name,
        });
      });
      y += each + 1.5;
    }
  }
  if (code) {
    if (beside) {
      shapes.push({ is: "code", address: code.address, x: width - side, y: 0, size: side });
      y = Math.max(y, side);
    } else {
      shapes.push({ is: "code", address: code.address, x: (width - side) / 2, y, size: side });
      y += side;
    }
  }
  return { shapes, height: y, wide };
}

/** Lays a label out as large as it can be read; null if not even the smallest text fits it. Width and height in micrometers. */
export function layLabel(paper: Paper, blocks: readonly Block[], label: { width: number; height: number; round: boolean }): Laid | null {
  const across = (label.width / 1_000) * MM;
  const down = (label.height / 1_000) * MM;
  const width = label.round ? across * IN_ROUND : across - 2 * EDGE;
  const height = label.round ? down * IN_ROUND : down - 2 * EDGE;
  // Signs as large as is wished, where the text stays readable beside them; else as large as they must be.
  const tries = (from: number, asWished: boolean) =>
    Array.from({ length: Math.floor((MAX_POINTS - from) / STEP) + 1 }, (_, index) => ({ size: MAX_POINTS - index * STEP, asWished }));
  for (const { size, asWished } of [...tries(READABLE_POINTS, true), ...tries(MIN_POINTS, false)]) {
    const laid = layAt(paper, blocks, width, size, asWished);
    if (laid.wide || laid.height > height) continue;
    const left = (across - width) / 2;
    const top = label.round ? (down - laid.height) / 2 : EDGE;
    return {
      size,
      shapes: laid.shapes.map((shape) => {
        // On a round label lines stand in the middle.
        const x = label.round && shape.is === "text" ? left + (width - paper.measure(shape.text, shape.size, shape.bold)) / 2 : shape.x + left;
        return { ...shape, x, y: shape.y + top };
      }),
    };
  }
  return null;
}
