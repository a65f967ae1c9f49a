"use client";

import type { ScheduleAnswer, ScheduleRequest } from "@hearth/core";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Told } from "@/workers/timetable";

/** What is typed in one go is asked for once. */
const PAUSE_MS = 300;

/** Better timetables are shown so often at most. */
const EVERY_MS = 2_000;

export type Timetabled = { is: "none" } | { is: "looking" | "done"; of: ScheduleRequest; answer: ScheduleAnswer | null } | { is: "failed"; message: string };

/** Searches the timetable of a request in a worker, and again whenever it changes; `stop` keeps the best so far. */
export function useTimetable(request: ScheduleRequest | null): { state: Timetabled; stop: () => void } {
  const worker = useRef<Worker | null>(null);
  const [state, setState] = useState<Timetabled>({ is: "none" });
  const asked = JSON.stringify(request);
  useEffect(() => {
    const wanted = JSON.parse(asked) as ScheduleRequest | null;
    worker.current?.terminate();
    worker.current = null;
    if (!wanted) return setState({ is: "none" });
    const timer = setTimeout(() => {
      const one = new Worker(new URL("../../workers/timetable.ts", import.meta.url), { type: "module" });
      worker.current = one;
      setState({ is: "looking", of: wanted, answer: null });
      let shown = 0;
      let later: ReturnType<typeof setTimeout> | undefined;
      one.onmessage = ({ data }: MessageEvent<Told>) => {
        clearTimeout(later);
        const show = () => {
          shown = performance.now();
          setState({ is: data.looking ? "looking" : "done", of: wanted, answer: data.answer });
        };
        // The first at once; then no oftener than it can be followed.
        if (!data.looking || performance.now() - shown > EVERY_MS) show();
        else later = setTimeout(show, EVERY_MS);
        if (!data.looking) one.terminate();
      };
      one.onerror = () => setState({ is: "failed", message: "The timetable could not be worked out here. Load the page again." });
      one.postMessage(wanted);
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      worker.current?.terminate();
      worker.current = null;
    };
  }, [asked]);
  const stop = useCallback(() => {
    worker.current?.terminate();
    worker.current = null;
    setState((old) => (old.is === "looking" ? { ...old, is: "done" } : old));
  }, []);
  return { state, stop };
}
