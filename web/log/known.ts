import { type EventOf, foldOne, followsOn, type LogFacts, type Subject, type WrittenOf } from "@hearth/core";

/** What a page knows of a subject of the log: its facts, its newest entries, how many there are, the place of the newest, and of which history of the database that is. */
export interface KnownOf<F, E> {
  facts: F;
  events: E[];
  total: number;
  seq: number;
  epoch: string;
}

/** What is known together with what was read since of the same history of the log; nothing changes where it is no newer. */
export function joinRead<F, E extends EventOf>(known: KnownOf<F, E>, told: { facts: F; events: E[]; seq: number }): KnownOf<F, E> {
  if (told.seq <= known.seq) return known;
  const ids = new Set(known.events.map((event) => event.id));
  const fresh = told.events.filter((event) => !ids.has(event.id));
  return { facts: told.facts, events: [...known.events, ...fresh], total: known.total + fresh.length, seq: told.seq, epoch: known.epoch };
}

/**
 * What is known together with entries that came along with the news of them. Null where they do not follow straight on
 * from it: one before them was missed, or one reaches back. Then the log has to be read.
 */
export function joinWritten<F extends LogFacts, C, E extends EventOf>(
  subject: Subject<F, C>,
  known: KnownOf<F, E>,
  written: WrittenOf<E>,
  plan: C,
): KnownOf<F, E> | null {
  if (written.seq <= known.seq) return known;
  if (written.after !== known.seq) return null;
  const facts = structuredClone(known.facts);
  for (const event of written.events) {
    if (!subject.kinds.has(event.kind) || !followsOn(facts, event)) return null;
    foldOne(subject, facts, event, plan);
  }
  return joinRead(known, { facts, events: written.events, seq: written.seq });
}
