"use client";

import { TRIAL, type TrialBody, type TrialEvent, type TrialFacts, type TrialPlan } from "@hearth/core";
import { useMemo } from "react";
import { words } from "@/forms/fields";
import { massRule } from "@/forms/rules";
import type { Retyped } from "@/log/correction";
import type { Instrument } from "@/log/use-batch";
import { type EnteredOf, type Logged, useLog } from "@/log/use-log";
import type { TesterBatch } from "@/server/trials";
import { useClock, useNow, useUnits } from "@/ui/units";

export interface TrialProps {
  people: { id: string; name: string }[];
  instruments: Instrument[];
  trial: Logged<TrialFacts, TrialPlan, TrialEvent> & { number: number; batches: TesterBatch[] };
}
export type TrialEntered = EnteredOf<TrialBody>;

const ABOUT = { what: "trial", subject: TRIAL } as const;

/** A trial as it stands, with what still waits to be sent, and the way to add to it. */
export function useTrial({ trial, people, instruments }: TrialProps) {
  const now = useNow(5_000);
  const clock = useClock();
  const units = useUnits();
  const { plan } = trial;
  const names = useMemo(() => new Map([...people, ...instruments].map((one) => [one.id, one.name])), [people, instruments]);
  const log = useLog<TrialFacts, TrialPlan, TrialEvent, TrialBody>(ABOUT, trial, `${trial.number} ${plan.name}`, names);
  const retyped = (event: TrialEvent): Retyped | null => {
    switch (event.kind) {
      case "weighed":
        return {
          label: "What it weighed",
          rule: massRule(units, { initial: units.typed.g(event.payload.mg) }) as Retyped["rule"],
          body: (mg: number) => ({ kind: "weighed", payload: { ...event.payload, mg } }),
        };
      case "note":
        return { label: "Note", rule: words(event.payload.text), body: (text: string) => ({ kind: "note", payload: { text } }) };
      case "lit":
      case "looked":
      case "out":
        // Only when it was can be typed anew.
        return { label: "", rule: { initial: "", parse: () => ({ ok: true, value: null }) }, body: () => ({ kind: event.kind, payload: event.payload }) };
      default:
        return null;
    }
  };
  /**
   * Puts an entry down where the trial takes it, without waiting for the server: the device keeps it. Says why where it does
   * not; what the server alone refuses is shown with all that was refused.
   */
  const enter = (entered: TrialEntered): string => {
    const event = { ...entered, corrects: null, happenedAt: entered.happenedAt ?? clock.now() } as unknown as TrialEvent;
    const why = TRIAL.refusal({ plan, facts: log.facts }, event);
    if (why) return why.message;
    void log.record(entered);
    return "";
  };
  return { ...log, enter, plan, now, batches: trial.batches, number: trial.number, id: trial.id, retyped };
}
export type Trial = ReturnType<typeof useTrial>;
