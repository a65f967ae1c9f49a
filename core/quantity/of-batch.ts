import type { BatchPlan } from "../batch/plan";
import type { BatchState } from "../batch/state";
import { namedLines } from "../product/named-lines";
import { answerQuantity, type Grams } from "./quantity";
import type { QuantityRulesId } from "./rules";
import { MAX_STATED_G, MIN_STATED_G } from "./rules";
import type { QuantityAnswer } from "./schema";

/** The net weights of one product of a batch against what it is sold with. */
export interface NetOf {
  product: string;
  name: string;
  statedMg: number;
  weighed: number;
  answer: QuantityAnswer;
}

/**
 * Returns whether what was weighed at pouring holds what is stated, for each product that is sold by weight. Of a product that is poured
 * in several goes nothing is said: a weight at one of them is not its net weight.
 */
export function netOfBatch(plan: BatchPlan, state: Pick<BatchState, "pours">, grams?: Grams, rules?: QuantityRulesId): NetOf[] {
  const pours = Object.values(state.pours);
  return namedLines(plan.products).flatMap((product): NetOf[] => {
    const stated = product.statedFillMg / 1_000;
    const mine = pours.filter((pour) => pour.filled.some((item) => item.product === product.key && item.count > 0));
    const filled = mine.flatMap((pour) => pour.filled.filter((item) => item.product === product.key));
    const weights = filled.flatMap((item) => item.weightsMg ?? []);
    if (!product.soldByWeight || product.part || mine.length !== 1 || weights.length === 0 || stated < MIN_STATED_G || stated > MAX_STATED_G) return [];
    const lot = filled.reduce((sum, item) => sum + item.count, 0);
    const answer = answerQuantity({ stated_g: stated, weights_g: weights.map((mg) => mg / 1_000), lot, rules }, grams);
    return [{ product: product.key, name: product.name, statedMg: product.statedFillMg, weighed: weights.length, answer }];
  });
}
