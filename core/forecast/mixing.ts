/** Something that goes into a pot: grams, °C, and its heat capacity in kJ/(kg·K). */
export interface Portion {
  massG: number;
  celsius: number;
  capacity: number;
}

/**
 * Heat capacities in kJ/(kg·K): molten paraffin about 2.5 (handbooks give 2.1 to 2.9 over its kinds and temperatures), oils about 1.9.
 * Values from memory; a natural wax is taken for a paraffin.
 */
export const CAPACITY = { wax: 2.5, oil: 1.9 } as const;

/** Returns what portions come to when they are stirred together and lose nothing: Σ m c T / Σ m c (heat balance of any handbook). °C. */
export function mixed(portions: readonly Portion[]): number {
  const of = (portion: Portion) => portion.massG * portion.capacity;
  const all = portions.reduce((sum, portion) => sum + of(portion), 0);
  if (!(all > 0)) throw new RangeError("nothing is mixed");
  return portions.reduce((sum, portion) => sum + of(portion) * portion.celsius, 0) / all;
}
