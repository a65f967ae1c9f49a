"use client";

import { useSyncExternalStore } from "react";
import { addEntry, allEntries, canKeep, changeEntry, dropEntries, entriesOf, hearChanges, type Kept, putEntry, type Refusal } from "./store";
import { SUBJECT_PATHS } from "./subjects";

/**
 * Entries on their way to the server. Each is kept on this device until the server has it, so that a network or a
 * database that is away loses nothing; each carries its own id, so that sending it twice changes nothing. Of all tabs of
 * a browser one sends at a time, in the order in which the entries were put down.
 */
export interface Box {
  waiting: Kept[];
  /** The newest that the server has taken: they count here until the page has read them back, or a step would flicker. */
  taken: Kept[];
  refused: Kept[];
  /** The server cannot be reached just now. */
  away: boolean;
  /** Whether the device keeps what waits; null until it was tried. */
  keeps: boolean | null;
}

const NONE: Box = { waiting: [], taken: [], refused: [], away: false, keeps: null };
const LOCK = "hearth.outbox";
const MOST_TAKEN = 50;
/** So often the server may fail at one entry, though it can be reached, before it is shown as refused. */
const MOST_TRIES = 5;

let box: Box = NONE;
/** What the device's store would not take: it waits in this page only. */
let unkept: Kept[] = [];
let stored: Kept[] = [];
let away = false;
let keeps: boolean | null = null;
let begun = false;
const listeners = new Set<() => void>();
const asking = new Map<string, (refusal: Refusal | null) => void>();

function tell(): void {
  const all = [...stored, ...unkept];
  const of = (state: Kept["state"]) => all.filter((one) => one.state === state);
  box = { waiting: of("waiting"), taken: of("taken"), refused: of("refused"), away, keeps };
  for (const one of all) {
    const answer = one.state === "waiting" ? undefined : asking.get(one.id);
    if (!answer) continue;
    asking.delete(one.id);
    answer(one.why);
  }
  for (const listener of listeners) listener();
}

/** Readings that overlap: the one asked for last is right. */
let asked = 0;
async function readStored(): Promise<void> {
  const mine = ++asked;
  try {
    const rows = await allEntries();
    if (mine !== asked) return;
    stored = rows;
  } catch {
    keeps = false;
  }
  tell();
  if (box.waiting.length > 0) void flush();
}

/** Reads what is kept and goes on reading it, whichever tab changes it. */
function begin(): void {
  if (begun || typeof window === "undefined") return;
  begun = true;
  void canKeep().then((can) => {
    keeps = can;
    if (!can) {
      tell();
      return void flush();
    }
    hearChanges(() => void readStored());
    void readStored();
  });
}

const change = async (one: Kept, patch: Partial<Kept>): Promise<void> => {
  if (one.seq === undefined) unkept = unkept.map((other) => (other.id === one.id ? { ...other, ...patch } : other));
  else {
    await changeEntry(one.seq, patch);
    // The store tells of it a moment later; what follows here must not see the old state.
    stored = stored.map((other) => (other.id === one.id ? { ...other, ...patch } : other));
  }
  tell();
};

async function nextOf(after: Set<string>): Promise<Kept | undefined> {
  const rows = keeps ? await entriesOf("waiting") : [];
  return [...rows, ...unkept.filter((one) => one.state === "waiting")].find((one) => !after.has(one.id));
}

/** What became of one entry that was sent. */
async function sendOne(one: Kept): Promise<"went" | "away"> {
  const { event, batchId, workshopId, what } = one;
  const answer = await fetch(`/api/workshops/${workshopId}/${SUBJECT_PATHS[what ?? "batch"]}/${batchId}/events`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ ...event, v: one.v ?? (await import("./version")).versionOf(event.kind) }),
    signal: AbortSignal.timeout(15_000),
  }).catch(() => null);
  if (!answer || [401, 408, 429, 502, 503, 504].includes(answer.status)) return "away";
  if (answer.ok) await change(one, { state: "taken", why: null });
  else if (answer.status >= 500 && one.tries + 1 < MOST_TRIES) await change(one, { tries: one.tries + 1 });
  else {
    const told = (await answer.json().catch(() => null)) as { error?: Refusal } | null;
    await change(one, { state: "refused", why: told?.error ?? { message: "The workshop could not take this entry.", fields: {} } });
  }
  return "went";
}

/** Sends what waits, oldest first. One that fails does not stop the others; a server that is away stops all until later. */
async function sendAll(): Promise<void> {
  const seen = new Set<string>();
  for (let one = await nextOf(seen); one; one = await nextOf(seen)) {
    seen.add(one.id);
    if ((await sendOne(one)) === "away") {
      away = true;
      return tell();
    }
  }
  // Until all of it went, what waits is told of.
  if (away) {
    away = false;
    tell();
  }
  const taken = keeps ? await entriesOf("taken") : [];
  if (taken.length > MOST_TAKEN) await dropEntries(taken.slice(0, -MOST_TAKEN).map((one) => one.seq as number));
}

let queued = false;
/** Where tabs cannot wait for one another, this one at least sends one thing at a time. */
let alone: Promise<void> = Promise.resolve();
/** Sends what waits as soon as no other tab is sending. */
export async function flush(): Promise<void> {
  begin();
  if (queued || keeps === null) return;
  queued = true;
  const turn = async () => {
    queued = false;
    await sendAll();
  };
  try {
    if (typeof navigator !== "undefined" && navigator.locks) await navigator.locks.request(LOCK, turn);
    else {
      alone = alone.then(turn, turn);
      await alone;
    }
  } catch {
    queued = false;
  }
}

/** Puts an entry down. Resolves when the server has answered: null, or why it was refused. What it takes the place of goes. */
export function send(entry: Pick<Kept, "workshopId" | "batchId" | "what" | "of" | "told" | "event" | "v">, instead?: string): Promise<Refusal | null> {
  begin();
  const row: Kept = { ...entry, id: entry.event.id, state: "waiting", why: null, tries: 0 };
  return new Promise((resolve) => {
    asking.set(row.id, resolve);
    void (async () => {
      try {
        if (keeps === false) throw new Error("nothing is kept here");
        const placed = await addEntry(row, instead);
        if (!stored.some((one) => one.id === row.id)) stored = [...stored, placed];
      } catch {
        keeps = false;
        unkept = [...unkept, row];
      }
      tell();
      void flush();
    })();
  });
}

/** Drops an entry that was refused; gives the way to have it back. */
export async function drop(one: Kept): Promise<() => void> {
  if (one.seq === undefined) unkept = unkept.filter((other) => other.id !== one.id);
  else await dropEntries([one.seq]);
  stored = stored.filter((other) => other.id !== one.id);
  tell();
  return () => {
    if (one.seq === undefined) unkept = [...unkept, one];
    else void putEntry(one);
    tell();
  };
}

/** Sends an entry that was refused once more: mended, to another batch, or as it is. It gets an id of its own where it was changed. */
export async function again(one: Kept, patch: Partial<Pick<Kept, "batchId" | "of" | "told" | "event" | "v">> = {}): Promise<void> {
  const event = patch.event ?? one.event;
  await change(one, { ...patch, event, id: event.id, state: "waiting", why: null, tries: 0 });
  void flush();
}

/** The box as it is now. */
export const seen = (): Box => box;

export const useOutbox = (): Box =>
  useSyncExternalStore(
    (listener) => {
      begin();
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    seen,
    () => NONE,
  );

export const entries = (n: number): string => (n === 1 ? "1 entry" : `${n} entries`);
