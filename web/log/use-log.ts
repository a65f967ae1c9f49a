"use client";

import {
  type EntryOf,
  type EventOf,
  foldOne,
  followsOn,
  type LogFacts,
  type Say,
  type SentEvent,
  type Subject,
  settle,
  type Told,
  type WrittenOf,
} from "@hearth/core";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { v7 } from "uuid";
import { useRouter } from "@/ui/address";
import { useClock, useUnits } from "@/ui/units";
import { joinRead, joinWritten, type KnownOf } from "./known";
import { hearOthers } from "./live";
import { seen, send, sendMany, useOutbox, waitAgain } from "./outbox";
import { usePlace } from "./place";
import { keepKnown, type Refusal, readKnown } from "./store";
import { SUBJECT_PATHS, type SubjectName } from "./subjects";

/** What a page is given of a subject of the log. `events` are the newest; all of them where there are no more. */
export interface Logged<F, C, E> extends KnownOf<F, E> {
  id: string;
  plan: C;
}
/** A subject as far as a page works with it. */
interface About<F extends LogFacts, C> {
  what: SubjectName;
  subject: Subject<F, C> & {
    of: (events: never) => { facts: F; entries: { event: EventOf; supersededBy: EventOf | null }[] };
    versionOf: (kind: string) => number;
    tell: (event: never, plan: C, say: Say, instrument: string) => Required<Told>;
    ownWords: (kind: string) => string | null;
  };
}

/** A copy for opening without the server is written at most so often, however fast others enter. */
const KEEP_PAUSE_MS = 2_000;
/** The server gives at most so many entries at once. */
const MAX_READ = 400;
/** What this device sent and has not heard of for so long is read. */
const HEAR_MS = 1_500;

/** What the server knows of it, kept up with what others and this device enter. */
function useKnown<F extends LogFacts, C, E extends EventOf>(workshopId: string, { what, subject }: About<F, C>, batch: Logged<F, C, E>): KnownOf<F, E> {
  const [known, setKnown] = useState<KnownOf<F, E>>(batch);
  const newest = useRef<KnownOf<F, E>>(batch);
  const router = useRouter();
  const take = useCallback((next: KnownOf<F, E>) => {
    // What was known of another history, from before a backup was restored, is nothing any more.
    if (next.epoch === newest.current.epoch && next.seq <= newest.current.seq) return;
    newest.current = next;
    setKnown(next);
  }, []);
  // A page that was read again brings newer facts than those that were told.
  useEffect(() => take(batch), [take, batch]);
  // Without the server a page opens as it was drawn; what this device heard since then it has kept.
  useEffect(() => {
    void readKnown(batch.id).then((kept) => {
      if (kept?.workshopId === workshopId && kept.epoch === newest.current.epoch) take(kept as KnownOf<F, E>);
    });
  }, [take, workshopId, batch.id]);
  const keep = useCallback(() => {
    return keepKnown({ ...newest.current, batchId: batch.id, workshopId });
  }, [workshopId, batch.id]);
  const keeping = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => {
    keeping.current ??= setTimeout(() => {
      keeping.current = undefined;
      void keep();
    }, KEEP_PAUSE_MS);
  }, [known, keep]);
  useEffect(
    () => () => {
      if (keeping.current) void keep();
      clearTimeout(keeping.current);
      keeping.current = undefined;
    },
    [keep],
  );
  const busy = useRef(false);
  const again = useRef(false);
  const read = useCallback(async () => {
    if (busy.current) {
      again.current = true;
      return;
    }
    busy.current = true;
    try {
      do {
        again.current = false;
        const after = newest.current.seq;
        const sent = seen().taken.filter((one) => one.batchId === batch.id);
        const answer = await fetch(`/api/workshops/${workshopId}/${SUBJECT_PATHS[what]}/${batch.id}/log?after=${after}`, { redirect: "manual" }).catch(
          () => null,
        );
        if (!answer?.ok) return;
        const told = (await answer.json().catch(() => null)) as { facts: F; events: E[]; seq: number; epoch: string } | null;
        if (!told) return;
        // Places of another history mean nothing here: the page is read anew.
        if (told.epoch !== newest.current.epoch) return router.refresh();
        take(joinRead(newest.current, told));
        const ids = new Set(newest.current.events.map((event) => event.id));
        if (told.events.length < MAX_READ)
          void waitAgain(sent.filter((one) => !ids.has(one.id) && (!one.place || (one.place.epoch === told.epoch && one.place.seq > after))));
      } while (again.current);
    } finally {
      busy.current = false;
    }
  }, [take, router, workshopId, what, batch.id]);
  useEffect(
    () =>
      hearOthers(workshopId, (change) => {
        if (change.workshop !== "*" && (change.workshop !== workshopId || change[what] !== batch.id)) return;
        const next = change.written ? joinWritten(subject, newest.current, change.written as WrittenOf<E>, batch.plan) : null;
        if (!next) return void read();
        take(next);
      }),
    [workshopId, what, subject, batch.id, batch.plan, read, take],
  );
  const { taken } = useOutbox();
  const mine = taken.findLast((one) => one.batchId === batch.id)?.event.id;
  useEffect(() => {
    if (!mine) return;
    const timer = setTimeout(() => {
      if (!newest.current.events.some((event) => event.id === mine)) void read();
    }, HEAR_MS);
    return () => clearTimeout(timer);
  }, [mine, read]);
  return known;
}

/** What is entered, without what this page knows by itself. */
export type EnteredOf<B> = B & { happenedAt?: string | null; instrumentId?: string | null; corrects?: string | null };

/** A subject as it stands, with what still waits to be sent, and the way to add to it. `called`: what it is called where it is not at hand. */
export function useLog<F extends LogFacts, C, E extends EventOf, B extends { kind: string; payload: unknown }>(
  about: About<F, C>,
  logged: Logged<F, C, E>,
  called: string,
  names: ReadonlyMap<string, string>,
) {
  const { workshopId, personId } = usePlace();
  const clock = useClock();
  const units = useUnits();
  /** An entry that was refused here goes when the maker enters another of its kind in its place. */
  const refusedHere = useRef(new Map<string, string>());
  const { waiting, taken } = useOutbox();
  const [last, setLast] = useState<EventOf | null>(null);
  const known = useKnown(workshopId, about, logged);
  const { id, plan } = logged;
  const { subject, what } = about;
  const at = useMemo(() => {
    const ids = new Set(known.events.map((event) => event.id));
    const pending = [...taken, ...waiting]
      .filter((one) => one.batchId === id && one.what !== "note" && !ids.has(one.event.id))
      .map((one) => ({ ...one.event, arrivedAt: one.event.happenedAt }) as unknown as E);
    const events = [...known.events, ...pending];
    if (pending.length === 0) return { facts: known.facts, events, entries: settle(events) as EntryOf<E>[] };
    // With all entries at hand everything is worked out anew; of a long log, what follows on is added to the facts.
    if (known.events.length >= known.total) {
      const { facts, entries } = subject.of(events as never);
      return { facts, entries: entries as EntryOf<E>[], events };
    }
    const facts = structuredClone(known.facts);
    for (const event of pending) if (followsOn(facts, event)) foldOne(subject, facts, event, plan);
    return { facts, events, entries: settle(events) as EntryOf<E>[] };
  }, [known, id, waiting, taken, plan, subject]);

  const eventOf = (entered: EnteredOf<B>): EventOf => {
    const { happenedAt, instrumentId, corrects, ...body } = entered;
    return {
      id: v7(),
      happenedAt: happenedAt ?? clock.now(),
      personId,
      instrumentId: instrumentId ?? null,
      corrects: corrects ?? null,
      ...(clock.isOff ? { deviceAt: new Date().toISOString() } : {}),
      ...body,
    } as unknown as EventOf;
  };
  /** The entry as it waits on this device, with what is told of it where its batch is not at hand. */
  const waitingAs = (event: EventOf) => {
    const told = subject.tell({ ...event, arrivedAt: event.happenedAt } as never, plan, units, names.get(event.instrumentId ?? "") ?? "");
    return {
      workshopId,
      batchId: id,
      ...(what === "batch" ? {} : { what }),
      of: called,
      told: told.figure ? `${told.what}: ${told.figure}` : told.what,
      event: event as unknown as SentEvent,
      v: subject.versionOf(event.kind),
    };
  };
  const record = async (entered: EnteredOf<B>): Promise<Refusal | null> => {
    const event = eventOf(entered);
    // It counts here at once, so an undo pressed before the server has answered takes back this entry and no other.
    setLast(event.kind === "withdrawn" ? null : event);
    const instead = refusedHere.current.get(event.kind);
    refusedHere.current.delete(event.kind);
    const refusal = await send(waitingAs(event), instead);
    if (!refusal) return null;
    refusedHere.current.set(event.kind, event.id);
    setLast((newest) => (newest?.id === event.id ? null : newest));
    return refusal;
  };
  return {
    ...at,
    id,
    total: known.total,
    last,
    record,
    /** Puts several down at once: they are kept on this device before the first is sent, and each refusal is told like that of any other. */
    recordMany: (all: readonly EnteredOf<B>[]): Promise<void> => sendMany(all.map((one) => waitingAs(eventOf(one)))),
    /** Takes the last entry back; a correction that is undone leaves what was there before. */
    undo: async () => {
      if (!last) return null;
      return record({ kind: "withdrawn", payload: { why: "taken back at once", whole: false }, corrects: last.id } as unknown as EnteredOf<B>);
    },
    name: (of: string | null) => names.get(of ?? "") ?? "",
    /** What an entry says, in the reader's units. */
    ownWords: subject.ownWords,
    tell: (event: E) => subject.tell(event as never, plan, units, names.get(event.instrumentId ?? "") ?? ""),
  };
}
