"use client";

import { TRIAL, type TrialBody, type TrialEvent, type TrialPlan, type TrialState } from "@hearth/core";
import { useMemo } from "react";
import type { Instrument } from "@/log/use-batch";
import { type EnteredOf, type Logged, useLog } from "@/log/use-log";
import type { TestCandleBatch } from "@/server/burn/trials";
import { useClock, useNow } from "@/ui/units";

export interface TrialProps {
  people: { id: string; name: string }[];
  instruments: Instrument[];
  trial: Logged<TrialState, TrialPlan, TrialEvent> & { number: number; batches: TestCandleBatch[] };
}
export type TrialEntered = EnteredOf<TrialBody>;

const ABOUT = { what: "trial", subject: TRIAL } as const;

/** Returns the current state of a trial, including entries that wait to be sent, and a function that adds one. */
export function useTrial({ trial, people, instruments }: TrialProps) {
  const now = useNow(5_000);
  const clock = useClock();
  const { plan } = trial;
  const names = useMemo(() => new Map([...people, ...instruments].map((item) => [item.id, item.name])), [people, instruments]);
  const log = useLog<TrialState, TrialPlan, TrialEvent, TrialBody>(ABOUT, trial, `${trial.number} ${plan.name}`, names);
  /**
   * Puts an entry down where the trial takes it, without waiting for the server: the device keeps it. Says why where it does
   * not; what the server alone refuses is shown with all that was refused.
   */
  const enter = (entered: TrialEntered): string => {
    const event = { ...entered, corrects: null, happenedAt: entered.happenedAt ?? clock.now() };
    const why = TRIAL.refusal({ plan, state: log.state }, event);
    if (why) return why.message;
    void log.record(entered);
    return "";
  };
  return { ...log, enter, plan, now, batches: trial.batches, number: trial.number, id: trial.id };
}
export type Trial = ReturnType<typeof useTrial>;
