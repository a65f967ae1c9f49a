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
  /** What was found and is shown a little later. */
  const later = useRef<ReturnType<typeof setTimeout>>(undefined);
  const end = useCallback(() => {
    clearTimeout(later.current);
    worker.current?.terminate();
    worker.current = null;
  }, []);
  const [state, setState] = useState<Timetabled>({ is: "none" });
  const asked = JSON.stringify(request);
  useEffect(() => {
    const wanted = JSON.parse(asked) as ScheduleRequest | null;
    end();
    if (!wanted) return setState({ is: "none" });
    const timer = setTimeout(() => {
      const one = new Worker(new URL("../../workers/timetable.ts", import.meta.url), { type: "module" });
      worker.current = one;
      setState({ is: "looking", of: wanted, answer: null });
      let shown = 0;
      one.onmessage = ({ data }: MessageEvent<Told>) => {
        clearTimeout(later.current);
        const show = () => {
          shown = performance.now();
          setState({ is: data.looking ? "looking" : "done", of: wanted, answer: data.answer });
        };
        // The first at once; then no oftener than it can be followed.
        if (!data.looking || performance.now() - shown > EVERY_MS) show();
        else later.current = setTimeout(show, EVERY_MS);
        if (!data.looking) one.terminate();
      };
      one.onerror = () => setState({ is: "failed", message: "The timetable could not be worked out here. Load the page again." });
      one.postMessage(wanted);
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      end();
    };
  }, [asked, end]);
  const stop = useCallback(() => {
    end();
    setState((old) => (old.is === "looking" ? { ...old, is: "done" } : old));
  }, [end]);
  return { state, stop };
}
