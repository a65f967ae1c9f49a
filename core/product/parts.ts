import { cubicMmOf, type Density } from "../units/density";
import type { Milligrams } from "../units/mass";
import { bad, good, type Parsed } from "../units/parsed";
import { type Inner, levelFor, volumeTo } from "./section";

export const MAX_LAYERS = 12;
/** How much of a vessel one pot fills: all of it, half for a test of the lower half, or one of several layers. */
export type FillPart = { kind: "half" } | { kind: "layer"; number: number; of: number };

/** Set wax, where a drawing or a share of a fill needs a density: about 0.9 g/ml, common practice, no source. */
export const DEFAULT_WAX_DENSITY: Density = 900_000;

/**
 * Returns the weight of each of `count` layers of equal height, lowest first, in a vessel filled to `fillMg`; they sum to it.
 * In a narrowing jar the lower layers weigh less. Measures in millimeters.
 */
export function layerFills(inner: Inner, fillMg: Milligrams, count: number): Milligrams[] {
  const level = levelFor(inner, cubicMmOf(fillMg, DEFAULT_WAX_DENSITY));
  const whole = volumeTo(inner, level);
  const upTo = (layer: number) => Math.round((fillMg * volumeTo(inner, (level * layer) / count)) / whole);
  return Array.from({ length: count }, (_, index) => upTo(index + 1) - upTo(index));
}

/** The weight that goes into one vessel for this part of its fill. A half is half the weight. */
export function fillOf(inner: Inner, fillMg: Milligrams, part: FillPart | null): Milligrams {
  if (!part) return fillMg;
  if (part.kind === "half") return Math.round(fillMg / 2);
  return layerFills(inner, fillMg, part.of)[part.number - 1] as Milligrams;
}

/** "half fill", "layer 2 of 3". */
export const writePart = (part: FillPart): string => (part.kind === "half" ? "half fill" : `layer ${part.number} of ${part.of}`);

/** Reads what `writePart` writes; empty or "full" is the whole fill. */
export function parsePart(text: string): Parsed<FillPart | null> {
  const typed = text.trim().toLowerCase();
  if (typed === "" || typed === "full") return good(null);
  if (typed.startsWith("half")) return good({ kind: "half" });
  const match = /^layer (\d+) of (\d+)$/.exec(typed);
  const [number, of] = [Number(match?.[1]), Number(match?.[2])];
  return number >= 1 && number <= of && of >= 2 && of <= MAX_LAYERS
    ? good({ kind: "layer", number, of })
    : bad("not-understood", `“${text}” is no part of a fill. Write half, or layer 1 of 3.`);
}
