import { type BatchPlan, type BatchState, type ForecastTarget, forecastTarget, type TypicalCooling } from "@hearth/core";
import type { Running } from "@/server/batches/batches";
import type { PourFinding } from "@/server/findings/pour-finding";

/** What is forecast of a pot: when it comes into its range, and when it comes down to where the workshop's own batches turned out well. */
export type PotTargets = Record<"forecastView" | "toFinding", ForecastTarget | null>;

/** Returns what to forecast for a pot; null where nothing is ahead of it, or no finding says to wait. */
export function potTargets(plan: BatchPlan, state: BatchState, usual: TypicalCooling | null, finding: PourFinding | null): PotTargets {
  const target = forecastTarget(plan, state, usual);
  const limit = finding?.worse === "above" ? Math.round(finding.at * 100) : null;
  return {
    forecastView: target,
    toFinding: target && limit !== null ? { ...target, range: { low: Math.min(target.range.low, limit - 100), high: limit } } : null,
  };
}

/** Returns what to forecast for the pots of the bench, by their ids; null where nothing is ahead of a pot, and of a rehearsal. */
export const benchTargets = (pots: readonly Running[], usual: TypicalCooling | null): Record<string, ForecastTarget | null> =>
  Object.fromEntries(pots.map((pot) => [pot.id, pot.watch && !pot.rehearsal ? { ...pot.watch, usual } : null]));
