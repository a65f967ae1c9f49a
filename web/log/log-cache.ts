import { type Aggregate, applyEvent, type EventOf, isAppendOnly, type LogState, type WrittenOf } from "@hearth/core";

/** What a page knows of an aggregate: its state, its newest entries, how many there are, the place of the newest, and of which history of the database that is. */
export interface CachedLogOf<F, E> {
  state: F;
  events: E[];
  total: number;
  seq: number;
  epoch: string;
}

/** Returns what is known together with what was read since of the same history of the log; nothing changes where it is no newer. */
export function mergeSnapshot<F, E extends EventOf>(known: CachedLogOf<F, E>, told: { state: F; events: E[]; seq: number }): CachedLogOf<F, E> {
  if (told.seq <= known.seq) return known;
  const ids = new Set(known.events.map((event) => event.id));
  const fresh = told.events.filter((event) => !ids.has(event.id));
  return { state: told.state, events: [...known.events, ...fresh], total: known.total + fresh.length, seq: told.seq, epoch: known.epoch };
}

/**
 * Returns what is known together with entries that came along with the news of them. Null if they do not follow straight on
 * from it: one before them was missed, or one reaches back. Then the log has to be read.
 */
export function mergeDelta<F extends LogState, C, E extends EventOf>(
  aggregate: Aggregate<F, C>,
  known: CachedLogOf<F, E>,
  written: WrittenOf<E>,
  plan: C,
): CachedLogOf<F, E> | null {
  if (written.seq <= known.seq) return known;
  if (written.after !== known.seq) return null;
  const state = structuredClone(known.state);
  for (const event of written.events) {
    if (!aggregate.eventTypes.has(event.kind) || !isAppendOnly(state, event)) return null;
    applyEvent(aggregate, state, event, plan);
  }
  return mergeSnapshot(known, { state, events: written.events, seq: written.seq });
}
