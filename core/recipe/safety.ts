import { rangeOfStep, recordedBy } from "../process/process";
import type { Process } from "../process/schema";
import { type TemperatureUnit, writeTemperature } from "../units/temperature";

/** In gel only oils with a flash point above 77 °C / 170 °F: common practice, no source. Hundredths of °C. */
export const GEL_FLASH_POINT = 7_700;
/** Gel is heated to about 107 °C and poured at about 93 °C: common practice, no source. Below this it does not melt through. */
const GEL_HEAT = 10_700;
const GEL_POUR = 9_300;

export interface SafetyMaterials {
  waxes: { name: string; family: string }[];
  fragrances: { name: string; flashPoint: number | null }[];
  dyes?: { name: string; kind: string }[];
  /** Of the candles that are planned. */
  wicks?: { name: string; kind: string }[];
  process?: Pick<Process, "steps"> & { name?: string };
}

export interface GelFault {
  of: "fragrance" | "dye" | "wick" | "process";
  /** "stop": is not saved nor started. "warn": look again. */
  weight: "stop" | "warn";
  message: string;
}

/**
 * Returns everything that stands against these materials, wicks and process in one gel candle; nothing where no gel is in it. Elsewhere a flash point
 * only informs, since makers differ; in gel it stops. Gel takes liquid dye only. The supplier's sheet comes first.
 */
export function gelFaults({ waxes, fragrances, dyes = [], wicks = [], process }: SafetyMaterials, unit: TemperatureUnit): GelFault[] {
  const wax = waxes.find((wax) => wax.family === "gel");
  if (!wax) return [];
  const t = (centi: number) => writeTemperature(centi, unit);
  const faults: GelFault[] = [];
  for (const oil of fragrances) {
    if (oil.flashPoint === null)
      faults.push({
        of: "fragrance",
        weight: "stop",
        message: `${wax.name} is a gel, and the flash point of ${oil.name} is not on the shelf. Gel takes only oils that flash above ${t(GEL_FLASH_POINT)}: put it in from the supplier's sheet.`,
      });
    else if (oil.flashPoint <= GEL_FLASH_POINT)
      faults.push({
        of: "fragrance",
        weight: "stop",
        message: `${oil.name} flashes at ${t(oil.flashPoint)}. In gel only oils that flash above ${t(GEL_FLASH_POINT)} may be used: choose another oil or another wax.`,
      });
  }
  for (const dye of dyes.filter((dye) => dye.kind !== "liquid"))
    faults.push({
      of: "dye",
      weight: "stop",
      message: `${dye.name} is a ${dye.kind} dye, and ${wax.name} is a gel, which takes liquid dye only: choose a liquid dye.`,
    });
  for (const wick of wicks.filter((wick) => wick.kind !== "zinc core"))
    faults.push({
      of: "wick",
      weight: "warn",
      message: `${wick.name} is a ${wick.kind} wick. Gel is burned with zinc core, one size up from paraffin: others drown or fall over.`,
    });
  const [heat] = recordedBy(process?.steps ?? [], "heat_c");
  const heated = heat && rangeOfStep(heat);
  if (heated && heated.high < GEL_POUR)
    faults.push({
      of: "process",
      weight: "warn",
      message: `${process?.name ? `“${process.name}”` : "The process"} heats to ${t(heated.high)}. Gel is heated to about ${t(GEL_HEAT)} and poured at about ${t(GEL_POUR)}: choose a process for gel, and keep to the supplier's sheet.`,
    });
  return faults;
}
