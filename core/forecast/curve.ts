import { type CoolingLaw, excessAt, minuteOf, USUAL_BEND } from "./law";

/** A fall of a pot at once, as when cool oil goes in: by how much its excess over the room is divided, as a logarithm with its standard deviation. */
export interface Step {
  minute: number;
  by: number;
  spread: number;
}

/** What the curve of a pot has beside the law of cooling. */
export interface CurveShape {
  /** The minute of the first reading. */
  from: number;
  /** In the order of their minutes. */
  steps: readonly Step[];
  /** °C above the room from which down its wax sets and gives off heat; null if that is not reckoned with. */
  setsBelow: number | null;
}
export const PLAIN = { steps: [], setsBelow: null } as const;

/**
 * Wax that sets cools slower by about so much, as a logarithm with its standard deviation: it gives up 60 to 180 kJ/kg over some ten to
 * twenty degrees, beside 2.0 to 2.6 kJ/(kg·K) that it gives up anyway. Handbook ranges of paraffin's heat of fusion and freezing, from memory.
 */
const SETTING = { by: Math.log(3), spread: 0.55 };
/** Pots in moving air bend less than free convection makes them, pots that radiate much bend more. */
const SPREAD_OF_BEND = 0.13;

/**
 * Returns the initial parameters of a cooling curve: excess temperature at its start, ln of the rate, bend, one drop for each step, and
 * one for setting wax.
 */
export const startOf = (excess: number, lnRate: number, { steps, setsBelow }: CurveShape): number[] => [
  excess,
  lnRate,
  USUAL_BEND,
  ...steps.map((step) => step.by),
  ...(setsBelow === null ? [] : [SETTING.by]),
];

/** Returns the deviations of the parameters from their prior means, each in its own standard deviations. */
export const unlikelihood = (p: readonly number[], lnRate: number, spreadOfRate: number, { steps, setsBelow }: CurveShape): number[] => [
  ((p[1] as number) - lnRate) / spreadOfRate,
  ((p[2] as number) - USUAL_BEND) / SPREAD_OF_BEND,
  ...steps.map((step, index) => ((p[3 + index] as number) - step.by) / step.spread),
  ...(setsBelow === null ? [] : [((p.at(-1) as number) - SETTING.by) / SETTING.spread]),
];

/** The same law in wax that has begun to set. */
const slowed = (law: CoolingLaw, excess: number, from: number, factor: number): CoolingLaw => ({ ...law, excess, from, rate: law.rate / factor });

interface Curve {
  /** °C above the room at a minute. */
  excessAt: (minute: number) => number;
  /** When it has fallen to so many °C above the room, after the last step; null if it never does. */
  minuteOf: (target: number) => number | null;
  /** The law after the last step. */
  law: CoolingLaw;
}

/** Returns the curve that parameters stand for. */
export function curveOf(p: readonly number[], { from, steps, setsBelow }: CurveShape): Curve {
  const factor = setsBelow === null ? 1 : Math.exp(p.at(-1) as number);
  const at = (law: CoolingLaw, minute: number): number => {
    if (setsBelow === null) return excessAt(law, minute);
    if (law.excess <= setsBelow) return excessAt(slowed(law, law.excess, law.from, factor), minute);
    const sets = minuteOf(law, setsBelow);
    return sets === null || minute <= sets ? excessAt(law, minute) : excessAt(slowed(law, setsBelow, sets, factor), minute);
  };
  const laws: CoolingLaw[] = [{ excess: p[0] as number, from, rate: Math.exp(p[1] as number), bend: p[2] as number }];
  steps.forEach((step, n) => {
    const before = laws.at(-1) as CoolingLaw;
    laws.push({ ...before, excess: at(before, step.minute) / Math.exp(p[3 + n] as number), from: step.minute });
  });
  const last = laws.at(-1) as CoolingLaw;
  return {
    law: last,
    excessAt: (minute) => at(laws.findLast((law, n) => n === 0 || law.from <= minute) as CoolingLaw, minute),
    minuteOf: (target) => {
      if (target <= 0) return null;
      if (setsBelow === null || target >= setsBelow) return minuteOf(last, target);
      if (last.excess <= setsBelow) return minuteOf(slowed(last, last.excess, last.from, factor), target);
      const sets = minuteOf(last, setsBelow);
      return sets === null ? null : minuteOf(slowed(last, setsBelow, sets, factor), target);
    },
  };
}
