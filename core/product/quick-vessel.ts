import { WATER_DENSITY_20C } from "../units/density";
import type { MassUnit, Milligrams } from "../units/mass";
import { parseMass } from "../units/mass";
import type { Parsed } from "../units/parsed";
import { good } from "../units/parsed";
import { parseVolume } from "../units/volume";
import { fillByWater } from "./fill";
import { DEFAULT_WAX_DENSITY } from "./parts";

/** Wax and oil for each nominal milliliter that a vessel is sold as, since nobody fills to the brim: 0.73 to 0.75 g, a rule of thumb, common practice, no source. */
export const FILL_MG_PER_NOMINAL_ML = 740;
/** From the line to the rim where the line is known by its water: a finger, common practice, no source. */
const HEADSPACE_UM = 10_000;

/** What is known of a vessel that was never measured: the water to its fill line, or the volume that it is sold as. */
export type VesselMeasure = { is: "water"; waterMg: Milligrams } | { is: "nominal"; ml: number };

/** Reads "9.5 oz" as the weight of water to the line, and "8 fl oz", "20 cl" or "250 ml" as a nominal volume. */
export function parseVesselMeasure(text: string, unit: MassUnit): Parsed<VesselMeasure> {
  const volume = parseVolume(text);
  if (volume) return volume.ok ? good({ is: "nominal", ml: volume.value.ml }) : volume;
  const mass = parseMass(text, { unit, least: 1_000, most: 20_000_000 });
  return mass.ok ? good({ is: "water", waterMg: mass.value }) : mass;
}

/** Fill and size of a vessel. The size is that of a cylinder as wide as the wax is high, which only a ruler can put right. Micrometers. */
export interface EstimatedVessel {
  fillMg: Milligrams;
  waterMg: Milligrams | null;
  diameterUm: number;
  heightUm: number;
  headspaceUm: number;
}

/** Returns the fill of a vessel by its water or nominal volume, and a size to draw it with. */
export function estimateVessel(measure: VesselMeasure): EstimatedVessel {
  const cubicMm = measure.is === "nominal" ? measure.ml * 1_000 : (measure.waterMg * 1e6) / WATER_DENSITY_20C;
  const diameterUm = Math.round(Math.cbrt((4 * cubicMm) / Math.PI) * 1_000);
  if (measure.is === "water") {
    const { fillMg } = fillByWater(measure.waterMg, DEFAULT_WAX_DENSITY);
    return { fillMg, waterMg: measure.waterMg, diameterUm, heightUm: diameterUm + HEADSPACE_UM, headspaceUm: HEADSPACE_UM };
  }
  const fillMg = Math.round(measure.ml * FILL_MG_PER_NOMINAL_ML);
  const share = (fillMg * 1e6) / DEFAULT_WAX_DENSITY / cubicMm;
  return { fillMg, waterMg: null, diameterUm, heightUm: diameterUm, headspaceUm: Math.round(diameterUm * (1 - share)) };
}
