"use client";

import type { DayRecord } from "@hearth/core";
import { useCallback, useEffect, useRef, useState } from "react";
import { ask } from "@/forms/ask";
import { usePlace } from "@/log/place";
import { saveDay } from "@/server/season-commands";
import { Keeper } from "./keeper";

/** What of a day is changed by acts on its timetable; the rest is typed. */
export type Acts = Pick<DayRecord, "held" | "breaks" | "lost" | "gone">;
const MOST_STEPS = 60;

/** What was done to a timetable, with the way back through all of it. */
export function useActs(initial: Acts) {
  const [past, setPast] = useState<Acts[]>([]);
  const [acts, setActs] = useState(initial);
  const act = useCallback(
    (change: Partial<Acts>) => {
      setPast((old) => [...old.slice(-MOST_STEPS), acts]);
      setActs({ ...acts, ...change });
    },
    [acts],
  );
  const undo = useCallback(() => {
    const before = past.at(-1);
    if (!before) return;
    setPast(past.slice(0, -1));
    setActs(before);
  }, [past]);
  return { acts, act, undo, canUndo: past.length > 0 };
}

/** What is typed in one go is written once. */
const PAUSE_MS = 400;

/** Keeps a day as it stands, a moment after it was last changed. Says what went wrong; nothing typed is lost by it. */
export function useKeptDay(on: string, record: DayRecord | null, first: { version: number; data: DayRecord | null }): { said: string; kept: boolean } {
  const { workshopId, personId } = usePlace();
  const [{ said }, setState] = useState({ said: "", kept: false });
  const [keeper] = useState(
    () =>
      new Keeper(
        (text, version) => ask(saveDay({ workshopId, personId }, { on, data: JSON.parse(text), version })),
        setState,
        first.version,
        first.data && JSON.stringify(first.data),
      ),
  );
  const text = record && JSON.stringify(record);
  const newest = useRef(text);
  newest.current = text;
  useEffect(() => {
    if (text === null || keeper.has(text)) return;
    const timer = setTimeout(() => void keeper.put(text), PAUSE_MS);
    return () => clearTimeout(timer);
  }, [text, keeper]);
  // Who goes to another page at once has it written too.
  useEffect(
    () => () => {
      if (newest.current !== null) void keeper.put(newest.current);
    },
    [keeper],
  );
  return { said, kept: text !== null && keeper.has(text) };
}
