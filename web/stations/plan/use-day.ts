"use client";

import type { DayRecord } from "@hearth/core";
import { useCallback, useEffect, useRef, useState } from "react";
import { ask } from "@/forms/ask";
import { usePlace } from "@/log/place";
import { saveDay } from "@/server/season-commands";

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
  const place = usePlace();
  const version = useRef(first.version);
  const written = useRef(JSON.stringify(first.data));
  const [said, setSaid] = useState("");
  const [kept, setKept] = useState(first.version > 0);
  const text = JSON.stringify(record);
  const { workshopId, personId } = place;
  const newest = useRef(text);
  newest.current = text;
  const writing = useRef(false);
  const write = useCallback(async () => {
    // One at a time: each rests on the version that the one before gave.
    if (writing.current) return;
    writing.current = true;
    while (newest.current !== "null" && newest.current !== written.current) {
      const one = newest.current;
      const out = await ask(saveDay({ workshopId, personId }, { on, data: JSON.parse(one), version: version.current }));
      if (!out.ok) {
        setSaid(out.message);
        break;
      }
      version.current = out.value.version;
      written.current = one;
      setSaid("");
      setKept(one === newest.current);
    }
    writing.current = false;
  }, [on, workshopId, personId]);
  useEffect(() => {
    if (text === "null" || text === written.current) return;
    setKept(false);
    const timer = setTimeout(() => void write(), PAUSE_MS);
    return () => clearTimeout(timer);
  }, [text, write]);
  // Who goes to another page at once has it written too.
  useEffect(() => () => void write(), [write]);
  return { said, kept };
}
