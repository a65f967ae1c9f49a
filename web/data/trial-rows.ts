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
    const one = state.testCandles[key];
    const now = one ? testCandleNow(plan.protocol, one, state.lastAt) : null;
    if (!one || !now || one.sessions.length === 0 || now.state === "stopped" || now.state === "done") return [];
    return [now.state === "burning" ? (one.sessions.at(-1)?.litAt ?? state.lastAt) : (now.next?.at ?? state.lastAt)];
  });
  return from.sort((a, b) => Date.parse(a) - Date.parse(b))[0] ?? null;
}

/** What the trial's row repeats of what follows from its entries. */
export const trialRow = (plan: TrialPlan, state: TrialState) => ({
  name: plan.name,
  stage: state.closed ? ("closed" as const) : ("open" as const),
  plan,
  state,
  startedAt: state.startedAt,
  lastAt: state.lastAt,
  handsFrom: state.closed ? null : handsFrom(plan, state),
});

/** What is kept of one test candle beside the log; it follows from that test candle's own burns and from what was decided on its variant. */
function burnRow(plan: TrialPlan, state: TrialState, one: TestCandle) {
  const verdict = verdictOf(plan, state, one.key);
  return {
    testCandle: one.key,
    variant: one.variant,
    says: variantWords(plan, one.variant),
    productId: one.productId,
    batchId: one.batch?.id ?? null,
    containerId: one.containerId,
    vessel: one.vessel,
    widthUm: Math.round(widthOf(one) * 1_000),
    family: one.family,
    wax: one.wax,
    scent: one.scent,
    loadPpm: one.loadPpm,
    wickId: one.wick?.wickId ?? null,
    wickKind: one.wick?.kind ?? "",
    wickSize: one.wick?.size ?? "",
    wickName: one.wick?.name ?? "",
    wicks: one.wick?.count ?? 0,
    half: one.fill === "half",
    sessions: verdict?.sessions ?? 0,
    safe: verdict?.safe ?? null,
    pool: verdict?.pool.verdict ?? "not_recorded",
    advice: verdict?.advice.what ?? "keep",
    gramsPerHour: verdict?.grams_per_hour?.value ?? null,
    decided: state.decided[one.variant]?.verdict ?? ("" as const),
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
  const changed = touched.flatMap((one) => {
    const row = burnRow(plan, state, one);
    return old && same(row, burnRow(plan, old, one)) ? [] : [row];
  });
  if (changed.length === 0) return;
  await tx.delete(burnOutcomes).where(
    and(
      eq(burnOutcomes.workshopId, workshopId),
      eq(burnOutcomes.trialId, trialId),
      inArray(
        burnOutcomes.testCandle,
        changed.map((one) => one.testCandle),
      ),
    ),
  );
  await tx.insert(burnOutcomes).values(changed.map((one) => ({ ...one, workshopId, trialId })));
}
