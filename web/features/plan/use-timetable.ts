"use client";

import type { ScheduleAnswer, ScheduleRequest } from "@hearth/core";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Told, Wished } from "@/workers/timetable";

/** What is typed in one go is asked for once. */
const PAUSE_MS = 300;

export type Timetabled = { is: "none" } | { is: "looking" | "done"; of: ScheduleRequest; answer: ScheduleAnswer | null } | { is: "failed"; message: string };

/** Searches the timetable of a request in a worker, and again whenever it changes; `stop` keeps the best so far. */
export function useTimetable(request: ScheduleRequest | null): { state: Timetabled; stop: () => void } {
  const worker = useRef<Worker | null>(null);
  const [state, setState] = useState<Timetabled>({ is: "none" });
  const tell = useCallback((wish: Wished) => worker.current?.postMessage(wish), []);
  const asked = JSON.stringify(request);
  useEffect(() => {
    const wanted = JSON.parse(asked) as ScheduleRequest | null;
    if (!wanted) return setState({ is: "none" });
    const timer = setTimeout(() => {
      const item = new Worker(new URL("../../workers/timetable.ts", import.meta.url), { type: "module" });
      worker.current = item;
      setState({ is: "looking", of: wanted, answer: null });
      item.onmessage = ({ data }: MessageEvent<Told>) => setState({ is: data.looking ? "looking" : "done", of: wanted, answer: data.answer });
      item.onerror = () => setState({ is: "failed", message: "The schedule could not be calculated. Load the page again." });
      tell(wanted);
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      worker.current?.terminate();
      worker.current = null;
    };
  }, [asked, tell]);
  return { state, stop: useCallback(() => tell("stop"), [tell]) };
}
