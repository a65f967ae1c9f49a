import { restOf } from "../../process/process";
import { LARGEST_MASS_MG } from "../../units/mass";
import { incrementMg } from "../../weigh-out/increments";
import { leftInPot } from "../loss";
import type { BatchPlan } from "../plan";
import { type BatchState, partKey } from "../state";
import { atWork, batchEvent, noSuchStep, stepOf } from "./event-type";

/** A difference from the plan of less than this share is that of scales and hands: what is added stays as planned. */
const SMALL = 0.005;

/** Returns what is in a pot for those that are to be taken from it, of which this one is taken now: by the plan's shares. */
function shareOfRest(plan: BatchPlan, state: BatchState, pot: number, from: number): number {
  const taken = new Set(Object.values(state.splits).map((item) => item.pot));
  const waiting = plan.pots.filter((other, index) => other.restOf === from && !taken.has(index)).reduce((sum, other) => sum + (other.baseMg ?? 0), 0);
  const left = leftInPot(plan, state, from);
  return waiting > 0 ? Math.round((left * (plan.pots[pot]?.baseMg ?? 0)) / waiting) : left;
}

/** What is left of a pot was taken as a pot of its own, weighed or not: what is added to it is set to what it really is. Milligrams. */
export const split = batchEvent({
  kind: "split",
  version: 1,
  payload: ({ z }) => z.object({ step: z.string().max(60), mg: z.number().int().min(1, "The weight must be more than zero.").max(LARGEST_MASS_MG).nullable() }),
  validate: (state, payload, plan) => {
    const step = stepOf(plan, payload.step);
    if (!step || restOf(plan.process.steps, step.pot ?? 0) === undefined) return noSuchStep;
    return atWork(state) ?? (state.splits[payload.step] ? { field: "kind", message: "This rest is recorded already. Correct that entry to change it." } : null);
  },
  apply: (state, { payload, happenedAt }, plan) => {
    const step = stepOf(plan, payload.step);
    const pot = step?.pot ?? 0;
    const planned = plan.pots[pot];
    const mg = payload.mg ?? shareOfRest(plan, state, pot, planned?.restOf ?? 0);
    state.splits[payload.step] = { at: happenedAt, pot, mg, isWeighed: payload.mg !== null };
    state.onHeat = null;
    const factor = planned?.baseMg ? mg / planned.baseMg : 1;
    if (!planned || Math.abs(factor - 1) <= SMALL) return;
    for (const part of planned.components) {
      const increment = part.scale.resolutionUg;
      state.targets[partKey(pot, part.id)] = part.count
        ? Math.max(1, Math.round(part.count.n * factor))
        : Math.max(incrementMg(1, increment), incrementMg(Math.round((part.mg * factor * 1_000) / increment), increment));
    }
  },
  correctableField: { field: "mg", label: "What was left", is: "mass" },
  describe: (payload, plan, say) => {
    const step = stepOf(plan, payload.step);
    const from = restOf(plan.process.steps, step?.pot ?? 0) ?? 0;
    return {
      what: `rest of pot ${from + 1} taken as pot ${(step?.pot ?? 0) + 1}${payload.mg === null ? ", not weighed" : ""}`,
      ...(payload.mg === null ? {} : { figure: say.g(payload.mg) }),
    };
  },
  columns: (payload) => (payload.mg === null ? {} : { grams: payload.mg / 1_000 }),
});
