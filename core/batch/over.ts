import { incrementMg, incrementUp } from "../weigh-out/increments";
import { weighedLoad } from "./phase";
import type { BatchPlan, Component } from "./plan";
import { type BatchState, countedTarget, partKey, targetOf } from "./state";

/** A component of which more was weighed than planned, and what can be done about it. */
export interface Over {
  pot: number;
  component: Component;
  /** Milligrams, or drops and pieces of what is counted. */
  given: number;
  asked: number;
  /** The load as it is now, in percent of the wax; null if wax or fragrance is still to come. */
  loadNow: number | null;
  /** The weights that would bring the rest of the pot to it, on their marks; empty if that is no help. */
  targets: { componentId: string; mg: number }[];
  /** What the pot would then weigh. */
  totalMg: number;
}

/** A weight above this share of what was asked is too much: the scale's mark is allowed for beside it. */
const TOLERANCE = 0.005;
/** Above this multiple of the planned weight an entry is probably a typing error, and is confirmed before it is recorded. */
export const IMPLAUSIBLE = 1.5;
/** A pot is not made larger than this many times what was planned. */
const MAX_RESCALE = 2;

/** Returns whether so much of a component looks like a mistyped number: 437 for 43.7, 60 drops for 7. */
export const isImplausible = (given: number, asked: number): boolean => asked > 0 && given > asked * IMPLAUSIBLE && given - asked > Math.min(asked, 2);

/** Returns the component of which a pot holds most above the plan; null if there is none. */
export function overOf(plan: BatchPlan, state: BatchState, pot: number): Over | null {
  let worst: Over | null = null;
  const parts = plan.pots[pot]?.components ?? [];
  for (const component of parts) {
    const key = partKey(pot, component.id);
    const asked = component.count ? countedTarget(state, pot, component) : targetOf(state, pot, component);
    const given = component.count ? (state.counted[key]?.n ?? 0) : (state.weighed[key]?.mg ?? 0);
    const mark = component.count ? 0 : component.scale.resolutionUg / 1_000;
    if (given <= asked * (1 + TOLERANCE) + mark) continue;
    const factor = asked > 0 ? given / asked : Number.POSITIVE_INFINITY;
    if (worst && factor <= worst.given / worst.asked) continue;
    // What a pot was taken from another with cannot be made more.
    const helps = !component.count && factor <= MAX_RESCALE && plan.pots[pot]?.restOf === undefined;
    const targets = helps
      ? parts
          .filter((part) => !part.count)
          .map((part) => {
            if (part.id === component.id) return { componentId: part.id, mg: given };
            const { resolutionUg } = part.scale;
            return {
              componentId: part.id,
              mg: Math.max(
                state.weighed[partKey(pot, part.id)]?.mg ?? 0,
                incrementMg(incrementUp(targetOf(state, pot, part) * factor, resolutionUg), resolutionUg),
              ),
            };
          })
      : [];
    worst = { pot, component, given, asked, loadNow: weighedLoad(plan, state, pot), targets, totalMg: targets.reduce((sum, item) => sum + item.mg, 0) };
  }
  return worst;
}
