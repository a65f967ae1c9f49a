"use client";

import {
  BATCH,
  type BatchEvent,
  type BatchFacts,
  type BatchPlan,
  bandsOf,
  batchOf,
  type Entry,
  type EventBody,
  foldOne,
  followsOn,
  phaseAt,
  progress,
  readingsOf,
  type SentEvent,
  settle,
  tellEvent,
  titleOf,
  versionOf,
} from "@hearth/core";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { v7 } from "uuid";
import { useClock, useNow, useUnits } from "@/ui/units";
import { joinRead, joinWritten, type KnownBatch } from "./known";
import { hearOthers } from "./live";
import { marksOf } from "./marks";
import { send, useOutbox } from "./outbox";
import { usePlace } from "./place";
import { keepKnown, type Refusal, readKnown } from "./store";

export interface Instrument {
  id: string;
  name: string;
  kind: "probe" | "infrared" | "glass" | "scale";
  correction: number;
  resolutionUg: number | null;
  capacityMg: number | null;
}

export interface BatchProps {
  people: { id: string; name: string }[];
  instruments: Instrument[];
  batch: {
    id: string;
    number: number;
    formulaId: string | null;
    drawsStock: boolean;
    plan: BatchPlan;
    facts: BatchFacts;
    /** The newest; all of them where there are no more. */
    events: BatchEvent[];
    total: number;
    seq: number;
  };
}

export type Entered = EventBody & { happenedAt?: string | null; instrumentId?: string | null; corrects?: string | null };

/** A copy for opening without the server is written at most so often, however fast others enter. */
const KEEP_PAUSE_MS = 2_000;
/** What this device sent and has not heard of for so long is read. */
const HEAR_MS = 1_500;

/** What the server knows of a batch, kept up with what others and this device enter. */
function useKnown(workshopId: string, batch: BatchProps["batch"]): KnownBatch {
  const [known, setKnown] = useState<KnownBatch>(batch);
  const newest = useRef<KnownBatch>(batch);
  const take = useCallback((next: KnownBatch) => {
    if (next.seq <= newest.current.seq) return;
    newest.current = next;
    setKnown(next);
  }, []);
  // A page that was read again brings newer facts than those that were told.
  useEffect(() => take(batch), [take, batch]);
  // Without the server a page opens as it was drawn; what this device heard since then it has kept.
  useEffect(() => {
    void readKnown(batch.id).then((kept) => {
      if (kept?.workshopId === workshopId) take(kept);
    });
  }, [take, workshopId, batch.id]);
  const keep = useCallback(() => {
    const { facts, events, total, seq } = newest.current;
    return keepKnown({ batchId: batch.id, workshopId, facts, events, total, seq });
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
        const answer = await fetch(`/api/workshops/${workshopId}/batches/${batch.id}/log?after=${newest.current.seq}`).catch(() => null);
        if (!answer?.ok) return;
        const told = (await answer.json()) as { facts: BatchFacts; events: BatchEvent[]; seq: number };
        take(joinRead(newest.current, told));
      } while (again.current);
    } finally {
      busy.current = false;
    }
  }, [take, workshopId, batch.id]);
  useEffect(
    () =>
      hearOthers(workshopId, (change) => {
        if (change.workshop !== "*" && (change.workshop !== workshopId || change.batch !== batch.id)) return;
        const next = change.written ? joinWritten(newest.current, change.written, batch.plan) : null;
        if (!next) return void read();
        take(next);
      }),
    [workshopId, batch.id, batch.plan, read, take],
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

/** A batch as it stands, with what still waits to be sent, and the way to add to it. */
export function useBatch({ batch, instruments, people }: BatchProps, everyMs = 1_000) {
  const { workshopId, personId } = usePlace();
  const now = useNow(everyMs);
  const clock = useClock();
  const units = useUnits();
  /** An entry that was refused here goes when the maker enters another of its kind in its place. */
  const refusedHere = useRef(new Map<string, string>());
  const { waiting, taken } = useOutbox();
  const [last, setLast] = useState<SentEvent | null>(null);
  const known = useKnown(workshopId, batch);
  const { plan } = batch;
  const at = useMemo(() => {
    const ids = new Set(known.events.map((event) => event.id));
    const pending = [...taken, ...waiting]
      .filter((one) => one.batchId === batch.id && !ids.has(one.event.id))
      .map((one) => ({ ...one.event, arrivedAt: one.event.happenedAt }) as BatchEvent);
    const events = [...known.events, ...pending];
    if (pending.length === 0) return { facts: known.facts, events, entries: settle(events) as Entry[] };
    // With all entries at hand everything is worked out anew; of a long log, what follows on is added to the facts.
    if (known.events.length >= known.total) return { ...batchOf(events), events };
    const facts = structuredClone(known.facts);
    for (const event of pending) if (followsOn(facts, event)) foldOne(BATCH, facts, event, plan);
    return { facts, events, entries: settle(events) as Entry[] };
  }, [known, batch.id, waiting, taken, plan]);
  const { facts, events, entries } = at;
  const { steps, next } = useMemo(() => progress(plan, facts), [plan, facts]);
  const names = new Map([...people, ...instruments].map((one) => [one.id, one.name]));

  const record = async (entered: Entered): Promise<Refusal | null> => {
    const { happenedAt, instrumentId, corrects, ...body } = entered;
    const event = {
      id: v7(),
      happenedAt: happenedAt ?? clock.now(),
      personId,
      instrumentId: instrumentId ?? null,
      corrects: corrects ?? null,
      ...(clock.isOff ? { deviceAt: new Date().toISOString() } : {}),
      ...body,
    } as SentEvent;
    // It counts here at once, so an undo pressed before the server has answered takes back this entry and no other.
    setLast(event.kind === "withdrawn" ? null : event);
    const told = tellEvent({ ...event, arrivedAt: event.happenedAt } as BatchEvent, plan, units, names.get(event.instrumentId ?? "") ?? "");
    const instead = refusedHere.current.get(event.kind);
    refusedHere.current.delete(event.kind);
    const refusal = await send(
      {
        workshopId,
        batchId: batch.id,
        of: `${batch.number} ${titleOf(plan)}`,
        told: told.figure ? `${told.what}: ${told.figure}` : told.what,
        event,
        v: versionOf(event.kind),
      },
      instead,
    );
    if (!refusal) return null;
    refusedHere.current.set(event.kind, event.id);
    setLast((newest) => (newest?.id === event.id ? null : newest));
    return refusal;
  };
  const readings = useMemo(() => readingsOf(facts), [facts]);
  return {
    now,
    plan,
    facts,
    title: titleOf(plan),
    bands: bandsOf(plan.process),
    entries,
    events,
    total: known.total,
    steps,
    next,
    ...phaseAt(plan, facts, now),
    last,
    record,
    /** Takes the last entry back; a correction that is undone leaves what was there before. */
    undo: async () => {
      if (!last) return null;
      return record({ kind: "withdrawn", payload: { why: "taken back at once", whole: false }, corrects: last.id });
    },
    name: (id: string | null) => names.get(id ?? "") ?? "",
    marks: marksOf(readings, instruments),
    moments: [
      ...Object.entries(facts.did).map(([act, one]) => ({
        at: one.at,
        name: plan.process.acts.find((other) => other.id === act)?.kind === "stir" ? "stirred" : act,
      })),
      ...Object.values(facts.pours).map((one) => ({ at: one.at, name: "poured" })),
    ],
  };
}
export type Batch = ReturnType<typeof useBatch>;
