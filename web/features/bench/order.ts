import { type ForecastView, nextCall } from "@hearth/core";

/** What tells when a pot needs hands. */
export interface Running {
  next: { from: string | null } | null;
  startedAt: string;
}

/** Returns when a pot needs hands, and until when it can wait for them, in ms; what is due already counts from now. */
export function handsOf(pot: Running, forecastView: ForecastView | null, now: string): { at: number; until: number } {
  const nowMs = Date.parse(now);
  const never = Number.POSITIVE_INFINITY;
  if (!pot.next) return { at: never, until: never };
  const call = forecastView && nextCall(forecastView, now);
  const until = forecastView?.leaves && call?.is !== "stale" ? Date.parse(forecastView.leaves.low) : never;
  if (call?.is === "wait") return { at: Date.parse(call.until), until };
  return { at: Math.max(nowMs, Date.parse(pot.next.from ?? pot.startedAt)), until };
}

/** Pots in the order in which they need hands: the soonest first; of those that need them now, the one that can wait least. */
export function bySoonest<P extends Running & { id: string }>(
  pots: readonly P[],
  forecastViews: Readonly<Record<string, ForecastView | null>>,
  now: string,
): P[] {
  const hands = new Map(pots.map((pot) => [pot.id, handsOf(pot, forecastViews[pot.id] ?? null, now)]));
  const of = (pot: P) => hands.get(pot.id) as { at: number; until: number };
  return [...pots].sort((a, b) => of(a).at - of(b).at || (of(a).until === of(b).until ? 0 : of(a).until - of(b).until) || (a.startedAt < b.startedAt ? -1 : 1));
}
