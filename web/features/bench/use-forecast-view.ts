"use client";

import { type ForecastTarget, type ForecastView, momentOf } from "@hearth/core";
import { useEffect, useState } from "react";
import type { Asked, Foretold } from "@/workers/forecast-view";

let worker: Worker | null = null;
let asked = 0;
const waiting = new Map<number, (forecastView: ForecastView | null) => void>();

/** Asks the one worker of this page. Nothing is forecast where it cannot run. */
function foretold(watch: ForecastTarget): Promise<ForecastView | null> {
  if (!worker) {
    worker = new Worker(new URL("../../workers/forecast-view.ts", import.meta.url), { type: "module" });
    worker.onmessage = ({ data }: MessageEvent<Foretold>) => {
      waiting.get(data.id)?.(data.forecastView);
      waiting.delete(data.id);
    };
    // Without the network it may not be there yet: then nothing is forecast, and it is tried again with the next reading.
    worker.onerror = (event) => {
      event.preventDefault();
      for (const answer of waiting.values()) answer(null);
      waiting.clear();
      worker = null;
    };
  }
  const id = ++asked;
  worker.postMessage({ id, watch } satisfies Asked);
  return new Promise((answer) => waiting.set(id, answer));
}

type Views = Record<string, ForecastView | null>;

/** Returns whether something was forecast from the newest reading of a watch. */
const isFromNewest = (forecastView: ForecastView, watch: ForecastTarget): boolean =>
  forecastView.readAt === momentOf(watch, watch.request.readings.at(-1)?.minute ?? 0);

/**
 * Returns what is forecast of pots, by their keys; recalculated whenever they are watched anew. Until that is done for the first time it is what came with the
 * page, as long as the device knows of no newer reading.
 */
export function useForecastViews(watches: Readonly<Record<string, ForecastTarget | null>>, fromServer: Readonly<Views> = {}): Views {
  const [known, setKnown] = useState<Views>({});
  useEffect(() => {
    let left = false;
    for (const [key, watch] of Object.entries(watches))
      if (watch) void foretold(watch).then((forecastView) => !left && setKnown((old) => ({ ...old, [key]: forecastView })));
    return () => {
      left = true;
    };
  }, [watches]);
  // What was forecast of another range is not shown.
  return Object.fromEntries(
    Object.entries(watches).map(([key, watch]) => {
      const first = fromServer[key];
      const forecastView = known[key] ?? (first && watch && isFromNewest(first, watch) ? first : null);
      return [key, forecastView && watch && forecastView.name === watch.name && forecastView.range.low === watch.range.low ? forecastView : null];
    }),
  );
}
