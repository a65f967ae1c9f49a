"use client";

import type { Mixture, Programme } from "@hearth/core";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Answered, Asked } from "@/workers/leftovers";

/** How long the solver may look for a better mix, in seconds. */
const PATIENCE = 20;

export type Solving = { is: "idle" } | { is: "looking"; since: number } | { is: "found"; mixture: Mixture } | { is: "failed"; message: string };

/** Runs the integer programme in a worker of its own; a newer question or `stop` ends the one before. */
export function useSolver() {
  const worker = useRef<Worker | null>(null);
  const [state, setState] = useState<Solving>({ is: "idle" });
  const stop = useCallback(() => {
    worker.current?.terminate();
    worker.current = null;
    setState({ is: "idle" });
  }, []);
  useEffect(() => () => worker.current?.terminate(), []);
  const ask = useCallback((programme: Programme) => {
    worker.current?.terminate();
    const item = new Worker(new URL("../../workers/leftovers.ts", import.meta.url), { type: "module" });
    worker.current = item;
    setState({ is: "looking", since: Date.now() });
    item.onmessage = ({ data }: MessageEvent<Answered>) => {
      setState(data.ok ? { is: "found", mixture: data.mixture } : { is: "failed", message: data.message });
      item.terminate();
    };
    item.onerror = () => setState({ is: "failed", message: "The solver could not be started here. Load the page again." });
    item.postMessage({ id: 1, programme, seconds: PATIENCE } satisfies Asked);
  }, []);
  return { state, ask, stop };
}
