"use client";

import {
  choresOf,
  type DayRecord,
  type DayRow,
  type DayWork,
  dayAt,
  heatOf,
  lanesOf,
  movesOf,
  type PlanningSettings,
  type Process,
  readinessOf,
  requestOfDay,
  rowsOf,
  sunOver,
  type ToLabel,
  timeOn,
} from "@hearth/core";
import { createContext, type ReactNode, useCallback, useContext, useDeferredValue, useMemo, useRef, useState } from "react";
import { useNow, useUnits } from "@/ui/units";
import { useStableCallback } from "@/ui/use-stable-callback";
import type { useDayChanges } from "./use-day";
import { useTimetable } from "./use-timetable";

/** How long a timetable is searched, in seconds. */
const SECONDS = 6;

export interface TimesProps extends Pick<ReturnType<typeof useDayChanges>, "changes" | "apply" | "undo" | "canUndo"> {
  on: string;
  /** The day as it is typed; null while something typed cannot be read. */
  record: DayRecord | null;
  work: DayWork[];
  /** When it is wanted, as ISO text. */
  wanted: string | null;
  settings: PlanningSettings;
  labels: ToLabel[];
}

/** The times of a day as they are found, with what is seen from them and what changes them. */
function useTimesOf({ on, record, work, wanted, settings, labels, changes, apply, undo, canUndo }: TimesProps) {
  const units = useUnits();
  const now = useNow(60_000);
  const today = dayAt(now, units.zone);
  const request = useMemo(() => (record && work.length > 0 ? requestOfDay(record, work, SECONDS) : null), [record, work]);
  const { state, stop } = useTimetable(request);
  const answer = state.is === "looking" || state.is === "done" ? state.answer : null;
  const fresh = useDeferredValue(useMemo(() => rowsOf(work, answer), [work, answer]));
  // Until the next is found, and where a wish cannot be, the timetable before it stays in sight.
  const last = useRef<DayRow[]>([]);
  if (fresh.length > 0) last.current = fresh;
  const rows = useMemo(
    () => (fresh.length > 0 ? fresh : last.current.filter((row) => work.some((work) => work.pot.key === row.key && work.steps.length === row.steps.length))),
    [fresh, work],
  );
  const chores = useMemo(() => (record ? choresOf(work, rows, record, labels) : []), [work, rows, record, labels]);
  const lanes = useMemo(
    () =>
      (["burner", "pitcher"] as const).flatMap((item) =>
        lanesOf(work, rows, item).map((taken, index, all) => ({ name: all.length > 1 ? `${item} ${index + 1}` : item, taken })),
      ),
    [work, rows],
  );
  const heats = useMemo(
    () =>
      rows.map((row) => ({ key: row.key, number: row.number, points: heatOf(row, work.find((work) => work.pot.key === row.key)?.pot.totalMg ?? 1_000_000) })),
    [rows, work],
  );
  const [lit, setLit] = useState<string | null>(null);
  // What moved since the last step, once the search has an answer to it.
  const [before, setBefore] = useState<DayRow[] | null>(null);
  const moves = before && fresh.length > 0 && state.is === "done" ? movesOf(before, fresh) : [];

  const begin = new Date(timeOn(on, record?.begin ?? 540, units.zone)).toISOString();
  const at = useCallback((minutes: number) => new Date(Date.parse(begin) + minutes * 60_000).toISOString(), [begin]);
  const clock = useCallback((minutes: number) => units.clock(at(minutes)), [units, at]);
  const ready = useCallback(
    (key: string, process: Process) => readinessOf(at(rows.find((row) => row.key === key)?.steps.findLast((step) => step.pours)?.end ?? 0), process, wanted),
    [rows, at, wanted],
  );
  /** How far the day has gone; 0 before it begins. */
  const elapsed = on === today ? Math.max(0, Math.floor((Date.parse(now) - Date.parse(begin)) / 60_000)) : 0;
  const change = (next: Parameters<typeof apply>[0]) => {
    setBefore(rows);
    apply(next);
  };
  /** Returns what has begun already stays as it was. */
  const begun = (but: string | null) => ({
    ...changes.held,
    ...Object.fromEntries(
      rows.flatMap((row) => (row.key === but ? [] : row.steps.flatMap((step) => (step.start < elapsed ? [[`${row.key}/${step.id}`, step.start]] : [])))),
    ),
  });
  const hold = (row: string, step: string, minute: number | null) => {
    const { [`${row}/${step}`]: _was, ...others } = changes.held;
    change({ held: minute === null ? others : { ...others, [`${row}/${step}`]: minute } });
  };
  const onHold = useStableCallback(hold);
  const onGone = useStableCallback((key: string) => change({ gone: { ...changes.gone, [key]: elapsed }, held: begun(key) }));
  const drawn = useMemo(
    () => rows.map((row) => ({ ...row, steps: row.steps.map((step) => ({ ...step, held: changes.held[`${row.key}/${step.id}`] !== undefined })) })),
    [rows, changes.held],
  );
  const from = record?.begin ?? 540;
  const minuteOf = useCallback((minutes: number) => minutes - from, [from]);
  const makespan = Math.max(0, ...rows.flatMap((row) => row.steps.map((step) => step.end)));
  const starts = Math.min(0, ...chores.flatMap((chore) => chore.parts.map((part) => part.start)));
  const atHands =
    rows.reduce((sum, row) => sum + row.steps.reduce((all, step) => all + (step.hands ? step.end - step.start : 0), 0), 0) +
    chores.reduce((sum, chore) => sum + chore.parts.reduce((all, part) => all + part.end - part.start, 0), 0);
  const sun = [
    ...new Set(
      rows.flatMap((row) => {
        const pot = work.find((work) => work.pot.key === row.key)?.pot;
        const end = row.steps.findLast((step) => step.pours)?.end;
        return pot && end !== undefined ? sunOver(at(end), pot.process, settings.sun, units.zone) : [];
      }),
    ),
  ].sort();
  return {
    work,
    rows,
    drawn,
    chores,
    lanes,
    heats,
    request,
    state,
    stop,
    answer,
    moves,
    sun,
    changes,
    lit,
    setLit,
    undo,
    canUndo,
    begin,
    clock,
    minuteOf,
    makespan,
    starts,
    atHands,
    ready,
    change,
    begun,
    onHold,
    onGone,
  };
}

type Times = ReturnType<typeof useTimesOf>;
const OfDay = createContext<Times | null>(null);

/** The times of the day one is in. */
export function useTimes(): Times {
  const times = useContext(OfDay);
  if (!times) throw new Error("no day");
  return times;
}

/** Finds the times of a day for what stands in it. What is typed stands in it too, and is not drawn anew when better ones are found. */
export function DayTimes({ children, ...props }: TimesProps & { children: ReactNode }) {
  return <OfDay value={useTimesOf(props)}>{children}</OfDay>;
}
