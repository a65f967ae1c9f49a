import { type TemperatureUnit, writeTemperature } from "../quantity/temperature";

/** In gel only oils with a flash point above 77 °C / 170 °F: common practice, no source. Hundredths of °C. */
export const GEL_FLASH_POINT = 7_700;

export interface SafetyMaterials {
  wax: { name: string; family: string };
  fragrance: { name: string; flashPoint: number | null } | null;
}

/**
 * Why these materials must not go into one candle; null where nothing is known against it. Elsewhere a flash point only
 * informs, since makers differ; in gel it stops. The supplier's sheet comes first.
 */
export function mustNotMix({ wax, fragrance }: SafetyMaterials, unit: TemperatureUnit): string | null {
  if (wax.family !== "gel" || !fragrance) return null;
  const limit = writeTemperature(GEL_FLASH_POINT, unit);
  if (fragrance.flashPoint === null)
    return `${wax.name} is a gel, and the flash point of ${fragrance.name} is not on the shelf. Gel takes only oils that flash above ${limit}: put it in from the supplier's sheet.`;
  if (fragrance.flashPoint > GEL_FLASH_POINT) return null;
  return `${fragrance.name} flashes at ${writeTemperature(fragrance.flashPoint, unit)}. In gel only oils that flash above ${limit} may be used: choose another oil or another wax.`;
}
