import { type TestCandle, type TrialPlan, testCandlesOf, widthOf } from "../burn/plan";
import type { ShelfWick } from "../burn/propose";
import type { TrialState } from "../burn/state";
import { verdictOf } from "../burn/verdict";
import { bySize, seriesOf } from "../product/wicks";
import type { DiagnosisRecord } from "./record";

/** Families that want a wick a size hotter than the span for the diameter says. Common practice, no source. */
const THICK: readonly string[] = ["soy", "coconut", "beeswax", "palm", "blend"];

/**
 * Returns by how many sizes of its series a wick is above (or, negative, below) what suits a diameter and a wax; null if no wick of the series says that
 * it suits. A thick wax has a size more to go by.
 */
export function sizeSteps(wick: { id: string }, wicks: readonly ShelfWick[], widthUm: number, family: string): number | null {
  const mine = wicks.find((item) => item.id === wick.id);
  if (!mine) return null;
  const row = bySize(wicks.filter((wick) => seriesOf(wick) === seriesOf(mine)));
  const fits = row.flatMap((wick, index) => (wick.fromUm !== null && wick.toUm !== null && wick.fromUm <= widthUm && widthUm <= wick.toUm ? [index] : []));
  const at = row.findIndex((wick) => wick.id === mine.id);
  if (fits.length === 0) return null;
  const [low, high] = [Math.min(...fits), Math.max(...fits) + (THICK.includes(family) ? 1 : 0)];
  return at < low ? at - low : at > high ? at - high : 0;
}

/** Returns the diagnosis record of a test candle from its burns: trim, first burn, melt pool, drafts. Empty for one that never burned. */
export function recordOfBurn(item: TestCandle, state: TrialState): DiagnosisRecord {
  const sessions = state.testCandles[item.key]?.sessions ?? [];
  const [first] = sessions;
  if (!first) return {};
  const trims = sessions.flatMap((each) => (each.trimUm === null ? [] : [each.trimUm]));
  const pools = sessions.flatMap((each) => each.checks.flatMap((look) => (look.poolUm === undefined ? [] : [look.poolUm])));
  return {
    draught: sessions.some((each) => each.air.length > 0),
    ...(trims.length > 0 ? { wick_trim_mm: Math.max(...trims) / 1_000 } : {}),
    ...(first.out ? { first_burn_hours: (Date.parse(first.out.at) - Date.parse(first.litAt)) / 3_600_000 } : {}),
    ...(pools.length > 0 ? { pool_to_edge_mm: Math.max(0, (widthOf(item) - Math.max(...pools) / 1_000) / 2) } : {}),
  };
}

/** So strong a throw is not called weak. Common practice, no source: 7 of 10 does for a small room. */
const STRONG_ENOUGH = 7;

/** Returns the ids of the burning flaws that were seen on a test candle; none for one that never burned. */
export function burningFlaws(plan: TrialPlan, state: TrialState, key: string): string[] {
  const sessions = state.testCandles[key]?.sessions ?? [];
  if (sessions.length === 0) return [];
  const verdict = verdictOf(plan, state, key);
  const signs = new Set(verdict?.safety.reasons.flatMap((reason) => reason.id ?? []) ?? []);
  const looks = sessions.flatMap((session) => session.checks.map((look) => ({ ...look, minute: (Date.parse(look.at) - Date.parse(session.litAt)) / 60_000 })));
  const hot = state.ratings.filter((rating) => rating.testCandle === key && rating.throw === "hot").map((rating) => rating.score);
  const shows: [string, boolean][] = [
    ["tunnelling", verdict?.pool.verdict === "small"],
    ["mushrooming", looks.some((look) => look.mushroom !== undefined && look.mushroom !== "none" && look.minute <= 120)],
    ["soot", signs.has("soot")],
    ["drowning", looks.some((look) => look.flame === "dying" || look.flame === "out") || sessions.some((session) => session.out?.why === "by itself")],
    ["large_flame", signs.has("unsteady") || signs.has("flame")],
    ["hot_vessel", signs.has("wall") || signs.has("deep") || signs.has("bottom")],
    ["surface_ignition", signs.has("elsewhere")],
    ["weak_hot_throw", hot.length > 0 && hot.reduce((a, b) => a + b, 0) / hot.length < STRONG_ENOUGH],
  ];
  return shows.flatMap(([defect, is]) => (is ? [defect] : []));
}

/** Of the test candles that a batch's product was poured for: each flaw of burning with how many showed it, of how many that burned. */
export function burnedFlaws(trials: readonly { plan: TrialPlan; state: TrialState }[], batchId: string): { defect: string; jars: number; of: number }[] {
  let burned = 0;
  const counts = new Map<string, number>();
  for (const { plan, state } of trials)
    for (const testCandle of plan.testCandles) {
      if (testCandle.batch?.id !== batchId || (state.testCandles[testCandle.key]?.sessions.length ?? 0) === 0) continue;
      burned += 1;
      for (const defect of burningFlaws(plan, state, testCandle.key)) counts.set(defect, (counts.get(defect) ?? 0) + 1);
    }
  return [...counts].map(([defect, jars]) => ({ defect, jars, of: burned }));
}

/** Returns the candles of a trial that were poured in a batch, one for each option. */
export const burnedOfBatch = (plan: TrialPlan, batchId: string): TestCandle[] =>
  [...new Set(plan.testCandles.map((testCandle) => testCandle.variant))].flatMap(
    (variant) => testCandlesOf(plan, variant).find((testCandle) => testCandle.batch?.id === batchId) ?? [],
  );
