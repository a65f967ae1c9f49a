import { poursOf } from "../process/process";
import { type BatchFacts, partKey } from "./facts";
import type { BatchPlan } from "./plan";

const potOf = (act: { pot?: number | undefined }): number => act.pot ?? 0;

/** Whether every pour of a pot is done. */
export const isPoured = (plan: BatchPlan, facts: Pick<BatchFacts, "pours">, pot: number): boolean =>
  poursOf(plan.process.acts).every((act) => potOf(act) !== pot || facts.pours[act.id] !== undefined);

/** What was weighed and counted into a pot and not lost again, by component: milligrams; a dye that is counted by the weight of its drops. */
function inPot(plan: BatchPlan, facts: BatchFacts, pot: number): { mg: number; total: number } {
  const total = (plan.pots[pot]?.components ?? []).reduce((sum, part) => {
    const key = partKey(pot, part.id);
    return sum + (facts.weighed[key]?.mg ?? 0) + (facts.counted[key]?.n ?? 0) * (part.count?.eachMg ?? 0);
  }, 0);
  // What earlier pours took out of it stands in the jars already.
  const poured = poursOf(plan.process.acts)
    .filter((act) => potOf(act) === pot)
    .flatMap((act) => (facts.pours[act.id]?.filled ?? []).map((one) => ({ ...one, share: act.share })))
    .reduce((sum, { product, count, share }) => sum + (count * (plan.products.find((one) => one.key === product)?.fillMg ?? 0) * share) / 1_000_000, 0);
  return { mg: Math.max(0, total - poured), total };
}

/** Milligrams that are in a pot now. */
export const leftInPot = (plan: BatchPlan, facts: BatchFacts, pot: number): number => Math.round(inPot(plan, facts, pot).mg);

/** From this share of a pot on, what is lost is taken to be all of it: scales and hands differ a little. */
const ALL_OF_IT = 0.99;

/**
 * Takes what was lost out of a pot, in place, each component by its share, so that it is weighed again; and what was done with the pot since (heated,
 * stirred, read) is to be done again. `mg` null: all that is in it. Does nothing once the pot is poured.
 */
export function loseFromPot(plan: BatchPlan, facts: BatchFacts, pot: number, mg: number | null): void {
  const { mg: there, total } = inPot(plan, facts, pot);
  if (there <= 0 || isPoured(plan, facts, pot)) return;
  const lost = mg === null || mg >= there * ALL_OF_IT ? there : mg;
  const share = lost / total;
  for (const part of plan.pots[pot]?.components ?? []) {
    const key = partKey(pot, part.id);
    const [weighed, counted] = [facts.weighed[key], facts.counted[key]];
    if (weighed) {
      // On an increment of its scale, so that what is missing can be weighed; all of it where all was lost.
      const increment = part.scale.resolutionUg / 1_000;
      const less = share >= 1 ? weighed.mg : Math.min(weighed.mg, Math.round((weighed.mg * share) / increment) * increment);
      facts.lost[key] = (facts.lost[key] ?? 0) + less;
      if (weighed.mg > less) facts.weighed[key] = { ...weighed, mg: weighed.mg - less };
      else delete facts.weighed[key];
    }
    if (counted) {
      const less = Math.round(counted.n * share);
      facts.lost[key] = (facts.lost[key] ?? 0) + less;
      if (counted.n > less) facts.counted[key] = { ...counted, n: counted.n - less };
      else delete facts.counted[key];
    }
  }
  const acts = plan.process.acts.filter((act) => potOf(act) === pot);
  const lastPour = acts.findLastIndex((act) => facts.pours[act.id] !== undefined);
  for (const act of acts.slice(lastPour + 1)) {
    delete facts.reads[act.id];
    delete facts.did[act.id];
  }
  facts.onHeat = null;
}

/** Whether something of a component was lost from a pot that is still to be poured: it is weighed again. */
export const isLost = (plan: BatchPlan, facts: BatchFacts, pot: number, componentId: string): boolean =>
  (facts.lost[partKey(pot, componentId)] ?? 0) > 0 && !isPoured(plan, facts, pot);
