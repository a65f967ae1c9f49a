import {
  type BatchPlan,
  batchOf,
  blendWords,
  contentsOf,
  isFromOnePot,
  loadOnBasis,
  potOfProduct,
  type TestCandle,
  type TrialPlan,
  type TrialState,
  titleOf,
} from "@hearth/core";
import type { Transaction } from "@/data/client";
import { appendIn, systemEntry } from "@/server/events/append";
import { batchStore } from "@/server/events/batch-store";
import { readBatchEvents } from "@/server/events/read-events";

/** Returns what of a test candle follows from the batch it was poured in. */
export function fromBatch(plan: BatchPlan, key: string): Omit<TestCandle, "key" | "variant" | "code" | "batch" | "productId"> | null {
  const product = plan.products.find((product) => product.key === key);
  if (!product) return null;
  // What is in it: of a layered candle all its pots, of a divided melt the pot that it was poured from.
  const pots = isFromOnePot(product) ? [potOfProduct(product)] : plan.pots.map((_pot, index) => index);
  const parts = pots.flatMap((index) => contentsOf(plan, index));
  const named = (kind: string) => [...new Set(parts.filter((part) => part.kind === kind).map((part) => part.name))];
  const pot = plan.pots[pots[0] ?? 0];
  return {
    fill: product.part?.kind === "half" ? "half" : "full",
    container: product.container,
    containerId: product.containerId,
    vessel: product.name,
    innerTopUm: product.innerTopUm,
    innerBottomUm: product.innerBottomUm,
    heightUm: product.heightUm,
    ...(product.shape ? { shape: product.shape } : {}),
    fillMg: product.fillMg,
    wick: product.wicks,
    family: pot?.waxFamily ?? "",
    wax: pots.length === 1 ? blendWords(parts) : named("wax").join(" + "),
    scent: named("fragrance").join(" + "),
    loadPpm: pot && named("fragrance").length > 0 ? loadOnBasis(pot.recipe.loadPpm, pot.recipe.basis, "wax") : 0,
    dyed: named("dye").length > 0,
    added: named("additive"),
    formula: pots.length === 1 && plan.pots.length > 1 ? (pot?.formulaName ?? "") : titleOf(plan),
  };
}

/** Returns what a jar that became a test candle of a trial says of where it went. */
const forTrial = (trial: number): string => `burn trial ${trial}`;

/** Puts jars of a batch down as test candles; why that cannot be, where it cannot. */
export async function asTestCandles(
  tx: Transaction,
  workshopId: string,
  at: { batchId: string; product: string; jars: number; trial: number; now: string; personId: string | null },
): Promise<string | null> {
  const sent = systemEntry(at, "statusChanged", { product: at.product, jars: at.jars, from: "rack", to: "testing", whom: forTrial(at.trial) });
  const [answer] = await appendIn(batchStore, tx, workshopId, at.batchId, [{ sent, now: at.now }]);
  return !answer || answer.ok ? null : answer.message;
}

/** Test candles that were poured for a trial become those of their batch when they are first lit; where that entry is deleted, they are on the rack again. */
export async function followLit(tx: Transaction, workshopId: string, trial: number, plan: TrialPlan, state: TrialState, before: TrialState): Promise<void> {
  for (const testCandle of plan.testCandles) {
    const [now, then] = [state.testCandles[testCandle.key]?.sessions ?? [], before.testCandles[testCandle.key]?.sessions ?? []];
    if (!testCandle.batch || testCandle.batch.taken) continue;
    const { id, product } = testCandle.batch;
    const [first] = now;
    // A batch that says otherwise, since somebody counted by hand, is left as it is.
    if (first && then.length === 0) await asTestCandles(tx, workshopId, { batchId: id, product, jars: 1, trial, now: first.litAt, personId: null });
    if (first || then.length === 0) continue;
    const taken = batchOf(await readBatchEvents(tx, workshopId, id)).entries.findLast(
      ({ event, supersededBy }) =>
        !supersededBy &&
        event.kind === "statusChanged" &&
        event.payload.product === product &&
        event.payload.to === "testing" &&
        event.payload.whom === forTrial(trial),
    );
    if (!taken) continue;
    const at = taken.event.happenedAt;
    const sent = systemEntry({ now: at, personId: null }, "withdrawn", { why: "it was not lit", mode: "delete" }, { corrects: taken.event.id });
    await appendIn(batchStore, tx, workshopId, id, [{ sent, now: at, own: true }]);
  }
}
