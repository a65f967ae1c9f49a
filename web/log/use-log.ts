"use client";

import {
  type Aggregate,
  applyEvent,
  type CorrectableField,
  type Description,
  type EntryFields,
  type EntryOf,
  type EventBody,
  type EventOf,
  type Formatters,
  isAppendOnly,
  type LogState,
  resolveCorrections,
  type SentEntry,
  type SentEvent,
  type WrittenOf,
} from "@hearth/core";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { v7 } from "uuid";
import { useRouter } from "@/ui/address";
import { useClock, useUnits } from "@/ui/units";
import { subscribeToOthers } from "./live";
import { type CachedLogOf, mergeDelta, mergeSnapshot } from "./log-cache";
import { getSnapshot, send, sendMany, useOutbox, waitAgain } from "./outbox";
import { readLogCache, type SendProblem, writeLogCache } from "./store";
import { AGGREGATE_PATHS, type AggregateName } from "./subjects";
import { valueRule } from "./value-rule";
import { useWorkshop } from "./workshop";

/** What a page is given of an aggregate. `events` are the newest; all of them where there are no more. */
export interface Logged<F, C, E> extends CachedLogOf<F, E> {
  id: string;
  plan: C;
}
/** A subject as far as a page works with it. */
interface About<F extends LogState, C, E extends EventOf> {
  what: AggregateName;
  subject: Aggregate<F, C> & {
    of: (events: readonly E[]) => { state: F; entries: EntryOf<E>[] };
    versionOf: (kind: string) => number;
    upcastSent: (raw: unknown) => unknown;
    tell: (event: E, plan: C, say: Formatters, instrument: string) => Required<Description>;
    onlyByCommand: (kind: string) => string | null;
    correctableField: (kind: string) => CorrectableField | null | undefined;
    enteredBy: (kind: string) => EntryFields;
  };
}

/** A copy for opening without the server is written at most so often, however fast others enter. */
const KEEP_PAUSE_MS = 2_000;
/** The server gives at most a given number of entries at once. */
const MAX_READ = 400;
/** What this device sent and has not heard of for so long is read. */
const HEAR_MS = 1_500;

/** Returns what the server knows of it, kept up with what others and this device enter. */
function useKnown<F extends LogState, C, E extends EventOf>(
  workshopId: string,
  { what, subject: aggregate }: About<F, C, E>,
  batch: Logged<F, C, E>,
): CachedLogOf<F, E> {
  const [known, setKnown] = useState<CachedLogOf<F, E>>(batch);
  const newest = useRef<CachedLogOf<F, E>>(batch);
  const router = useRouter();
  const take = useCallback((next: CachedLogOf<F, E>) => {
    // What was known of another history, from before a backup was restored, is nothing any more.
    if (next.epoch === newest.current.epoch && next.seq <= newest.current.seq) return;
    newest.current = next;
    setKnown(next);
  }, []);
  // A page that was read again brings newer facts than those that were told.
  useEffect(() => take(batch), [take, batch]);
  // Without the server a page opens as it was drawn; what this device heard since then it has kept.
  useEffect(() => {
    void readLogCache(batch.id).then((kept) => {
      if (kept?.workshopId === workshopId && kept.epoch === newest.current.epoch) take(kept as CachedLogOf<F, E>);
    });
  }, [take, workshopId, batch.id]);
  const keep = useCallback(() => {
    return writeLogCache({ ...newest.current, batchId: batch.id, workshopId });
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
        const sent = getSnapshot().taken.filter((entry) => entry.batchId === batch.id);
        const answer = await fetch(`/api/workshops/${workshopId}/${AGGREGATE_PATHS[what]}/${batch.id}/log?after=${after}`, { redirect: "manual" }).catch(
          () => null,
        );
        if (!answer?.ok) return;
        const told = (await answer.json().catch(() => null)) as { state: F; events: E[]; seq: number; epoch: string } | null;
        if (!told) return;
        // Places of another history mean nothing here: the page is read anew.
        if (told.epoch !== newest.current.epoch) return router.refresh();
        take(mergeSnapshot(newest.current, told));
        const ids = new Set(newest.current.events.map((event) => event.id));
        if (told.events.length < MAX_READ)
          void waitAgain(sent.filter((entry) => !ids.has(entry.id) && (!entry.place || (entry.place.epoch === told.epoch && entry.place.seq > after))));
      } while (again.current);
    } finally {
      busy.current = false;
    }
  }, [take, router, workshopId, what, batch.id]);
  useEffect(
    () =>
      subscribeToOthers(workshopId, (change) => {
        if (change.workshop !== "*" && (change.workshop !== workshopId || change[what] !== batch.id)) return;
        const next = change.written ? mergeDelta(aggregate, newest.current, change.written as WrittenOf<E>, batch.plan) : null;
        if (!next) return void read();
        take(next);
      }),
    [workshopId, what, aggregate, batch.id, batch.plan, read, take],
  );
  const { taken } = useOutbox();
  const mine = taken.findLast((entry) => entry.batchId === batch.id)?.event.id;
  useEffect(() => {
    if (!mine) return;
    const timer = setTimeout(() => {
      if (!newest.current.events.some((event) => event.id === mine)) void read();
    }, HEAR_MS);
    return () => clearTimeout(timer);
  }, [mine, read]);
  return known;
}

/** An entry as a form makes it, without what the page adds: id, time and person. */
export type EnteredOf<B> = B & { happenedAt?: string | null; instrumentId?: string | null; corrects?: string | null };
type EnteredAny = EnteredOf<{ kind: string; payload: unknown }>;
/** An entry of a batch as a form makes it. */
export type Entered = EnteredOf<EventBody>;

/** A subject as it stands, with what still waits to be sent, and the way to add to it. `called`: what it is called where it is not at hand. */
export function useLog<F extends LogState, C, E extends EventOf, B extends { kind: string; payload: unknown }>(
  about: About<F, C, E>,
  logged: Logged<F, C, E>,
  called: string,
  names: ReadonlyMap<string, string>,
) {
  const { workshopId, personId } = useWorkshop();
  const clock = useClock();
  const units = useUnits();
  /** An entry that was refused here goes when the maker enters another of its kind in its place. */
  const refusedHere = useRef(new Map<string, string>());
  const { waiting, taken } = useOutbox();
  const [last, setLast] = useState<SentEntry | null>(null);
  const known = useKnown(workshopId, about, logged);
  const { id, plan } = logged;
  const { subject: aggregate, what } = about;
  const at = useMemo(() => {
    const ids = new Set(known.events.map((event) => event.id));
    const pending = [...taken, ...waiting]
      .filter((entry) => entry.batchId === id && entry.what !== "note" && !ids.has(entry.event.id))
      // One that has waited through an update is shown as this version knows it.
      .map((entry) => ({ ...(aggregate.upcastSent({ ...entry.event, v: entry.v }) as SentEntry), arrivedAt: entry.event.happenedAt }) as EventOf as E);
    const events = [...known.events, ...pending];
    if (pending.length === 0) return { state: known.state, events, entries: resolveCorrections(events) };
    // With all entries at hand everything is recalculated; of a long log, what follows on is added to the state.
    if (known.events.length >= known.total) {
      const { state, entries } = aggregate.of(events);
      return { state, entries, events };
    }
    const state = structuredClone(known.state);
    for (const event of pending) if (isAppendOnly(state, event)) applyEvent(aggregate, state, event, plan);
    return { state, events, entries: resolveCorrections(events) };
  }, [known, id, waiting, taken, plan, aggregate]);

  const eventOf = ({ happenedAt, instrumentId, corrects, kind, payload }: EnteredAny): SentEntry => ({
    id: v7(),
    happenedAt: happenedAt ?? clock.now(),
    personId,
    instrumentId: instrumentId ?? null,
    corrects: corrects ?? null,
    ...(clock.isOff ? { deviceAt: new Date().toISOString() } : {}),
    kind,
    payload,
  });
  /** The entry as it waits on this device, with what is told of it where its batch is not at hand. */
  const waitingAs = (event: SentEntry) => {
    const description = aggregate.tell({ ...event, arrivedAt: event.happenedAt } as EventOf as E, plan, units, names.get(event.instrumentId ?? "") ?? "");
    return {
      workshopId,
      batchId: id,
      ...(what === "batch" ? {} : { what }),
      of: called,
      told: description.figure ? `${description.what}: ${description.figure}` : description.what,
      event: event as SentEvent,
      v: aggregate.versionOf(event.kind),
    };
  };
  const put = async (entered: EnteredAny): Promise<SendProblem | null> => {
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
    record: (entered: EnteredOf<B>): Promise<SendProblem | null> => put(entered),
    /** Records an entry of a type whose form is made of its one field. */
    recordAny: (entered: { kind: string; payload: unknown }): Promise<SendProblem | null> => put(entered),
    enteredBy: aggregate.enteredBy,
    /** Puts an entry in the place of another of its type, or deletes it. */
    correct: (entered: EnteredAny & { corrects: string }): Promise<SendProblem | null> => put(entered),
    /** Puts several down at once: they are kept on this device before the first is sent, and each refusal is told like that of any other. */
    recordMany: (all: readonly EnteredOf<B>[]): Promise<void> => sendMany(all.map((entered) => waitingAs(eventOf(entered)))),
    /** Takes the last entry back; a correction that is undone leaves what was there before. */
    undo: async () => {
      if (!last) return null;
      return put({ kind: "withdrawn", payload: { why: "undone", mode: "undo" }, corrects: last.id });
    },
    name: (of: string | null) => names.get(of ?? "") ?? "",
    /** What an entry says, in the units of the workshop. */
    onlyByCommand: aggregate.onlyByCommand,
    correctableField: (event: Pick<EventOf, "kind" | "payload" | "instrumentId">) => valueRule(aggregate.correctableField(event.kind), event, units),
    tell: (event: E) => aggregate.tell(event, plan, units, names.get(event.instrumentId ?? "") ?? ""),
  };
}
