import {
  type BatchPlan,
  type BatchState,
  blendWords,
  componentNames,
  contentsOf,
  diagnosisOf,
  isFromOnePot,
  outcomesOf,
  potOfProduct,
  recorderOf,
  titleOf,
} from "@hearth/core";
import { and, eq } from "drizzle-orm";
import type { Transaction } from "./client";
import { outcomeFlaws, outcomes } from "./tables/finding";

const sideOf = (value: number | undefined, range: readonly [number, number] | undefined): number | null =>
  value === undefined || !range ? null : value < range[0] ? -1 : value > range[1] ? 1 : 0;

/** Returns what findings count of a batch; nothing of one that was not poured, was abandoned, or was a rehearsal. */
export function outcomeRows(plan: BatchPlan, state: BatchState) {
  const pours = plan.process.steps.flatMap((step) => (state.pours[step.id] ? [state.pours[step.id]] : []));
  const first = pours[0];
  if (!first || plan.rehearsal || state.abandoned) return [];
  const cool = recorderOf(plan.process.steps, "pour_c");
  return outcomesOf(plan, state).map(({ product: key, jars, lookedAt, flawed }) => {
    const product = plan.products.find((product) => product.key === key);
    const pot = isFromOnePot(product) ? potOfProduct(product) : 0;
    const parts = contentsOf(plan, pot);
    const { record, ranges } = diagnosisOf(plan, state, lookedAt ?? state.flaws.at(-1)?.at ?? state.lastAt, new Map(), key);
    const weights = pours.flatMap((pour) => pour?.filled.find((item) => item.product === key)?.weightsMg ?? []);
    const row = {
      product: key,
      pouredAt: first.at,
      looked: lookedAt !== null,
      jars,
      vessel: product?.name ?? "",
      family: plan.pots[pot]?.waxFamily ?? "",
      wax: blendWords(parts),
      fragrance: componentNames(parts, "fragrance"),
      formula: titleOf(plan),
      // What notes do not say of how a batch was worked is not compared.
      process: plan.fromNotes ? null : plan.process.name,
      personId: first.personId,
      instrumentId: (cool && state.reads[cool.id]?.instrumentId) ?? null,
      pourC: record.pour_c ?? null,
      addC: record.add_c ?? null,
      load: record.load_percent_of_wax ?? null,
      roomC: record.room_c ?? null,
      stirMinutes: record.stir_minutes ?? null,
      cureDays: lookedAt ? (record.cure_days ?? null) : null,
      warmed: first.warmed,
      halves: typeof record.halves === "boolean" ? record.halves : null,
      pourSide: plan.fromNotes ? null : sideOf(record.pour_c, ranges.pour_c),
      addSide: plan.fromNotes ? null : sideOf(record.add_c, ranges.add_c),
      fillMg: weights.length > 0 ? weights.reduce((a, b) => a + b, 0) / weights.length : null,
      plannedMg: product?.fillMg ?? 0,
      record,
      repairs: state.repairs.flatMap(({ product: of, defect, how, jars: many, held }) =>
        of === key && held !== null ? [{ defect, how, jars: many, held }] : [],
      ),
      smells: state.smells.map(({ at, personId, score }) => ({ at, personId, score })),
    };
    return { row, flawed };
  });
}

/** Writes what came out of a batch; only what an entry changed where `old` says what was there. */
export async function writeOutcomes(
  tx: Transaction,
  workshopId: string,
  batchId: string,
  plan: BatchPlan,
  state: BatchState,
  old: BatchState | null,
): Promise<void> {
  if (Object.keys(state.pours).length === 0 && (!old || Object.keys(old.pours).length === 0)) return;
  const rows = outcomeRows(plan, state);
  if (old && JSON.stringify(outcomeRows(plan, old)) === JSON.stringify(rows)) return;
  await tx.delete(outcomes).where(and(eq(outcomes.workshopId, workshopId), eq(outcomes.batchId, batchId)));
  if (rows.length === 0) return;
  const { outcomeValues, flawValues } = outcomeTables(workshopId, batchId, rows);
  await tx.insert(outcomes).values(outcomeValues);
  if (flawValues.length > 0) await tx.insert(outcomeFlaws).values(flawValues);
}

/** Returns what came out of a batch as its two tables hold it. */
export const outcomeTables = (workshopId: string, batchId: string, rows: ReturnType<typeof outcomeRows>) => ({
  outcomeValues: rows.map(({ row }) => ({ ...row, workshopId, batchId })),
  flawValues: rows.flatMap(({ row, flawed }) => Object.entries(flawed).map(([defect, jars]) => ({ workshopId, batchId, product: row.product, defect, jars }))),
});
