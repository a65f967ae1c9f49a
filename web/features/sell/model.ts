import { MAX_STATED_G, MIN_STATED_G, type PackedContainer, packedContainerOf, type Sellable } from "@hearth/core";
import type { TracedBatch } from "@/server/inventory/trace";
import type { RecallRow } from "@/server/sales/orders";

/** A product as it is packed: its container, and the weight it states where it is sold by weight. */
export interface Inside {
  productId: string;
  statedMg: number;
  soldByWeight: boolean;
  container: Parameters<typeof packedContainerOf>[0];
}

/** Returns what goes into one pack, and the weight that is stated on it; null if it is not sold by weight, or the rules do not cover it. */
export function containersIn(
  sellable: Sellable | undefined,
  inside: readonly Inside[],
): { containers: PackedContainer[]; guessed: boolean; statedMg: number | null } {
  const of = (sellable?.contents ?? []).flatMap((content) => {
    const product = inside.find((each) => each.productId === content.productId);
    return product ? [{ product, count: content.count }] : [];
  });
  const containers = of.map(({ product, count }) => packedContainerOf(product.container, count));
  const stated = of.reduce((sum, { product, count }) => sum + product.statedMg * count, 0);
  const covered = stated / 1_000 >= MIN_STATED_G && stated / 1_000 <= MAX_STATED_G;
  return {
    containers,
    guessed: containers.some((container) => container.guessed),
    statedMg: of.length > 0 && of.every(({ product }) => product.soldByWeight) && covered ? stated : null,
  };
}

/** Who has something of it: an order or a market day, and what of it did not come back. */
export interface Reached {
  id: string;
  number: number;
  what: "order" | "market";
  name: string;
  whom: string;
  on: string | null;
  packs: string[];
}

/** Returns what a recall asks for: what to set aside here, loose, in a pot or packed; and whom to tell. A packing of several batches stands once. */
export function recallOf(batches: readonly TracedBatch[], rows: readonly RecallRow[]) {
  const still = (batch: TracedBatch) => batch.jarStatuses.reduce((sum, { fate, jars }) => (fate === "rack" || fate === "testing" ? sum + jars : sum), 0);
  const packRuns = new Map<string, RecallRow & { batches: number[] }>();
  for (const row of rows) {
    const there = packRuns.get(row.packRunId);
    if (there) there.batches.push(row.number);
    else packRuns.set(row.packRunId, { ...row, batches: [row.number] });
  }
  const reached = new Map<string, Reached>();
  for (const row of packRuns.values())
    for (const { orderId: id, number, what, name, whom, on, out, back } of row.out) {
      if (out - back <= 0) continue;
      const there = reached.get(id) ?? { id, number, what, name, whom, on, packs: [] };
      there.packs.push(`${out - back} × ${row.packed}`);
      reached.set(id, there);
    }
  return {
    loose: batches.flatMap((batch) => (still(batch) > 0 ? [{ batch, jars: still(batch) }] : [])),
    pots: batches.filter((batch) => batch.pouredAt === null),
    here: [...packRuns.values()].filter((packRun) => packRun.here > 0),
    reached: [...reached.values()],
    byHand: batches.filter((batch) => batch.whom.length > 0),
  };
}
