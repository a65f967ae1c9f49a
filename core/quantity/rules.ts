/** The weights in grams that the rules for packed goods cover. */
export const MIN_STATED_G = 5;
export const MAX_STATED_G = 10_000;

/**
 * Rules for goods that are packed by weight, from memory: directive 76/211/EEC, annexes I and II, and NIST Handbook 133, tables 2-1 and 2-5.
 * Local rules may differ.
 */
export interface QuantityRules {
  id: "eu" | "us";
  name: string;
  /** Samples by the size of the lot: how many are weighed, how many of them may fall short by more than the error, enough for the mean. */
  plans: readonly { upTo: number; sample: number; mayFall: number; forMean: number }[];
  /** The smallest sample that the rules know, and how many of it may fall short. */
  smallest: { sample: number; mayFall: number };
  /** By how much a pack may fall short of what it states, in grams. */
  errorG: (statedG: number) => number;
  /** A sample's mean may lie below by t(this share, n − 1) / √n standard deviations. */
  meanShare: number;
  /** The share of a whole lot that may fall short by more than the error. */
  shareOfLot: number;
  /** Whether one pack that falls short by more than twice the error fails the sample. */
  neverTwice: boolean;
}

/** Up to the next tenth, but not for what only a binary fraction adds. */
export const upToTenth = (value: number) => Math.ceil(Math.round(value * 1e6) / 1e5) / 10;

/** Directive 76/211/EEC, annex I, 2.4: tolerable negative error, by stated grams. */
const EU_ERRORS: readonly { upTo: number; grams?: number; percent?: number }[] = [
  { upTo: 50, percent: 9 },
  { upTo: 100, grams: 4.5 },
  { upTo: 200, percent: 4.5 },
  { upTo: 300, grams: 9 },
  { upTo: 500, percent: 3 },
  { upTo: 1_000, grams: 15 },
  { upTo: Number.POSITIVE_INFINITY, percent: 1.5 },
];

/** Annex II, single sampling, where weighing does not spoil the pack; 20 of which 1 may fall short where it does. */
const EU: QuantityRules = {
  id: "eu",
  name: "directive 76/211/EEC",
  plans: [
    { upTo: 500, sample: 50, mayFall: 3, forMean: 30 },
    { upTo: 3_200, sample: 80, mayFall: 5, forMean: 50 },
    { upTo: Number.POSITIVE_INFINITY, sample: 125, mayFall: 7, forMean: 50 },
  ],
  smallest: { sample: 20, mayFall: 1 },
  errorG: (stated) => {
    const step = EU_ERRORS.find((euError) => stated <= euError.upTo) as (typeof EU_ERRORS)[number];
    return upToTenth(step.grams ?? (stated * (step.percent ?? 0)) / 100);
  },
  meanShare: 0.995,
  shareOfLot: 0.025,
  neverTwice: true,
};

const GRAMS_PER_POUND = 453.59237;
/** NIST Handbook 133, table 2-5: maximum allowable variation in pounds, below so many pounds stated; under the first 10 % of what is stated. */
const US_ERRORS: readonly [below: number, pounds: number][] = [
  [0.12, 0.008],
  [0.18, 0.012],
  [0.26, 0.016],
  [0.34, 0.02],
  [0.46, 0.024],
  [0.58, 0.028],
  [0.7, 0.032],
  [0.84, 0.036],
  [0.94, 0.04],
  [1.08, 0.044],
  [1.26, 0.048],
  [1.4, 0.052],
  [1.54, 0.056],
  [1.7, 0.06],
  [1.88, 0.064],
  [2.14, 0.07],
  [2.48, 0.078],
  [2.76, 0.086],
  [3.2, 0.094],
  [3.9, 0.11],
  [4.7, 0.12],
  [5.8, 0.14],
  [6.8, 0.15],
  [7.9, 0.17],
  [9.4, 0.19],
  [11.7, 0.22],
  [14.3, 0.25],
  [17.7, 0.28],
  [23.2, 0.31],
];
const TENTH_BELOW_POUNDS = 0.08;

/** Category A of table 2-1: the average requirement with its sample error limit, and the maximum allowable variation of single packs. */
const US: QuantityRules = {
  id: "us",
  name: "NIST Handbook 133",
  plans: [
    { upTo: 250, sample: 12, mayFall: 0, forMean: 12 },
    { upTo: 3_200, sample: 24, mayFall: 0, forMean: 24 },
    { upTo: Number.POSITIVE_INFINITY, sample: 48, mayFall: 1, forMean: 48 },
  ],
  smallest: { sample: 12, mayFall: 0 },
  errorG: (stated) => {
    const pounds = stated / GRAMS_PER_POUND;
    const step = US_ERRORS.find(([below]) => pounds < below) as (typeof US_ERRORS)[number];
    return Math.round((pounds < TENTH_BELOW_POUNDS ? stated / 10 : step[1] * GRAMS_PER_POUND) * 10) / 10;
  },
  meanShare: 0.975,
  shareOfLot: 0,
  neverTwice: false,
};

export const QUANTITY_RULES = { eu: EU, us: US } as const;
export type QuantityRulesId = keyof typeof QUANTITY_RULES;

/** Returns the rules of a workshop, by the country of its manner of writing. */
export const quantityRulesOf = (locale: string | undefined): QuantityRulesId => (locale?.endsWith("-US") ? "us" : "eu");
