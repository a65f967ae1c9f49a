/** A reading of a pot: minutes on a clock of its own, and °C. */
export interface PotReading {
  minute: number;
  celsius: number;
}

/**
 * How an open pot cools: the excess over the room falls the faster the larger it is, a little more than in proportion, since natural
 * convection (Newton's coefficient rising with the fourth root of the excess: McAdams, from memory) and radiation make it bend:
 * d(excess)/dt = −rate · (excess / 40)^(1 + bend).
 */
export interface CoolingLaw {
  /** °C above the room when the clock of the readings stands at `from`. */
  excess: number;
  from: number;
  /** °C a minute at 40 °C above the room. */
  rate: number;
  /** 0 is Newton's law; about 0.25 is free convection alone. */
  bend: number;
}

export const AT = 40;

/** °C above the room at a minute. */
export function excessAt({ excess, from, rate, bend }: CoolingLaw, minute: number): number {
  const passed = ((minute - from) * rate) / AT;
  if (Math.abs(bend) < 1e-6) return excess * Math.exp(-passed);
  const power = (excess / AT) ** -bend + bend * passed;
  return power <= 0 ? Number.POSITIVE_INFINITY : AT * power ** (-1 / bend);
}

/** Returns the minute at which the excess temperature has fallen to a value; null unless that value is above zero. */
export function minuteOf({ excess, from, rate, bend }: CoolingLaw, target: number): number | null {
  if (target <= 0) return null;
  const passed = Math.abs(bend) < 1e-6 ? Math.log(excess / target) : ((target / AT) ** -bend - (excess / AT) ** -bend) / bend;
  return from + (passed * AT) / rate;
}

/**
 * How pots cool before anything was read of one: a kilogram in a metal pitcher falls by Newton's law with 85 minutes, like bodies with the
 * third root of their mass (an assumption, no source), give or take a factor of 1.6; and it bends by 0.19, give or take 0.13.
 */
export interface TypicalCooling {
  /** Minutes for a kilogram, at 40 °C above the room. */
  minutes: number;
  /** Standard deviation of its logarithm. */
  spread: number;
  /** By how much more than the heat balance says stirring in the oil drops a pot here, and of how many pots that was read. */
  stirring?: { factor: number; pots: number };
}
export const ASSUMED: TypicalCooling = { minutes: 85, spread: 0.47 };
export const USUAL_BEND = 0.19;

export const rateOf = (typical: TypicalCooling, massG: number) => AT / (typical.minutes * Math.cbrt(massG / 1_000));

/** Returns how a pot of so many grams usually cools. */
export const typicalLaw = (excess: number, from: number, massG: number, typical: TypicalCooling | null = null): CoolingLaw => ({
  excess,
  from,
  rate: rateOf(typical ?? ASSUMED, massG),
  bend: USUAL_BEND,
});
