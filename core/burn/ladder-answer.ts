import { writeNumber } from "../units/number";
import { LADDER_STEP } from "./ladder";
import { isLadder, type Ladder, type TestCandle, type TrialPlan, testCandlesOf } from "./plan";
import type { TrialState } from "./state";
import { type VariantVerdict, variantVerdicts } from "./verdict";

/** What a ladder says, in what was varied; `isFound` where a step of it did well. */
export interface LadderAnswer {
  isFound: boolean;
  says: string;
}

const amountOf = (ladder: Ladder, item: TestCandle | undefined): number => (ladder === "load" ? (item?.loadPpm ?? 0) / 10_000 : (item?.dose?.amount ?? 0));
const wordsOf = (ladder: Ladder, amount: number, name: string): string =>
  ladder === "dye" ? `${writeNumber(amount, 0)} drops of ${name}` : ladder === "load" ? `${writeNumber(amount, 2)} %` : `${writeNumber(amount, 2)} % ${name}`;
const pointsOf = (ladder: Ladder, name: string): string =>
  ladder === "dye"
    ? `${LADDER_STEP.dye} drops`
    : `${writeNumber(LADDER_STEP[ladder], 1)} ${LADDER_STEP[ladder] === 1 ? "point" : "points"}${ladder === "load" ? "" : ` of ${name}`}`;

/** Returns whether a variant asks for more of what is varied (1), for less (-1), or for neither (0). A second wax or an additive hardens a soft candle. */
function asksFor(ladder: Ladder, verdict: VariantVerdict): -1 | 0 | 1 {
  const what = verdict.advice?.what;
  const burnsTooHot = what === "wick_down" || verdict.pool === "large" || verdict.safe === false;
  const burnsTooCool = what === "wick_up" || verdict.pool === "small";
  if (ladder === "load" || ladder === "dye") return what === "less_load_or_dye" || (ladder === "load" && burnsTooHot) ? -1 : 0;
  return burnsTooHot ? 1 : burnsTooCool ? -1 : 0;
}

/**
 * Returns what a ladder says in the terms of what was varied, "8 % is enough", "10 points of beeswax more"; null if it varies something else, or nothing of
 * it burned long enough. Common practice, no source: the least that does well is enough; a candle that is too soft asks for more of the hard part and not
 * for another wick.
 */
export function ladderAnswer(plan: TrialPlan, state: TrialState): LadderAnswer | null {
  const ladder = plan.varies;
  if (!isLadder(ladder)) return null;
  const steps = variantVerdicts(plan, state)
    .map((verdict) => {
      const item = testCandlesOf(plan, verdict.variant)[0];
      return { verdict, amount: amountOf(ladder, item), name: item?.dose?.name ?? "" };
    })
    .filter(({ verdict }) => verdict.testCandles.some((testCandle) => testCandle.sessions > 0))
    .sort((a, b) => a.amount - b.amount);
  const name = steps.find((step) => step.name)?.name ?? "";
  const [least] = steps.filter(({ verdict }) => verdict.open.length === 0);
  if (least) return { isFound: true, says: `${wordsOf(ladder, least.amount, name)} is enough.` };
  const asks = steps.map((step) => asksFor(ladder, step.verdict)).filter((ask) => ask !== 0);
  const [low, high] = [steps[0], steps.at(-1)];
  if (asks.length === 0 || !low || !high) return null;
  const isMore = asks.every((ask) => ask === 1);
  if (!isMore && !asks.every((ask) => ask === -1))
    return { isFound: false, says: `Between ${wordsOf(ladder, low.amount, name)} and ${wordsOf(ladder, high.amount, name)}: try the steps between them.` };
  const next = isMore ? high.amount + LADDER_STEP[ladder] : Math.max(0, low.amount - LADDER_STEP[ladder]);
  return { isFound: false, says: `${pointsOf(ladder, name)} ${isMore ? "more" : "less"}: try ${wordsOf(ladder, next, name)}.` };
}
