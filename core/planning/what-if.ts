import { timesOf } from "../process/process";
import { timeOn } from "../units/calendar";
import { type DemandLine, type DemandPlan, type DemandProduct, missOf, type PlannedPot, planDemand } from "./planning";
import type { PlanningSettings } from "./schema";
import { hoursOn, readyBy } from "./settings";

/** What a demand plan would be with one thing changed: found by planning it again. */
export interface WhatIf {
  /** "one more person", "without Rain on slate, tumbler". */
  what: string;
  /** Pieces late, and pieces with the minimum cure only, as they would be. */
  late: number;
  minimum: number;
  /** Late pieces × days. */
  lateDays: number;
}

const HOUR = 60;

/**
 * Returns which product, due day or resource limits the plan: each is changed alone and everything is planned again. The one that gains
 * most time comes first.
 */
export function whatIf(
  lines: readonly DemandLine[],
  products: readonly DemandProduct[],
  settings: PlanningSettings,
  at: { now: string; zone: string },
  demandPlan: DemandPlan,
): { now: ReturnType<typeof missOf>; would: WhatIf[] } {
  const now = missOf(demandPlan);
  const again = (what: string, other: Partial<PlanningSettings>, kept: readonly DemandLine[] = lines): WhatIf => ({
    what,
    ...missOf(planDemand(kept, products, { ...settings, ...other }, at)),
  });
  if (now.late + now.minimum === 0) return { now, would: [] };
  const missed = demandPlan.pots.filter((pot) => pot.is === "late" || pot.is === "minimum");
  const ids = new Set(missed.flatMap((pot) => pot.lines.map((line) => line.productId)));
  const days = new Set(missed.flatMap((pot) => (pot.wantedOn ? [pot.wantedOn] : [])));
  const would = [
    again("one more person", { hands: settings.hands + 1 }),
    again("one more burner", { burners: settings.burners + 1 }),
    again("pitchers of twice the size", { pitcherMg: settings.pitcherMg * 2 }),
    again("half as many places again on the table", { table: Math.ceil(settings.table * 1.5) }),
    again("an hour more each day", {
      hours: settings.hours.map((hour) => hour && { from: hour.from, to: Math.min(1_440, hour.to + HOUR) }),
    }),
    again("work on Saturdays", { hours: settings.hours.map((hour, day) => (day === 5 ? (hour ?? settings.hours.find((other) => other) ?? null) : hour)) }),
    ...[...ids].map((id) =>
      again(
        `without ${products.find((product) => product.id === id)?.name ?? ""}`,
        {},
        lines.filter((line) => line.productId !== id),
      ),
    ),
    ...[...days].map((day) =>
      again(
        `without what is wanted on ${day}`,
        {},
        lines.filter((line) => line.wantedOn !== day),
      ),
    ),
  ];
  return { now, would: would.sort((a, b) => a.lateDays - b.lateDays || a.late - b.late || a.minimum - b.minimum) };
}

/** Returns what slips where a day is lost: pots that would be late, or have only the minimum cure, and were not before. */
export function lostDay(
  day: string,
  lines: readonly DemandLine[],
  products: readonly DemandProduct[],
  settings: PlanningSettings,
  at: { now: string; zone: string },
  demandPlan: DemandPlan,
): { demandPlan: DemandPlan; slips: DemandPlan["pots"] } {
  const again = planDemand(lines, products, { ...settings, daysOff: [...settings.daysOff, day] }, at);
  const before = new Map(demandPlan.pots.map((pot) => [pot.key, pot]));
  const rank = { stock: 0, ready: 0, minimum: 1, late: 2 };
  return {
    demandPlan: again,
    slips: again.pots.filter(
      (pot) => rank[pot.is] > rank[before.get(pot.key)?.is ?? "ready"] || (pot.is === "late" && pot.short > (before.get(pot.key)?.short ?? 0)),
    ),
  };
}

/**
 * Returns what cure would still do for a pot that is late, in whole days (negative where nothing sets in time), and which formulas of the
 * workshop have one as short.
 */
export function remedyOf(
  pot: PlannedPot,
  products: readonly DemandProduct[],
  settings: PlanningSettings,
  zone: string,
): { cureDays: number; formulas: string[] } {
  if (pot.day === null || pot.wantedOn === null) return { cureDays: -1, formulas: [] };
  const poured = timeOn(pot.day, hoursOn(pot.day, settings)?.to ?? 1_020, zone);
  const seconds = (readyBy(pot.wantedOn, settings.aheadDays, zone) - poured) / 1_000;
  const formulas = products.filter(({ formulaId, process }) => {
    const { set, recommendedCure } = timesOf(process);
    return formulaId !== pot.formulaId && Math.max(set, recommendedCure) <= seconds;
  });
  return { cureDays: Math.floor(seconds / 86_400), formulas: [...new Set(formulas.map((formula) => formula.formulaName))] };
}
