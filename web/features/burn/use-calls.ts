"use client";

import { useEffect, useRef } from "react";
import { sound } from "@/ui/sound";
import type { Bell } from "@/workers/bell";

/** A time at which hands are wanted, and what for. */
export interface Calling {
  key: string;
  at: string;
  says: string;
}

/** Tells it outside the page too, where the maker allowed that. */
async function notify(says: string): Promise<void> {
  if (typeof Notification === "undefined" || Notification.permission !== "granted") return;
  const worker = await navigator.serviceWorker?.getRegistration().catch(() => undefined);
  if (worker) await worker.showNotification(says, { tag: says, requireInteraction: true }).catch(() => undefined);
  else new Notification(says, { tag: says });
}

/**
 * Calls when something is due: by sound, in the page's title and, where it is allowed, by a message of the device. A worker keeps
 * the time, since a page in the background is woken seldom.
 */
export function useCalls(calls: readonly Calling[], aheadMs: number): void {
  const rang = useRef(new Set<string>());
  const listed = JSON.stringify(calls);
  useEffect(() => {
    const all = JSON.parse(listed) as Calling[];
    const waiting = all.filter((item) => !rang.current.has(`${item.key} ${item.at}`));
    if (waiting.length === 0) return;
    const ring = (item: Calling) => {
      const name = `${item.key} ${item.at}`;
      if (rang.current.has(name)) return;
      rang.current.add(name);
      sound(2);
      void notify(item.says);
    };
    let worker: Worker | null = null;
    try {
      worker = new Worker(new URL("../../workers/bell.ts", import.meta.url), { type: "module" });
      worker.onmessage = ({ data }: MessageEvent<string>) => {
        const item = waiting.find((each) => each.key === data);
        if (item) ring(item);
      };
      // Where it cannot run, the page's own clock shows what is due.
      worker.onerror = (event) => event.preventDefault();
      worker.postMessage(waiting.map((item): Bell => ({ key: item.key, at: Date.parse(item.at) - aheadMs })));
    } catch {
      // As above.
    }
    return () => worker?.terminate();
  }, [listed, aheadMs]);
}

/** Says in the title of the page how many are due, so that it is seen among others. */
export function useDueTitle(due: number): void {
  useEffect(() => {
    const plain = document.title.replace(/^\(\d+\) /, "");
    document.title = due > 0 ? `(${due}) ${plain}` : plain;
    return () => {
      document.title = document.title.replace(/^\(\d+\) /, "");
    };
  }, [due]);
}
