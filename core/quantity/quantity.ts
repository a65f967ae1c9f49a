import { z } from "zod";
import { tQuantile } from "../statistics/tails";

/**
 * Net quantity of packs that are sold by weight, by the rules for pre-packed goods: directive 76/211/EEC, annexes I and II (from memory).
 * Local rules may differ.
 */
const STEPS: readonly { upTo: number; grams?: number; percent?: number }[] = [
  { upTo: 50, percent: 9 },
  { upTo: 100, grams: 4.5 },
  { upTo: 200, percent: 4.5 },
  { upTo: 300, grams: 9 },
  { upTo: 500, percent: 3 },
  { upTo: 1_000, grams: 15 },
  { upTo: 10_000, percent: 1.5 },
];
export const LEAST_STATED_G = 5;
export const MOST_STATED_G = 10_000;
/** The smallest sample of the directive's plans. */
export const LEAST_SAMPLE = 20;
/** At most so many of the packs may be below by more than the tolerable error. */
const MOST_BELOW = 0.025;

/**
 * How many packs of a lot are weighed, and how many of them may fall short, where weighing does not spoil them: directive 76/211/EEC, annex II,
 * single sampling (from memory). Lots below 100 are small: the rules for the smallest lot are taken, and all are weighed where there are fewer.
 */
const PLANS = [
  { upTo: 500, sample: 50, mayFall: 3, forMean: 30 },
  { upTo: 3_200, sample: 80, mayFall: 5, forMean: 50 },
  { upTo: Number.POSITIVE_INFINITY, sample: 125, mayFall: 7, forMean: 50 },
] as const;
export interface SamplePlan {
  /** Weighed for the tolerable error, and how many of them may fall short by more. */
  sample: number;
  mayFall: number;
  /** Enough of them for the mean. */
  forMean: number;
}
export function samplePlan(lot: number): SamplePlan {
  const { sample, mayFall, forMean } = PLANS.find((one) => lot <= one.upTo) ?? PLANS[0];
  return lot < sample ? { sample: lot, mayFall: Math.floor(lot * MOST_BELOW), forMean: Math.min(lot, forMean) } : { sample, mayFall, forMean };
}

/** Standard deviations below which one pack in forty, and one in ten thousand, of a normal spread lies. */
const [ONE_IN_FORTY, ONE_IN_TEN_THOUSAND] = [1.959964, 3.719016];

/** Up to the next tenth, but not for what only a binary fraction adds. */
const upToTenth = (value: number) => Math.ceil(Math.round(value * 1e6) / 1e5) / 10;

/** By how much a pack may fall short of what it states, in grams. @throws RangeError outside of 5 g to 10 kg */
export function tolerableErrorG(statedG: number): number {
  if (!(statedG >= LEAST_STATED_G && statedG <= MOST_STATED_G)) throw new RangeError("The rules cover packs of 5 g to 10 kg.");
  const step = STEPS.find((one) => statedG <= one.upTo) as (typeof STEPS)[number];
  return upToTenth(step.grams ?? (statedG * (step.percent ?? 0)) / 100);
}

/** By how many standard deviations a sample's mean may lie below what is stated: t(0.995, n − 1) / √n. */
export const meanFactor = (n: number): number => tQuantile(0.995, n - 1) / Math.sqrt(n);

export const quantityRequest = z.object({
  stated_g: z
    .number()
    .min(LEAST_STATED_G, `The rules for packed goods begin at ${LEAST_STATED_G} g.`)
    .max(MOST_STATED_G, `The rules for packed goods end at ${MOST_STATED_G / 1_000} kg.`),
  weights_g: z.array(z.number().positive("A weight is above 0.").max(100_000)).min(1, "At least one weight.").max(100_000).describe("net, without the vessel"),
});
export type QuantityRequest = z.output<typeof quantityRequest>;

export const quantityAnswer = z.object({
  mean_g: z.number(),
  sd_g: z.number().nullable().describe("of the sample; null with one weight"),
  tolerable_negative_error_g: z.number(),
  below: z.number().int().describe("packs that fall short by more than the tolerable error"),
  below_twice: z.number().int().describe("packs that fall short by more than twice of it: none may be sold"),
  mean_limit_g: z.number().nullable().describe("the mean must reach it"),
  verdict: z.enum(["pass", "fail", "too_few"]),
  why: z.string(),
  fill_to_pass_g: z.number().nullable().describe("the mean fill that passes with this spread, up to the next tenth of a gram"),
});
export type QuantityAnswer = z.output<typeof quantityAnswer>;

const round = (value: number) => Math.round(value * 1_000) / 1_000;

/** How a weight in grams is written. */
export type Grams = (grams: number) => string;
const inGrams: Grams = (grams) => `${grams} g`;

/** Whether packs hold what they state, and which fill would. */
export function answerQuantity({ stated_g: stated, weights_g: weights }: QuantityRequest, g: Grams = inGrams): QuantityAnswer {
  const n = weights.length;
  const mean = weights.reduce((a, b) => a + b, 0) / n;
  const sd = n > 1 ? Math.sqrt(weights.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (n - 1)) : null;
  const error = tolerableErrorG(stated);
  // A scale's last digit is not held against a pack.
  const shortBy = (grams: number) => weights.filter((one) => stated - one > grams + 1e-9).length;
  const [below, twice] = [shortBy(error), shortBy(2 * error)];
  const limit = sd === null ? null : stated - meanFactor(n) * sd;
  const reasons = [
    ...(twice > 0 ? [`${twice} ${twice === 1 ? "pack falls" : "packs fall"} short by more than twice the tolerable error of ${g(error)}: none may.`] : []),
    ...(n >= LEAST_SAMPLE && below / n > MOST_BELOW ? [`${below} of ${n} fall short by more than ${g(error)}; at most 2.5 % may.`] : []),
    ...(n >= LEAST_SAMPLE && limit !== null && mean < limit
      ? [`The mean of ${g(round(mean))} is below ${g(round(limit))}, which a lot of ${g(stated)} reaches in 199 of 200 samples.`]
      : []),
  ];
  const few = n < LEAST_SAMPLE && twice === 0;
  return {
    mean_g: round(mean),
    sd_g: sd === null ? null : round(sd),
    tolerable_negative_error_g: error,
    below,
    below_twice: twice,
    mean_limit_g: limit === null ? null : round(limit),
    verdict: few ? "too_few" : reasons.length > 0 ? "fail" : "pass",
    why: few
      ? `${n} ${n === 1 ? "weight tells" : "weights tell"} too little: the smallest sample of the rules is ${LEAST_SAMPLE}.`
      : reasons.length > 0
        ? reasons.join(" ")
        : `Mean, tolerable error (${g(error)}) and twice of it are kept.`,
    fill_to_pass_g: sd === null ? null : upToTenth(Math.max(stated, stated - error + ONE_IN_FORTY * sd, stated - 2 * error + ONE_IN_TEN_THOUSAND * sd)),
  };
}
