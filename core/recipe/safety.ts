import { type TemperatureUnit, writeTemperature } from "../units/temperature";

/** In gel only oils with a flash point above 77 °C / 170 °F: common practice, no source. Hundredths of °C. */
export const GEL_FLASH_POINT = 7_700;

export interface SafetyMaterials {
  waxes: { name: string; family: string }[];
  fragrances: { name: string; flashPoint: number | null }[];
  dyes?: { name: string; kind: string }[];
}

/**
 * Why these materials must not go into one candle; null where nothing is known against it. Elsewhere a flash point only
 * informs, since makers differ; in gel it stops. Gel takes liquid dye only. The supplier's sheet comes first.
 */
export function mustNotMix({ waxes, fragrances, dyes = [] }: SafetyMaterials, unit: TemperatureUnit): { of: "fragrance" | "dye"; message: string } | null {
  const wax = waxes.find((one) => one.family === "gel");
  if (!wax) return null;
  const limit = writeTemperature(GEL_FLASH_POINT, unit);
  for (const oil of fragrances) {
    if (oil.flashPoint === null)
      return {
        of: "fragrance",
        message: `${wax.name} is a gel, and the flash point of ${oil.name} is not on the shelf. Gel takes only oils that flash above ${limit}: put it in from the supplier's sheet.`,
      };
    if (oil.flashPoint <= GEL_FLASH_POINT)
      return {
        of: "fragrance",
        message: `${oil.name} flashes at ${writeTemperature(oil.flashPoint, unit)}. In gel only oils that flash above ${limit} may be used: choose another oil or another wax.`,
      };
  }
  const dye = dyes.find((one) => one.kind !== "liquid");
  if (dye) return { of: "dye", message: `${dye.name} is a ${dye.kind} dye, and ${wax.name} is a gel, which takes liquid dye only: choose a liquid dye.` };
  return null;
}
