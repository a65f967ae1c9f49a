import {
  dueReasons,
  readableOf,
  type TestCandle,
  type TestedState,
  type TrialPlan,
  type TrialState,
  testCandlesOf,
  testedOf,
  variantsOf,
  type WickTest,
} from "@hearth/core";
import { and, eq } from "drizzle-orm";
import type { Transaction } from "@/data/client";
import { batches } from "@/data/tables/batch";
import { products } from "@/data/tables/product";
import { newestSpecs, readProduct } from "@/server/products/products";

/** Returns what a test candle is a test of, by the recipe its batch was poured from; null if that is not here. */
async function testedBy(tx: Transaction, workshopId: string, item: TestCandle): Promise<TestedState | null> {
  if (!item.batch) return null;
  const [row] = await tx
    .select({ plan: batches.plan })
    .from(batches)
    .where(and(eq(batches.workshopId, workshopId), eq(batches.id, item.batch.id)));
  const recipe = row?.plan ? readableOf(row.plan).plan.pots[0]?.recipe : undefined;
  return recipe ? testedOf(recipe, { containerId: item.containerId, wickId: item.wick?.wickId ?? null, wicks: item.wick?.count ?? 1 }) : null;
}

/**
 * Brings the product's wick test to what was decided on a variant, where the product is still what was burned. Its test candles are alike,
 * so that the first speaks for all. A half-filled jar decides nothing.
 */
export async function followOption(tx: Transaction, workshopId: string, plan: TrialPlan, state: TrialState, variant: string): Promise<void> {
  const [item] = testCandlesOf(plan, variant);
  if (!item?.productId || item.fill === "half") return;
  const product = await readProduct(tx, workshopId, item.productId);
  const tested = await testedBy(tx, workshopId, item);
  const spec = product ? (await newestSpecs(tx, workshopId, [product.formulaId])).get(product.formulaId) : undefined;
  if (!product || !tested || !spec || dueReasons(tested, testedOf(spec, product)).length > 0) return;
  const verdict = state.decided[variant]?.verdict;
  const wickTest: WickTest = verdict === "passed" ? "tested" : (verdict ?? "test due");
  if (product.wickTest === wickTest) return;
  await tx
    .update(products)
    .set({ wickTest, testedAs: verdict ? tested : null, version: product.version + 1 })
    .where(and(eq(products.workshopId, workshopId), eq(products.id, product.id)));
}

/** Updates the wick tests of products to what was decided or withdrawn in a trial since. */
export async function followTests(tx: Transaction, workshopId: string, plan: TrialPlan, state: TrialState, before: TrialState): Promise<void> {
  for (const variant of variantsOf(plan))
    if (state.decided[variant]?.verdict !== before.decided[variant]?.verdict) await followOption(tx, workshopId, plan, state, variant);
}
