"use client";

import type { DayRecord } from "@hearth/core";
import { useCallback, useEffect, useRef, useState } from "react";
import { callAction } from "@/forms/call-action";
import { useWorkshop } from "@/log/workshop";
import { saveDay } from "@/server/planning/commands";
import { AutoSave } from "./auto-save";

/** What of a day is changed on its timetable; the rest is typed. */
export type DayChanges = Pick<DayRecord, "held" | "breaks" | "lost" | "gone">;
const MAX_STEPS = 60;

/** Returns what was done to a timetable, with the way back through all of it. */
export function useDayChanges(initial: DayChanges) {
  const [past, setPast] = useState<DayChanges[]>([]);
  const [changes, setChanges] = useState(initial);
  const apply = useCallback(
    (change: Partial<DayChanges>) => {
      setPast((old) => [...old.slice(-MAX_STEPS), changes]);
      setChanges({ ...changes, ...change });
    },
    [changes],
  );
  const undo = useCallback(() => {
    const before = past.at(-1);
    if (!before) return;
    setPast(past.slice(0, -1));
    setChanges(before);
  }, [past]);
  return { changes, apply, undo, canUndo: past.length > 0 };
}

/** What is typed in one go is written once. */
const PAUSE_MS = 400;

/** Keeps a day as it stands, a moment after it was last changed. Says what went wrong; nothing typed is lost by it. */
export function useKeptDay(on: string, record: DayRecord | null, first: { version: number; data: DayRecord | null }): { message: string; kept: boolean } {
  const { workshopId, personId } = useWorkshop();
  const [{ message }, setState] = useState({ message: "", kept: false });
  const [keeper] = useState(
    () =>
      new AutoSave(
        (text, version) => callAction(saveDay({ workshopId, personId }, { on, data: JSON.parse(text), version })),
        setState,
        first.version,
        first.data && JSON.stringify(first.data),
      ),
  );
  const text = record && JSON.stringify(record);
  const newest = useRef(text);
  newest.current = text;
  useEffect(() => {
    if (text === null || keeper.isSaved(text)) return;
    const timer = setTimeout(() => void keeper.save(text), PAUSE_MS);
    return () => clearTimeout(timer);
  }, [text, keeper]);
  // Who goes to another page at once has it written too.
  useEffect(
    () => () => {
      if (newest.current !== null) void keeper.save(newest.current);
    },
    [keeper],
  );
  return { message, kept: text !== null && keeper.isSaved(text) };
}
