import { cubicMmOf, type Density, WATER_DENSITY_20C, weightOf } from "../units/density";
import type { Milligrams } from "../units/mass";
import type { Figure, Step } from "../weigh-out/working";
import { bowlVolume, volumeTo } from "./section";

/** Inner shapes of a vessel, in millimetres. A bowl is a segment of a sphere: its rim diameter and its depth. */
export type Geometry =
  | { shape: "cylinder"; diameterMm: number; heightMm: number; headspaceMm: number }
  | { shape: "taper"; topMm: number; bottomMm: number; heightMm: number; headspaceMm: number }
  | { shape: "bowl"; diameterMm: number; depthMm: number; headspaceMm: number };

export interface Fill {
  fillMg: Milligrams;
  working: Step[];
}

const density = (name: string, value: Density): Figure => ({ name, value: value / 1e6, unit: "g/ml" });

/**
 * The wax that stands where the water stood: weight of water × density of wax ÷ density of water. Forgetting the factor
 * runs about 10 % over.
 */
export function fillByWater(waterMg: Milligrams, waxDensity: Density, waterDensity = WATER_DENSITY_20C): Fill {
  const water: Figure = { name: "water to the line", value: waterMg / 1_000, unit: "g" };
  const volume: Figure = { name: "volume to the line", value: cubicMmOf(waterMg, waterDensity) / 1_000, unit: "ml" };
  const fillMg = Math.round((waterMg * waxDensity) / waterDensity);
  return {
    fillMg,
    working: [
      { gives: volume, by: "divide", from: [water, density("density of water", waterDensity)] },
      { gives: { name: "fill", value: fillMg / 1_000, unit: "g" }, by: "multiply", from: [volume, density("density of wax", waxDensity)] },
    ],
  };
}

/** The wax that fills a shape up to its headspace. @throws RangeError where the headspace leaves no room. */
export function fillByGeometry(geometry: Geometry, waxDensity: Density): Fill {
  const height = geometry.shape === "bowl" ? geometry.depthMm : geometry.heightMm;
  const level = height - geometry.headspaceMm;
  if (level <= 0) throw new RangeError(`A headspace of ${geometry.headspaceMm} mm leaves no room in a vessel ${height} mm high.`);
  let cubicMm: number;
  let expression: string;
  if (geometry.shape === "bowl") {
    cubicMm = bowlVolume(geometry.diameterMm, geometry.depthMm, level);
    expression = "π × level² × (3 × radius of the sphere − level) ÷ 3";
  } else {
    const inner =
      geometry.shape === "cylinder"
        ? { top: geometry.diameterMm, bottom: geometry.diameterMm, height }
        : { top: geometry.topMm, bottom: geometry.bottomMm, height };
    cubicMm = volumeTo(inner, level);
    expression =
      geometry.shape === "cylinder" ? "π × radius² × level" : "π × level × (bottom radius² + bottom radius × radius at the level + radius at the level²) ÷ 3";
  }
  const mm = (name: string, value: number): Figure => ({ name, value, unit: "mm" });
  const measures =
    geometry.shape === "taper"
      ? [mm("inner diameter at the rim", geometry.topMm), mm("inner diameter at the bottom", geometry.bottomMm)]
      : [mm("inner diameter", geometry.diameterMm)];
  const volume: Figure = { name: "volume to the line", value: cubicMm / 1_000, unit: "ml" };
  const fillMg = Math.round(weightOf(cubicMm, waxDensity));
  return {
    fillMg,
    working: [
      { gives: mm("level", level), by: "subtract", from: [mm("inner height", height), mm("headspace", geometry.headspaceMm)] },
      { gives: volume, by: "formula", from: [...measures, mm("level", level)], expression },
      { gives: { name: "fill", value: fillMg / 1_000, unit: "g" }, by: "multiply", from: [volume, density("density of wax", waxDensity)] },
    ],
  };
}
