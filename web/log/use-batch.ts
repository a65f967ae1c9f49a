"use client";

import {
  BATCH,
  type BatchEvent,
  type BatchPlan,
  type BatchState,
  bandsOf,
  doneName,
  type EventBody,
  phaseAt,
  progress,
  readingsOf,
  type ScaleUnit,
  titleOf,
} from "@hearth/core";
import { useMemo } from "react";
import { useNow } from "@/ui/units";
import { marksOf } from "./marks";
import { type Logged, useLog } from "./use-log";

export interface Instrument {
  id: string;
  name: string;
  kind: "probe" | "infrared" | "glass" | "scale";
  correction: number;
  resolutionUg: number | null;
  scaleUnit: ScaleUnit | null;
  capacityMg: number | null;
}

export interface BatchProps {
  people: { id: string; name: string }[];
  instruments: Instrument[];
  batch: Logged<BatchState, BatchPlan, BatchEvent> & {
    number: number;
    formulaId: string | null;
    drawsStock: boolean;
  };
}

const ABOUT = { what: "batch", subject: BATCH } as const;

/** A batch as it stands, with what still waits to be sent, and the way to add to it. */
export function useBatch({ batch, instruments, people }: BatchProps, everyMs = 1_000) {
  const now = useNow(everyMs);
  const { plan } = batch;
  const title = titleOf(plan);
  const names = useMemo(() => new Map([...people, ...instruments].map((item) => [item.id, item.name])), [people, instruments]);
  const log = useLog<BatchState, BatchPlan, BatchEvent, EventBody>(ABOUT, batch, `${batch.number} ${title}`, names);
  const { state } = log;
  const { prompts, next, open } = useMemo(() => progress(plan, state), [plan, state]);
  const readings = useMemo(() => readingsOf(state), [state]);
  return {
    ...log,
    now,
    plan,
    title,
    bands: bandsOf(plan.process),
    steps: prompts,
    next,
    /** What can be done next, one for each sequence: of jars and of molds. */
    open,
    ...phaseAt(plan, state, now),
    marks: marksOf(readings, instruments),
    moments: [
      ...Object.entries(state.did).map(([step, item]) => ({
        at: item.at,
        name: doneName(plan.process.steps, step),
      })),
      ...Object.values(state.pours).map((pour) => ({ at: pour.at, name: "poured" })),
    ],
  };
}
export type Batch = ReturnType<typeof useBatch>;
