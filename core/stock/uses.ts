import type { BatchState } from "../batch/state";

/** What a batch has drawn from the shelf so far. */
export interface Use {
  materialId: string;
  /** When it was last drawn on. */
  at: string;
  /** Milligrams, or pieces of what is counted. */
  amount: number;
}

/**
 * What a batch drew: what its weighings really came to, dye by the weight of its drops where that is known, and its
 * vessels once they are poured. A vessel poured in layers or after a half fill is drawn by its first pour only.
 */
export function usesOf(state: BatchState): Use[] {
  const uses: Use[] = [];
  for (const step of state.steps) {
    const part = step.component;
    const last = step.events.at(-1);
    if (!part || !last) continue;
    const amount = part.count ? (state.countedN[part.id] ?? 0) * (part.count.eachMg ?? 0) : (state.weighedMg[part.id] ?? 0);
    if (amount > 0) uses.push({ materialId: part.id, at: last.happenedAt, amount });
  }
  if (state.pouredAt) {
    const jars = new Map<string, number>();
    for (const vessel of state.plan.vessels) {
      if (vessel.part?.kind === "layer" && vessel.part.number > 1) continue;
      jars.set(vessel.vesselId, (jars.get(vessel.vesselId) ?? 0) + vessel.count);
    }
    for (const [materialId, amount] of jars) uses.push({ materialId, at: state.pouredAt, amount });
  }
  return uses;
}
