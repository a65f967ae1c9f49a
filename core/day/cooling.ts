/**
 * How a pot cools, until the workshop's own curves are known: Newton's law of cooling, towards the room, with a time
 * constant that grows with the mass as that of like bodies does (volume over surface). The constant is an assumption
 * without a source: 85 min for a kilogram in a metal pitcher.
 */
const MINUTES_PER_KG = 85;

/** The room temperature assumed if nothing is given, in °C. */
export const DEFAULT_ROOM = 21;

/** Returns minutes from one temperature to another, both in °C, for a pot of so many milligrams; 0 where it is there already, Infinity where the room is warmer. */
export function coolingMinutes(from: number, to: number, massMg: number, room = DEFAULT_ROOM): number {
  if (to >= from) return 0;
  if (to <= room) return Number.POSITIVE_INFINITY;
  const constant = MINUTES_PER_KG * Math.cbrt(massMg / 1_000_000);
  return constant * Math.log((from - room) / (to - room));
}

/**
 * Returns by how many °C cool oil and two minutes of stirring lower the temperature of a pot: 1–2 °C at 50–55 °C, and from 85 °C to about 71 °C;
 * between them in a straight line. Common practice, no source.
 */
export const dropByOil = (celsius: number): number => Math.max(1, 1.5 + ((celsius - 52.5) * (14 - 1.5)) / (85 - 52.5));
