import { JAR_STATUSES, type JarStatus, MAX_STATED_G, MIN_STATED_G, type PackedContainer, packedContainerOf, type Sellable } from "@hearth/core";
import { rollup, sum } from "d3-array";
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

/** An order or market day with packs of a recalled lot, and how many of them did not come back. */
export interface Reached {
  id: string;
  number: number;
  what: "order" | "market";
  name: string;
  whom: string;
  on: string | null;
  packs: string[];
}

/** How much a recall is of: batches, jars by their status, and orders and market days that have some. */
export interface RecallTotals {
  batches: number;
  jars: number;
  statuses: { status: JarStatus; jars: number }[];
  orders: number;
}

/** So many rows of each part of a recall are asked for where all are wanted: more than there can be. */
export const ALL_ROWS = 1_000_000;
/** Returns the address of a lot's recall with all of its list. */
export const wholeRecall = (lotId: string): string => `/sell/recall?lot=${lotId}&show=${ALL_ROWS}`;

/** The parts of a recall's list, and how long each is where not all of it is shown. */
export type RecallList = ReturnType<typeof recallOf>;

/** Returns the first of each part of a recall's list, with how many there are. */
export const firstOfRecall = (list: RecallList, batches: readonly TracedBatch[], most: number) => ({
  list: Object.fromEntries(Object.entries(list).map(([part, items]) => [part, items.slice(0, most)])) as RecallList,
  batches: batches.slice(0, most),
  left: {
    here: Math.max(0, list.loose.length - most) + Math.max(0, list.pots.length - most) + Math.max(0, list.here.length - most),
    reached: Math.max(0, list.reached.length - most) + Math.max(0, list.byHand.length - most),
    batches: Math.max(0, batches.length - most),
  },
});

/** Returns the totals of a recall. */
export function recallTotals(batches: readonly TracedBatch[], list: RecallList): RecallTotals {
  const statuses = rollup(
    batches.flatMap((batch) => batch.jarStatuses),
    (items) => sum(items, (item) => item.jars),
    (item) => item.status,
  );
  return {
    batches: batches.length,
    jars: sum(batches, (batch) => batch.jars),
    statuses: JAR_STATUSES.flatMap((status) => (statuses.has(status) ? [{ status, jars: statuses.get(status) ?? 0 }] : [])),
    orders: list.reached.length,
  };
}

/** Returns what a recall asks for: what to set aside here, loose, in a pot or packed; and whom to tell. A packing of several batches stands once. */
export function recallOf(batches: readonly TracedBatch[], rows: readonly RecallRow[]) {
  const still = (batch: TracedBatch) => batch.jarStatuses.reduce((sum, { status, jars }) => (status === "rack" || status === "testing" ? sum + jars : sum), 0);
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
