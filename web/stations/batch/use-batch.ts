"use client";

import { type BatchEvent, batchState, type EventBody, type SentEvent } from "@hearth/core";
import { useMemo, useState } from "react";
import { v7 } from "uuid";
import { useNow } from "@/ui/units";
import { type Refusal, send, useOutbox } from "../bench/outbox";
import type { ReadInstrument } from "./lists";

export interface BatchProps {
  workshopId: string;
  personId: string | null;
  people: { id: string; name: string }[];
  instruments: ReadInstrument[];
  batch: { id: string; number: number; formulaId: string | null; events: BatchEvent[] };
}

export type Entered = EventBody & { happenedAt?: string | null; instrumentId?: string | null; corrects?: string | null };

/** A batch as it stands, with what still waits to be sent, and the way to add to it. */
export function useBatch({ workshopId, personId, batch, instruments, people }: BatchProps, everyMs = 1_000) {
  const now = useNow(everyMs);
  const { waiting, taken } = useOutbox();
  const [last, setLast] = useState<SentEvent | null>(null);
  const events = useMemo(() => {
    const known = new Set(batch.events.map((event) => event.id));
    const pending = [...taken, ...waiting]
      .filter((one) => one.batchId === batch.id && !known.has(one.event.id))
      .map((one) => ({ ...one.event, arrivedAt: one.event.happenedAt }) as BatchEvent);
    return [...batch.events, ...pending];
  }, [batch.events, batch.id, waiting, taken]);
  const state = useMemo(() => batchState(events, now), [events, now]);
  const names = new Map([...people, ...instruments].map((one) => [one.id, one.name]));

  const record = async (entered: Entered): Promise<Refusal | null> => {
    const { happenedAt, instrumentId, corrects, ...body } = entered;
    const event = { id: v7(), happenedAt: happenedAt ?? now, personId, instrumentId: instrumentId ?? null, corrects: corrects ?? null, ...body } as SentEvent;
    // It counts here at once, so an undo pressed before the server has answered takes back this entry and no other.
    setLast(event.kind === "withdrawn" ? null : event);
    const refusal = await send({ workshopId, batchId: batch.id, event });
    if (refusal) setLast((newest) => (newest?.id === event.id ? null : newest));
    return refusal;
  };
  return {
    now,
    state,
    events,
    last,
    record,
    undo: async () => {
      if (!last) return null;
      return record({ kind: "withdrawn", payload: { why: "taken back at once" }, corrects: last.id });
    },
    name: (id: string | null) => names.get(id ?? "") ?? "",
    marks: state.readings.map((reading) => ({ ...reading, instrumentKind: instruments.find((one) => one.id === reading.instrumentId)?.kind ?? null })),
    moments: state.entries
      .filter((entry) => !entry.supersededBy && (entry.event.kind === "stirred" || entry.event.kind === "poured"))
      .map((entry) => ({ at: entry.event.happenedAt, name: entry.event.kind })),
  };
}
export type Batch = ReturnType<typeof useBatch>;
