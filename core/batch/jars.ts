import { defectOf } from "../defects/defects";
import { namedLines } from "../product/named-lines";
import { isFromOnePot, potOfProduct } from "./contents";
import { JAR_STATUS_WORDS, JAR_STATUSES, type JarStatus } from "./jar-status";
import { cureTimes, pouredAt } from "./phase";
import type { BatchPlan } from "./plan";
import type { BatchState } from "./state";

/** Returns how many pieces of a product were really filled: as the pours say, or as planned before any. */
export function filledOf(plan: BatchPlan, state: Pick<BatchState, "pours">, key: string): number {
  const counts = Object.values(state.pours).flatMap((pour) => pour.filled.filter((item) => item.product === key).map((item) => item.count));
  return counts.length > 0 ? Math.min(...counts) : (plan.products.find((product) => product.key === key)?.count ?? 0);
}

/**
 * Returns pieces of a product that must not be sold, for safety. Common practice, no source (class S). One that can be mended, as sweating, holds a jar back only
 * until it was found dry at a second look.
 */
export function stoppedOf(plan: BatchPlan, state: Pick<BatchState, "flaws" | "pours" | "repairs">, key: string): number {
  // Several flaws of one look are on the same jars; those of two looks may be on the same or not: nobody said, so each counts.
  const unsafe = new Map<string, number>();
  const mended = new Map<string, number>();
  for (const { eventId, flaw } of state.flaws) {
    const defect = defectOf(flaw.defect);
    if (flaw.product === key && defect?.classes.includes("S")) (defect.recovers ? mended : unsafe).set(eventId, flaw.jars);
  }
  for (const eventId of unsafe.keys()) mended.delete(eventId);
  const sum = (counts: Map<string, number>) => [...counts.values()].reduce((all, jars) => all + jars, 0);
  const held = state.repairs.reduce((all, item) => all + (item.product === key && defectOf(item.defect)?.recovers ? (item.held ?? 0) : 0), 0);
  return Math.min(filledOf(plan, state, key), sum(unsafe) + Math.max(0, sum(mended) - held));
}

/** Returns what may be sold of a product once cured and tested: what was filled, less what safety stops. */
export const sellableOf = (plan: BatchPlan, state: Pick<BatchState, "flaws" | "pours" | "repairs">, key: string): number =>
  Math.max(0, filledOf(plan, state, key) - stoppedOf(plan, state, key));

/** Returns what became of the jars of a product: by state, together always what was filled; and how many of those left safety stops. */
export function jarStatusesOf(
  plan: BatchPlan,
  state: Pick<BatchState, "flaws" | "pours" | "jarStatuses" | "repairs">,
  key: string,
): { filled: number; counts: Record<JarStatus, number>; stopped: number } {
  const filled = filledOf(plan, state, key);
  const counts = Object.fromEntries(JAR_STATUSES.map((status) => [status, 0])) as Record<JarStatus, number>;
  counts.rack = filled;
  for (const jarStatus of state.jarStatuses) {
    if (jarStatus.product !== key) continue;
    counts[jarStatus.from] -= jarStatus.jars;
    counts[jarStatus.to] += jarStatus.jars;
  }
  // Those that broke, were melted or burned as test candles are taken to be the flawed ones first.
  const gone = counts.broken + counts.melted + counts.testing;
  return { filled, counts, stopped: Math.max(0, Math.min(counts.rack, stoppedOf(plan, state, key) - gone)) };
}

/** Returns why a batch cannot be as these facts say: more jars of a product went on than were filled. Null if they add up. */
export function jarsInTheWay(plan: BatchPlan, state: BatchState): string | null {
  for (const { key, name } of namedLines(plan.products)) {
    const { filled, counts } = jarStatusesOf(plan, state, key);
    if (counts.rack >= 0) continue;
    const gone = JAR_STATUSES.filter((status) => status !== "rack" && counts[status] > 0).map(
      (status) => `${counts[status]} ${counts[status] === 1 ? "is" : "are"} ${JAR_STATUS_WORDS[status]}`,
    );
    const back = counts.packed > 0 ? "Unpack them, or record their return, first." : "Record their return first.";
    return `${name}: ${gone.join(", ")}, and only ${filled} would be filled. ${back}`;
  }
  return null;
}

/** Returns how many of a product may be packed and sold now: released, still on the rack, and not stopped for safety. */
export function looseOf(plan: BatchPlan, state: BatchState, key: string): number {
  if (!state.released || state.abandoned || plan.rehearsal) return 0;
  const { counts, stopped } = jarStatusesOf(plan, state, key);
  return Math.max(0, counts.rack - stopped);
}

/** Unpacked pieces of one product of a batch, with the container and wick that identify the product of the workshop. */
export interface LooseOf {
  key: string;
  containerId: string;
  wickId: string | null;
  left: number;
  /** The formula of the pot that it is poured from, where that is not the first. */
  formulaId?: string;
}
/** Returns what of a batch may be packed, product by product; half fills are for testing and never sold. */
export const looseOfAll = (plan: BatchPlan, state: BatchState): LooseOf[] =>
  plan.products.flatMap((product) => {
    const left = product.part?.kind === "half" ? 0 : looseOf(plan, state, product.key);
    const formulaId = isFromOnePot(product) && potOfProduct(product) > 0 ? plan.pots[potOfProduct(product)]?.formulaId : undefined;
    return left > 0
      ? [{ key: product.key, containerId: product.containerId, wickId: product.wicks?.wickId ?? null, left, ...(formulaId ? { formulaId } : {}) }]
      : [];
  });

/** What became of all jars of a batch together, so that a recall reads no log. */
export interface JarTotals {
  /** How many were filled; 0 before the first pour. */
  jars: number;
  statuses: { status: JarStatus; jars: number }[];
  /** To whom they went by hand, as far as it was written down. */
  whom: string[];
}
/** Returns how many jars of a batch have each status, those that none has left out, and to whom they went. */
export function jarTotals(plan: BatchPlan, state: BatchState): JarTotals {
  // What is not poured yet has become of nothing.
  const all = Object.keys(state.pours).length === 0 ? [] : plan.products.map((product) => jarStatusesOf(plan, state, product.key));
  return {
    jars: all.reduce((sum, item) => sum + item.filled, 0),
    statuses: JAR_STATUSES.map((status) => ({ status, jars: all.reduce((sum, item) => sum + item.counts[status], 0) })).filter((item) => item.jars > 0),
    whom: [...new Set(state.jarStatuses.map((jarStatus) => jarStatus.whom).filter(Boolean))],
  };
}

/** Returns how many of a product were looked at since the last inspection was finished. */
export const seenInRound = (state: Pick<BatchState, "seen" | "rounds">, key: string): number =>
  state.seen.reduce((sum, item) => sum + (item.product === key && item.round === state.rounds ? item.jars : 0), 0);

/** Returns why a batch cannot be released for sale at a moment, as text for the maker; empty if nothing stands in the way. */
export function releaseBlocks(plan: BatchPlan, state: BatchState, now: string): string[] {
  const poured = pouredAt(plan, state);
  if (!poured) return ["it is not poured"];
  const blocks: string[] = [];
  const times = cureTimes(poured, plan.process);
  const at = Date.parse(now);
  if (at < Date.parse(times.setAt)) blocks.push("it is still setting");
  else if (at < Date.parse(times.testFrom)) blocks.push("it is below the minimum cure");
  if (!state.lookedAt) blocks.push("it is not inspected");
  if (plan.products.every((product) => jarStatusesOf(plan, state, product.key).counts.rack - jarStatusesOf(plan, state, product.key).stopped <= 0))
    blocks.push("no jars may be sold");
  return blocks;
}
