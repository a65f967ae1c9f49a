"use client";

import { concerns, type EventOf, type Topic, type WrittenOf } from "@hearth/core";
import { checkSignIn } from "./sign-out";

/** Changes that others made, as the server tells them. One tab listens for all tabs of this browser, which allows only few connections. */
export interface Change {
  workshop: string;
  batch?: string;
  trial?: string;
  order?: string;
  /** What it is about; nothing where it can be anything. */
  topics?: readonly Topic[];
  /** This device, or who works on it, may see nothing more. */
  cut?: true;
  written?: WrittenOf<EventOf>;
}
type Listener = (change: Change) => void;

const listeners = new Set<Listener>();
let channel: BroadcastChannel | null = null;
let listening: string | null = null;

/** A stream that was refused is asked for again after so long. */
const AGAIN_MS = 2_000;
/** EventSource's own word for it (HTML, 9.2.2). */
const REFUSED = 2;

/** The newest changes, and when they were heard. */
const heard: { at: number; change: Change }[] = [];
const MAX_HEARD = 50;

/** Returns whether anything of these topics was told within so many milliseconds: a page that was being read just then may not show it. */
export const heardRecently = (ms: number, topics: readonly Topic[]): boolean =>
  heard.some(({ at, change }) => performance.now() - at < ms && concerns(change, topics));

const tell = (change: Change) => {
  heard.push({ at: performance.now(), change });
  if (heard.length > MAX_HEARD) heard.shift();
  for (const listener of listeners) listener(change);
};

const marks = new Map<string, string>();
/** What is shown of a workshop was read when its server had heard so far: what was told since then is what this page missed. */
export function markRead(workshopId: string, mark: string | null): void {
  if (mark === null) marks.delete(workshopId);
  else marks.set(workshopId, mark);
}

/** Listens to the server for a workshop, where this tab is the one that does; others hear from it. */
function listen(workshopId: string): void {
  if (listening === workshopId) return;
  listening = workshopId;
  channel?.close();
  channel = new BroadcastChannel(`hearth.live.${workshopId}`);
  channel.onmessage = ({ data }: MessageEvent<Change>) => tell(data);
  const lead = () =>
    new Promise<void>((end) => {
      let source: EventSource;
      let again: ReturnType<typeof setTimeout> | undefined;
      const connect = () => {
        source = new EventSource(`/api/workshops/${workshopId}/live${marks.has(workshopId) ? `?since=${marks.get(workshopId)}` : ""}`);
        source.onmessage = ({ data }) => {
          const change = JSON.parse(data) as Change;
          if (change.cut) return void checkSignIn();
          tell(change);
          channel?.postMessage(change);
        };
        // The browser connects again by itself where a stream broke off, but not where it was refused, as while the database is away.
        // What was missed meanwhile is told as a change of everything.
        source.onerror = () => {
          void checkSignIn();
          if (source.readyState === REFUSED && listening === workshopId) again = setTimeout(connect, AGAIN_MS);
        };
      };
      connect();
      const timer = setInterval(() => {
        if (listening === workshopId) return;
        clearInterval(timer);
        clearTimeout(again);
        source.close();
        end();
      }, 1_000);
    });
  // Where locks are not known, each tab listens for itself.
  if (!navigator.locks) return void lead();
  const name = `hearth.live.${workshopId}`;
  void navigator.locks.request(name, { ifAvailable: true }, (lock) => {
    if (lock) return lead();
    // Another tab leads already, and heard of nothing that this page may have missed while it was opening.
    tell({ workshop: "*" });
    void navigator.locks.request(name, lead);
  });
}

/** Calls the listener for every change that others make in a workshop, until the returned function is called. */
export function subscribeToOthers(workshopId: string, listener: Listener): () => void {
  listeners.add(listener);
  listen(workshopId);
  return () => listeners.delete(listener);
}
