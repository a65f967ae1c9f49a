"use client";

import {
  BATCH,
  type BatchEvent,
  type BatchFacts,
  type BatchPlan,
  bandsOf,
  type EventBody,
  phaseAt,
  progress,
  readingsOf,
  type ScaleUnit,
  titleOf,
} from "@hearth/core";
import { useMemo } from "react";
import { useNow, useUnits } from "@/ui/units";
import { marksOf } from "./marks";
import { type EnteredOf, type Logged, useLog } from "./use-log";
import { valueRule } from "./value-rule";

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
  batch: Logged<BatchFacts, BatchPlan, BatchEvent> & {
    number: number;
    formulaId: string | null;
    drawsStock: boolean;
  };
}

export type Entered = EnteredOf<EventBody>;

const ABOUT = { what: "batch", subject: BATCH } as const;

/** A batch as it stands, with what still waits to be sent, and the way to add to it. */
export function useBatch({ batch, instruments, people }: BatchProps, everyMs = 1_000) {
  const now = useNow(everyMs);
  const { plan } = batch;
  const title = titleOf(plan);
  const names = useMemo(() => new Map([...people, ...instruments].map((one) => [one.id, one.name])), [people, instruments]);
  const log = useLog<BatchFacts, BatchPlan, BatchEvent, EventBody>(ABOUT, batch, `${batch.number} ${title}`, names);
  const { facts } = log;
  const { steps, next } = useMemo(() => progress(plan, facts), [plan, facts]);
  const readings = useMemo(() => readingsOf(facts), [facts]);
  const units = useUnits();
  return {
    ...log,
    retyped: (event: BatchEvent) => valueRule(event, units),
    now,
    plan,
    title,
    bands: bandsOf(plan.process),
    steps,
    next,
    ...phaseAt(plan, facts, now),
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
