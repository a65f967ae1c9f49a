/** Expected moving range of two values of a normal distribution, in standard deviations; 3 / D2 = 2.66. */
const D2 = 1.128;
/** Upper limit of a moving range of two, in mean moving ranges. */
const D4 = 3.267;

/** Which runs rule a point breaks. */
export const RUNS_RULES = {
  beyond: "one beyond three standard deviations",
  "two of three": "two of three beyond two standard deviations, on one side",
  "four of five": "four of five beyond one standard deviation, on one side",
  "eight in a row": "eight in a row on one side of the mean",
} as const;
export type RunsRule = keyof typeof RUNS_RULES;

export interface IndividualsChart {
  mean: number;
  low: number;
  high: number;
  /** Mean moving range, and its upper limit. */
  range: number;
  rangeHigh: number;
  /** Points that tell of more than chance, with the first rule that says so. */
  signals: { at: number; rule: RunsRule }[];
}

/** Fewer values set no limits. */
export const MIN_VALUES = 8;

/**
 * Returns a control chart of single values: limits from the mean moving range, as in the NIST/SEMATECH e-Handbook 6.3.2.2; runs rules of
 * Western Electric as given there (6.3.2). Null with fewer than eight values.
 */
export function individuals(values: readonly number[]): IndividualsChart | null {
  if (values.length < MIN_VALUES) return null;
  const mean = values.reduce((a, b) => a + b, 0) / values.length;
  const range = values.slice(1).reduce((sum, value, at) => sum + Math.abs(value - (values[at] as number)), 0) / (values.length - 1);
  const sigma = range / D2;
  const z = values.map((value) => (sigma > 0 ? (value - mean) / sigma : 0));
  const past = (from: number, many: number, beyond: number, side: 1 | -1) =>
    z.slice(Math.max(0, from), from + many).filter((value) => value * side > beyond).length;
  const signals = z.flatMap((value, index): IndividualsChart["signals"] => {
    if (Math.abs(value) > 3) return [{ at: index, rule: "beyond" }];
    for (const side of [1, -1] as const) {
      if (index >= 2 && value * side > 2 && past(index - 2, 3, 2, side) >= 2) return [{ at: index, rule: "two of three" }];
      if (index >= 4 && value * side > 1 && past(index - 4, 5, 1, side) >= 4) return [{ at: index, rule: "four of five" }];
      if (index >= 7 && past(index - 7, 8, 0, side) === 8) return [{ at: index, rule: "eight in a row" }];
    }
    return [];
  });
  return { mean, low: mean - (3 / D2) * range, high: mean + (3 / D2) * range, range, rangeHigh: D4 * range, signals };
}
