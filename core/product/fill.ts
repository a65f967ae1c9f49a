import { cubicMmOf, type Density, WATER_DENSITY_20C, weightOf } from "../units/density";
import type { Milligrams } from "../units/mass";
import type { Figure, Step } from "../weigh-out/working";
import { bowlVolume, volumeTo } from "./section";

/** Inner shapes of a vessel, in millimeters. A bowl is a segment of a sphere: its rim diameter and its depth. */
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
 * Returns the wax that stands where the water stood: weight of water × density of wax ÷ density of water. Forgetting the factor
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

/** Returns the wax that fills a shape up to its headspace. @throws RangeError if the headspace leaves no room. */
export function fillByGeometry(geometry: Geometry, waxDensity: Density): Fill {
  const height = geometry.shape === "bowl" ? geometry.depthMm : geometry.heightMm;
  const level = height - geometry.headspaceMm;
  if (level <= 0) throw new RangeError(`A headspace of ${geometry.headspaceMm} mm leaves no room in a vessel ${height} mm high.`);
  const mm = (name: string, value: number): Figure => ({ name, value, unit: "mm" });
  const at = mm("level", level);
  const working: Step[] = [{ gives: at, by: "subtract", from: [mm("inner height", height), mm("headspace", geometry.headspaceMm)] }];
  const half = (name: string, of: string, diameter: number): Figure => {
    const gives = mm(name, diameter / 2);
    working.push({ gives, by: "divide", from: [mm(of, diameter), { name: "2", value: 2, unit: "×" }] });
    return gives;
  };
  let cubicMm: number;
  let volumeFrom: Figure[];
  let expression: string;
  if (geometry.shape === "bowl") {
    cubicMm = bowlVolume(geometry.diameterMm, geometry.depthMm, level);
    const rim = half("radius at the rim", "inner diameter", geometry.diameterMm);
    const sphere = mm("radius of the sphere", (rim.value ** 2 + height ** 2) / (2 * height));
    working.push({
      gives: sphere,
      by: "formula",
      from: [rim, mm("inner height", height)],
      expression: "(radius at the rim² + inner height²) ÷ (2 × inner height)",
    });
    volumeFrom = [sphere];
    expression = "π × level² × (3 × radius of the sphere − level) ÷ 3";
  } else if (geometry.shape === "cylinder") {
    cubicMm = volumeTo({ top: geometry.diameterMm, bottom: geometry.diameterMm, height }, level);
    volumeFrom = [half("radius", "inner diameter", geometry.diameterMm)];
    expression = "π × radius² × level";
  } else {
    cubicMm = volumeTo({ top: geometry.topMm, bottom: geometry.bottomMm, height }, level);
    const top = half("radius at the rim", "inner diameter at the rim", geometry.topMm);
    const bottom = half("bottom radius", "inner diameter at the bottom", geometry.bottomMm);
    const there = mm("radius at the level", bottom.value + ((top.value - bottom.value) * level) / height);
    working.push({
      gives: there,
      by: "formula",
      from: [bottom, top, at, mm("inner height", height)],
      expression: "bottom radius + (radius at the rim − bottom radius) × level ÷ inner height",
    });
    volumeFrom = [bottom, there];
    expression = "π × level × (bottom radius² + bottom radius × radius at the level + radius at the level²) ÷ 3";
  }
  const volume: Figure = { name: "volume to the line", value: cubicMm / 1_000, unit: "ml" };
  const fillMg = Math.round(weightOf(cubicMm, waxDensity));
  working.push(
    { gives: volume, by: "formula", from: [...volumeFrom, at], expression: `${expression} ÷ 1000` },
    { gives: { name: "fill", value: fillMg / 1_000, unit: "g" }, by: "multiply", from: [volume, density("density of wax", waxDensity)] },
  );
  return { fillMg, working };
}
