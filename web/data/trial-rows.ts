import {
  CHECKED_TRIAL,
  type TestCandle,
  type TrialEvent,
  type TrialPlan,
  type TrialState,
  testCandleNow,
  variantWords,
  verdictOf,
  widthOf,
} from "@hearth/core";
import { and, eq, inArray } from "drizzle-orm";
import type { Transaction } from "./client";
import { entryRows } from "./entry-rows";
import { burnOutcomes } from "./tables/trial";

const rows = entryRows<TrialEvent>(CHECKED_TRIAL);
export const toTrialEvent = rows.toEvent;
export const trialEventRow = (workshopId: string, trialId: string, event: TrialEvent) => ({
  ...rows.toRow(event),
  workshopId,
  trialId,
});

/** The earliest moment at which a test candle that burned already burns still, or can be lit again. */
function handsFrom(plan: TrialPlan, state: TrialState): string | null {
  const from = plan.testCandles.flatMap(({ key }) => {
    const item = state.testCandles[key];
    const now = item ? testCandleNow(plan.protocol, item, state.lastAt) : null;
    if (!item || !now || item.sessions.length === 0 || now.state === "stopped" || now.state === "done") return [];
    return [now.state === "burning" ? (item.sessions.at(-1)?.litAt ?? state.lastAt) : (now.next?.at ?? state.lastAt)];
  });
  return from.sort((a, b) => Date.parse(a) - Date.parse(b))[0] ?? null;
}

/** Returns what the trial's row repeats of what follows from its entries. */
export const trialRow = (plan: TrialPlan, state: TrialState) => ({
  name: plan.name,
  stage: state.closed ? ("closed" as const) : ("open" as const),
  plan,
  state,
  startedAt: state.startedAt,
  lastAt: state.lastAt,
  handsFrom: state.closed ? null : handsFrom(plan, state),
});

/** Returns what is kept of one test candle beside the log; it follows from that test candle's own burns and from what was decided on its variant. */
function burnRow(plan: TrialPlan, state: TrialState, item: TestCandle) {
  const verdict = verdictOf(plan, state, item.key);
  return {
    testCandle: item.key,
    variant: item.variant,
    says: variantWords(plan, item.variant),
    productId: item.productId,
    batchId: item.batch?.id ?? null,
    containerId: item.containerId,
    vessel: item.vessel,
    widthUm: Math.round(widthOf(item) * 1_000),
    family: item.family,
    wax: item.wax,
    scent: item.scent,
    loadPpm: item.loadPpm,
    wickId: item.wick?.wickId ?? null,
    wickKind: item.wick?.kind ?? "",
    wickSize: item.wick?.size ?? "",
    wickName: item.wick?.name ?? "",
    wicks: item.wick?.count ?? 0,
    half: item.fill === "half",
    sessions: verdict?.sessions ?? 0,
    safe: verdict?.safe ?? null,
    pool: verdict?.pool.verdict ?? "not_recorded",
    advice: verdict?.advice.what ?? "keep",
    gramsPerHour: verdict?.grams_per_hour?.value ?? null,
    decided: state.decided[item.variant]?.verdict ?? ("" as const),
  };
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** Writes what became of the test candles; only those that an entry changed where `old` says what was there. */
export async function writeBurns(
  tx: Transaction,
  workshopId: string,
  trialId: string,
  plan: TrialPlan,
  state: TrialState,
  old: TrialState | null,
): Promise<void> {
  // An entry is about one test candle or one variant: the others need not be judged anew.
  const touched = old
    ? plan.testCandles.filter(({ key, variant }) => !same(state.testCandles[key], old.testCandles[key]) || !same(state.decided[variant], old.decided[variant]))
    : plan.testCandles;
  const changed = touched.flatMap((item) => {
    const row = burnRow(plan, state, item);
    return old && same(row, burnRow(plan, old, item)) ? [] : [row];
  });
  if (changed.length === 0) return;
  await tx.delete(burnOutcomes).where(
    and(
      eq(burnOutcomes.workshopId, workshopId),
      eq(burnOutcomes.trialId, trialId),
      inArray(
        burnOutcomes.testCandle,
        changed.map((item) => item.testCandle),
      ),
    ),
  );
  await tx.insert(burnOutcomes).values(changed.map((item) => ({ ...item, workshopId, trialId })));
}
