import { normalBelow, tQuantile } from "../statistics/tails";
import { MAX_STATED_G, MIN_STATED_G, QUANTITY_RULES, type QuantityRules, type QuantityRulesId, upToTenth } from "./rules";
import type { QuantityAnswer, QuantityRequest } from "./schema";

/** How likely the fill that is named is to pass, at least; above the nine in ten that a maker needs. */
const CHANCE = 0.95;

export interface SamplePlan {
  /** Weighed for the tolerable error, and how many of them may fall short by more. */
  sample: number;
  mayFall: number;
  /** Enough of them for the mean. */
  forMean: number;
}
/** Returns how many packs of a lot are weighed, where weighing does not spoil them; all of a lot that is smaller than the sample. */
export function samplePlan(lot: number, rules: QuantityRulesId = "eu"): SamplePlan {
  const { plans, shareOfLot } = QUANTITY_RULES[rules];
  const { sample, mayFall, forMean } = plans.find((plan) => lot <= plan.upTo) as (typeof plans)[number];
  return lot <= sample ? { sample: lot, mayFall: Math.floor(lot * shareOfLot), forMean: Math.min(lot, forMean) } : { sample, mayFall, forMean };
}

/**
 * Returns how many of a sample may fall short by more than the error: what the plan for such a sample allows. Of more than the largest plan
 * weighs, as many as a lot with just as many as a whole lot may have stays within in 39 of 40 samples.
 */
export function mayFallOf(sample: number, { plans, smallest, shareOfLot }: QuantityRules): number {
  const [largest] = [...plans].reverse();
  if (!largest || sample <= largest.sample) return [...plans].reverse().find((plan) => plan.sample <= sample)?.mayFall ?? smallest.mayFall;
  let most = largest.mayFall;
  while (atMost(most, sample, shareOfLot) < 0.975) most += 1;
  return most;
}

/** Returns how likely no more than so many of a sample are those of a kind that makes up a share of the lot: the binomial distribution. */
function atMost(most: number, sample: number, share: number): number {
  if (share <= 0) return 1;
  if (share >= 1) return most >= sample ? 1 : 0;
  let [log, sum] = [sample * Math.log1p(-share), 0];
  for (let k = 0; k <= Math.min(most, sample); k++) {
    sum += Math.exp(log);
    log += Math.log((sample - k) / (k + 1)) + Math.log(share / (1 - share));
  }
  return Math.min(1, sum);
}

/** By how much a pack may fall short of what it states, in grams. @throws RangeError outside of 5 g to 10 kg */
export function tolerableErrorG(statedG: number, rules: QuantityRulesId = "eu"): number {
  if (!(statedG >= MIN_STATED_G && statedG <= MAX_STATED_G)) throw new RangeError("The rules cover packs of 5 g to 10 kg.");
  return QUANTITY_RULES[rules].errorG(statedG);
}

/** By how many standard deviations a sample's mean may lie below what is stated: t(0.995, n − 1) / √n, in the US t(0.975, n − 1) / √n. */
export const meanFactor = (n: number, rules: QuantityRulesId = "eu"): number => tQuantile(QUANTITY_RULES[rules].meanShare, n - 1) / Math.sqrt(n);

/**
 * Returns the mean fill, up to the next tenth of a gram, whose lots pass by the rules in at least nineteen of twenty cases whichever of their
 * samples is weighed, where packs are spread normally with this deviation; and how likely it is to pass.
 */
function fillToPass(statedG: number, sd: number, rules: QuantityRules, weighed: { sample: number; mayFall: number }): { fill: number; chance: number } {
  const error = rules.errorG(statedG);
  const samples = [rules.smallest, ...rules.plans, weighed];
  // Each of the conditions may fail: the chances of that are added, so that the sum is never too hopeful.
  const chanceOf = (fill: number) => {
    const short = (grams: number) => (sd > 0 ? normalBelow((statedG - grams - fill) / sd) : 0);
    const [below, twice] = [short(error), rules.neverTwice ? short(2 * error) : 0];
    const fails = samples.map(({ sample, mayFall }) => 1 - atMost(mayFall, sample, below) + (1 - (1 - twice) ** sample));
    return Math.max(0, rules.meanShare - Math.max(...fails));
  };
  let [low, high] = [statedG, statedG];
  while (chanceOf(high) < CHANCE) high += Math.max(sd, 0.1);
  while (high - low > 1e-4) {
    const middle = (low + high) / 2;
    if (chanceOf(middle) < CHANCE) low = middle;
    else high = middle;
  }
  const fill = chanceOf(statedG) >= CHANCE ? upToTenth(statedG) : upToTenth(high);
  return { fill, chance: chanceOf(fill) };
}

const round = (value: number) => Math.round(value * 1_000) / 1_000;

/** How a weight in grams is written. */
export type Grams = (grams: number) => string;
const inGrams: Grams = (grams) => `${grams} g`;

/** Returns whether packs hold what they state, and which fill would: by the plan for so many weighed, or as the whole lot where all are. */
export function answerQuantity(request: QuantityRequest, g: Grams = inGrams): QuantityAnswer {
  const { stated_g: stated, weights_g: weights, lot, rules: id = "eu" } = request;
  const rules = QUANTITY_RULES[id];
  const n = weights.length;
  const isWhole = lot !== undefined && n >= lot;
  const mean = weights.reduce((a, b) => a + b, 0) / n;
  const sd = n > 1 ? Math.sqrt(weights.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (n - 1)) : null;
  const error = tolerableErrorG(stated, id);
  // A scale's last digit is not compared with a pack.
  const shortBy = (grams: number) => weights.filter((weight) => stated - weight > grams + 1e-9).length;
  const [below, twice] = [shortBy(error), shortBy(2 * error)];
  const mayFall = isWhole ? Math.floor(n * rules.shareOfLot) : mayFallOf(n, rules);
  const limit = isWhole ? stated : sd === null ? null : stated - meanFactor(n, id) * sd;
  const tells = isWhole || n >= rules.smallest.sample;
  const spoiled = rules.neverTwice && twice > 0;
  const reasons = [
    ...(spoiled ? [`${twice} ${twice === 1 ? "pack falls" : "packs fall"} short by more than twice the tolerable error of ${g(error)}: none may.`] : []),
    ...(tells && below > mayFall ? [`${below} of ${n} fall short by more than ${g(error)}; at most ${mayFall} may.`] : []),
    ...(tells && limit !== null && mean < limit - 1e-9
      ? [
          isWhole
            ? `The mean of ${g(round(mean))} is below the stated ${g(stated)}.`
            : `The mean of ${g(round(mean))} is below ${g(round(limit))}, which a lot of ${g(stated)} reaches in ${id === "us" ? "39 of 40" : "199 of 200"} samples.`,
        ]
      : []),
  ];
  const few = !tells && !spoiled;
  const passing = sd === null ? null : fillToPass(stated, sd, rules, { sample: n, mayFall });
  return {
    mean_g: round(mean),
    sd_g: sd === null ? null : round(sd),
    tolerable_negative_error_g: error,
    below,
    may_fall_short: mayFall,
    below_twice: twice,
    mean_limit_g: limit === null ? null : round(limit),
    verdict: few ? "too_few" : reasons.length > 0 ? "fail" : "pass",
    why: few
      ? `${n} ${n === 1 ? "weight tells" : "weights tell"} too little: the smallest sample of the rules is ${rules.smallest.sample}.`
      : reasons.length > 0
        ? reasons.join(" ")
        : id === "us"
          ? `The average and the maximum allowable variation (${g(error)}) are kept.`
          : `Mean, tolerable error (${g(error)}) and twice of it are kept.`,
    fill_to_pass_g: passing?.fill ?? null,
    fill_passes_share: passing ? Math.floor(passing.chance * 100) / 100 : null,
  };
}
