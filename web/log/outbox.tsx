"use client";

import { type SentEvent, versionOf } from "@hearth/core";
import { useEffect, useSyncExternalStore } from "react";
import { toast } from "sonner";
import { notice } from "@/ui/variants";

/**
 * Entries on their way to the server. Each is kept on this device until the server has it, so that a network or a
 * database that is away loses nothing; each carries its own id, so that sending it twice changes nothing.
 */
export interface Waiting {
  workshopId: string;
  batchId: string;
  event: SentEvent;
}
interface Box {
  waiting: Waiting[];
  /** The newest that the server has taken: they count here until the page has read them back, or a step would flicker. */
  taken: Waiting[];
  away: boolean;
}
export type Refusal = { message: string; fields: Record<string, string[]> };

const KEPT = "hearth.outbox";
const NONE: Box = { waiting: [], taken: [], away: false };
let box: Box = NONE;
let loaded = false;
const listeners = new Set<() => void>();
const refusals = new Map<string, (refusal: Refusal | null) => void>();
let sending = false;

function load(): Box {
  if (!loaded && typeof window !== "undefined") {
    loaded = true;
    try {
      box = { ...NONE, waiting: JSON.parse(localStorage.getItem(KEPT) ?? "[]") as Waiting[] };
    } catch {
      box = NONE;
    }
  }
  return box;
}
function keep(next: Box): void {
  box = next;
  try {
    localStorage.setItem(KEPT, JSON.stringify(next.waiting));
  } catch {
    // A full or forbidden store: the entries still wait in memory.
  }
  for (const listener of listeners) listener();
}

/** Sends what waits, oldest first; stops at the first that cannot be sent and tries again later. */
async function flush(): Promise<void> {
  if (sending) return;
  sending = true;
  try {
    for (let next = load().waiting[0]; next; next = box.waiting[0]) {
      const { event, batchId, workshopId } = next;
      const answer = await fetch(`/api/workshops/${workshopId}/batches/${batchId}/events`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ ...event, v: versionOf(event.kind) }),
        signal: AbortSignal.timeout(15_000),
      }).catch(() => null);
      if (!answer || answer.status >= 500) {
        keep({ ...box, away: true });
        break;
      }
      const told = answer.ok ? null : ((await answer.json().catch(() => null)) as { error: Refusal } | null);
      keep({ waiting: box.waiting.filter((one) => one.event.id !== event.id), taken: answer.ok ? [...box.taken, next].slice(-50) : box.taken, away: false });
      const refusal = answer.ok ? null : (told?.error ?? { message: "This entry was refused.", fields: {} });
      const asked = refusals.get(event.id);
      // Where the form that sent it is gone, the refusal is shown wherever the maker looks now.
      if (refusal && !asked) toast.error(`An entry was refused: ${refusal.message}`, { duration: 30_000 });
      asked?.(refusal);
      refusals.delete(event.id);
    }
  } finally {
    sending = false;
  }
}

/** Puts an entry in the box and sends it. Resolves when the server has answered: null, or why it was refused. */
export function send(waiting: Waiting): Promise<Refusal | null> {
  return new Promise((resolve) => {
    refusals.set(waiting.event.id, resolve);
    keep({ ...load(), waiting: [...load().waiting, waiting] });
    void flush();
  });
}

export const useOutbox = (): Box =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    load,
    () => NONE,
  );

/** Keeps sending, and says so while something waits. */
export function Outbox() {
  const { waiting, away } = useOutbox();
  useEffect(() => {
    void flush();
    const timer = setInterval(() => void flush(), 3_000);
    const online = () => void flush();
    window.addEventListener("online", online);
    return () => {
      clearInterval(timer);
      window.removeEventListener("online", online);
    };
  }, []);
  if (!away || waiting.length === 0) return null;
  return (
    <p role="status" className={notice({ tone: "cool", place: "strip" })}>
      {waiting.length === 1 ? "1 entry is" : `${waiting.length} entries are`} kept on this device and will be sent when the workshop's records can be reached
      again.
    </p>
  );
}
