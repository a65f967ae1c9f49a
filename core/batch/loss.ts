import { poursOf } from "../process/process";
import type { BatchPlan } from "./plan";
import { type BatchState, partKey } from "./state";

const potOf = (step: { pot?: number | undefined }): number => step.pot ?? 0;

/** Returns whether every pour of a pot is done. */
export const isPoured = (plan: BatchPlan, state: Pick<BatchState, "pours">, pot: number): boolean =>
  poursOf(plan.process.steps).every((step) => potOf(step) !== pot || state.pours[step.id] !== undefined);

/** Returns what was weighed and counted into a pot and not lost again, by component: milligrams; a dye that is counted by the weight of its drops. */
function inPot(plan: BatchPlan, state: BatchState, pot: number): { mg: number; total: number } {
  const taken = Object.values(state.splits);
  const base = taken.find((item) => item.pot === pot)?.mg ?? 0;
  const passedOn = taken.reduce((sum, item) => sum + (plan.pots[item.pot]?.restOf === pot ? item.mg : 0), 0);
  const total =
    base +
    (plan.pots[pot]?.components ?? []).reduce((sum, part) => {
      const key = partKey(pot, part.id);
      return sum + (state.weighed[key]?.mg ?? 0) + (state.counted[key]?.n ?? 0) * (part.count?.eachMg ?? 0);
    }, 0);
  // What earlier pours took out of it stands in the jars already.
  const poured = poursOf(plan.process.steps)
    .filter((step) => potOf(step) === pot)
    .flatMap((step) => (state.pours[step.id]?.filled ?? []).map((item) => ({ ...item, share: step.share })))
    .reduce((sum, { product, count, share }) => sum + (count * (plan.products.find((item) => item.key === product)?.fillMg ?? 0) * share) / 1_000_000, 0);
  return { mg: Math.max(0, total - poured - passedOn), total };
}

/** Returns milligrams that are in a pot now. */
export const leftInPot = (plan: BatchPlan, state: BatchState, pot: number): number => Math.round(inPot(plan, state, pot).mg);

/** From this share of a pot on, what is lost is taken to be all of it: scales and hands differ a little. */
const ALL_OF_IT = 0.99;

/**
 * Takes what was lost out of a pot, in place, each component by its share, so that it is weighed again; and what was done with the pot since (heated,
 * stirred, read) is to be done again. `mg` null: all that is in it. Does nothing once the pot is poured.
 */
export function loseFromPot(plan: BatchPlan, state: BatchState, pot: number, mg: number | null): void {
  const { mg: there, total } = inPot(plan, state, pot);
  // What a pot was taken from another with cannot be weighed again: it goes on with what is left.
  if (there <= 0 || isPoured(plan, state, pot) || plan.pots[pot]?.restOf !== undefined) return;
  const lost = mg === null || mg >= there * ALL_OF_IT ? there : mg;
  const share = lost / total;
  for (const part of plan.pots[pot]?.components ?? []) {
    const key = partKey(pot, part.id);
    const [weighed, counted] = [state.weighed[key], state.counted[key]];
    if (weighed) {
      // On an increment of its scale, so that what is missing can be weighed; all of it where all was lost.
      const increment = part.scale.resolutionUg / 1_000;
      const less = share >= 1 ? weighed.mg : Math.min(weighed.mg, Math.round((weighed.mg * share) / increment) * increment);
      state.lost[key] = (state.lost[key] ?? 0) + less;
      if (weighed.mg > less) state.weighed[key] = { ...weighed, mg: weighed.mg - less };
      else delete state.weighed[key];
    }
    if (counted) {
      const less = Math.round(counted.n * share);
      state.lost[key] = (state.lost[key] ?? 0) + less;
      if (counted.n > less) state.counted[key] = { ...counted, n: counted.n - less };
      else delete state.counted[key];
    }
  }
  const steps = plan.process.steps.filter((step) => potOf(step) === pot);
  const lastPour = steps.findLastIndex((step) => state.pours[step.id] !== undefined);
  for (const step of steps.slice(lastPour + 1)) {
    delete state.reads[step.id];
    delete state.observed[step.id];
    delete state.did[step.id];
  }
  state.onHeat = null;
}

/** Returns whether something of a component was lost from a pot that is still to be poured: it is weighed again. */
export const isLost = (plan: BatchPlan, state: BatchState, pot: number, componentId: string): boolean =>
  (state.lost[partKey(pot, componentId)] ?? 0) > 0 && !isPoured(plan, state, pot);
