import { type BatchPlan, loadOnBasis, type Tester, type TrialFacts, type TrialPlan, titleOf } from "@hearth/core";
import type { Transaction } from "@/data/client";
import { appendIn, entryBy } from "./append";
import { BATCHES } from "./keep-batch";

/** What of a tester follows from the batch it was poured in. */
export function fromBatch(plan: BatchPlan, key: string): Omit<Tester, "key" | "option" | "code" | "batch" | "productId"> | null {
  const product = plan.products.find((one) => one.key === key);
  if (!product) return null;
  const named = (kind: string) => [...new Set(plan.pots.flatMap((pot) => pot.components.filter((part) => part.kind === kind).map((part) => part.name)))];
  const pot = plan.pots[0];
  return {
    fill: product.part?.kind === "half" ? "half" : "full",
    body: product.body,
    bodyId: product.bodyId,
    vessel: product.name,
    innerTopUm: product.innerTopUm,
    innerBottomUm: product.innerBottomUm,
    heightUm: product.heightUm,
    ...(product.shape ? { shape: product.shape } : {}),
    fillMg: product.fillMg,
    wick: product.wicks,
    family: pot?.waxFamily ?? "",
    wax: named("wax").join(" + "),
    scent: named("fragrance").join(" + "),
    loadPpm: pot && named("fragrance").length > 0 ? loadOnBasis(pot.recipe.loadPpm, pot.recipe.basis, "wax") : 0,
    dyed: named("dye").length > 0,
    added: named("additive"),
    formula: titleOf(plan),
  };
}

/** Puts jars of a batch down as testers; why that cannot be, where it cannot. */
export async function asTesters(
  tx: Transaction,
  workshopId: string,
  at: { batchId: string; product: string; jars: number; trial: number; now: string; personId: string | null },
): Promise<string | null> {
  const sent = entryBy(at, "fated", { product: at.product, jars: at.jars, from: "rack", to: "tester", whom: `burn trial ${at.trial}` });
  const [answer] = await appendIn(BATCHES, tx, workshopId, at.batchId, [{ sent, now: at.now }]);
  return !answer || answer.ok ? null : answer.message;
}

/** Testers that were poured for a trial become testers of their batch when they are first lit. */
export async function followLit(tx: Transaction, workshopId: string, trial: number, plan: TrialPlan, facts: TrialFacts, before: TrialFacts): Promise<void> {
  for (const one of plan.testers) {
    const [now, then] = [facts.testers[one.key]?.sessions ?? [], before.testers[one.key]?.sessions ?? []];
    const [first] = now;
    if (!one.batch || one.batch.taken || !first || then.length > 0) continue;
    // A batch that says otherwise, since somebody counted by hand, is left as it is.
    await asTesters(tx, workshopId, { batchId: one.batch.id, product: one.batch.product, jars: 1, trial, now: first.litAt, personId: null });
  }
}
