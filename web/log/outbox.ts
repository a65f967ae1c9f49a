"use client";

import { useSyncExternalStore } from "react";
import {
  addEntries,
  addEntry,
  allEntries,
  askToPersist,
  canKeep,
  changeEntry,
  dropEntries,
  entryAt,
  type OutboxEntry,
  putEntry,
  type SendProblem,
  subscribeToOutbox,
  wasRemoved,
} from "./store";
import { AGGREGATE_PATHS } from "./subjects";

/**
 * The outbox: entries on their way to the server. Each is kept on this device until the server has it, so that nothing is lost while the
 * network or the database is away; each carries its own id, so that sending it twice changes nothing. Of all tabs of a browser one sends
 * at a time, in the order in which the entries were logged. What can be read of the device is sent, whether or not anything can be written
 * to it.
 */
export interface Box {
  waiting: OutboxEntry[];
  /** The newest that the server has taken: they count here until the page has read them back, or a step would flicker. */
  taken: OutboxEntry[];
  refused: OutboxEntry[];
  /** The server had taken them, and has them no more: a backup was restored. */
  lost: OutboxEntry[];
  /** The server cannot be reached just now. */
  away: boolean;
  /** Whether the device keeps what waits; null until it was tried. */
  keeps: boolean | null;
  /** How many of those that wait are in this page only. */
  unkept: number;
}

const NONE: Box = { waiting: [], taken: [], refused: [], lost: [], away: false, keeps: null, unkept: 0 };
const LOCK = "hearth.outbox";
const MAX_TAKEN = 50;
/** So often the server may fail at one entry, though it can be reached, before it is shown as refused. */
const MAX_TRIES = 5;
/** An entry that is gone from the device's store was dropped in another tab, which says so within this time, or is put back. */
const VANISHED_MS = 1_000;

let box: Box = NONE;
/** What the device's store would not take: it waits in this page only. */
let unkept: OutboxEntry[] = [];
let stored: OutboxEntry[] = [];
/** Changes that the store would not take, by the entry's place in it: they hold in this page, and are written once there is room. */
const unwritten = new Map<number, { id: string; patch: Partial<OutboxEntry> }>();
/** Returns what was not written yet of the entry at a place; nothing where another stands there by now. */
const unwrittenOf = ({ seq, id }: Pick<OutboxEntry, "seq" | "id">): Partial<OutboxEntry> => {
  const item = seq === undefined ? undefined : unwritten.get(seq);
  return item?.id === id ? item.patch : {};
};
let away = false;
let keeps: boolean | null = null;
let begun = false;
const listeners = new Set<() => void>();
const asking = new Map<string, (refusal: SendProblem | null) => void>();

/** Returns all entries as they stand, in the order in which they were logged. */
const all = (): OutboxEntry[] => [...stored, ...unkept];

/** The rows of the store as they stand, with those that this page holds and the store has no more. */
function asStored(rows: readonly OutboxEntry[]): OutboxEntry[] {
  // What was dropped while they were read no longer exists.
  const now = rows.filter((row) => !wasRemoved(row.id)).map((row) => ({ ...row, ...unwrittenOf(row) }));
  const ids = new Set(now.map((row) => row.id));
  // What the server has taken need not be kept.
  const vanished = stored.filter((entry) => entry.state !== "taken" && !ids.has(entry.id) && !wasRemoved(entry.id));
  return [...vanished, ...now].sort((a, b) => (a.seq ?? 0) - (b.seq ?? 0));
}

function tell(): void {
  const entries = all();
  const of = (state: OutboxEntry["state"]) => entries.filter((entry) => entry.state === state);
  box = {
    waiting: of("waiting"),
    taken: of("taken"),
    refused: of("refused"),
    lost: of("lost"),
    away,
    keeps,
    unkept: unkept.filter((entry) => entry.state === "waiting").length,
  };
  for (const entry of entries) {
    const answer = entry.state === "waiting" ? undefined : asking.get(entry.id);
    if (!answer) continue;
    asking.delete(entry.id);
    answer(entry.why);
  }
  for (const listener of listeners) listener();
}

/** Puts back what waits, was refused or lost and is gone from the store though nobody dropped it: the browser cleared it. */
async function putBack(vanished: readonly OutboxEntry[]): Promise<void> {
  await new Promise((later) => setTimeout(later, VANISHED_MS));
  const rows = await allEntries().catch(() => null);
  for (const entry of vanished) {
    if (wasRemoved(entry.id) || rows?.some((row) => row.id === entry.id)) {
      stored = stored.filter((other) => other.id !== entry.id);
      continue;
    }
    // Its place in the store may be another's by now.
    const { seq: _gone, ...row } = entry;
    stored = stored.filter((other) => other.id !== entry.id);
    try {
      stored = [...stored, await addEntry(row)];
    } catch {
      unkept = [...unkept, row];
    }
  }
  await readStored();
}

const vanishing = new Set<string>();
/** Takes over the rows of the store, and puts back what vanished from it. */
function takeRows(rows: readonly OutboxEntry[]): void {
  stored = asStored(rows);
  const ids = new Set(rows.map((row) => ({ ...row, ...unwrittenOf(row) }).id));
  const vanished = stored.filter((entry) => !ids.has(entry.id) && !vanishing.has(entry.id));
  if (vanished.length === 0) return;
  for (const entry of vanished) vanishing.add(entry.id);
  void putBack(vanished).finally(() => {
    for (const entry of vanished) vanishing.delete(entry.id);
  });
}

/** Counts what may make a reading of the store out of date: changes by this tab, and wishes to read what another changed. */
let changes = 0;
/** The one reading under way. */
let reader: Promise<void> | null = null;
/** Reads the store as it stands now; where it cannot be read what was read before holds on. Whoever asks while it is read waits for the same reading, which starts again. */
function readAll(): Promise<void> {
  changes += 1;
  reader ??= (async () => {
    for (let read = -1; read !== changes; ) {
      read = changes;
      const rows = await allEntries().catch(() => null);
      if (rows && read === changes) takeRows(rows);
    }
    reader = null;
    tell();
  })();
  return reader;
}

async function readStored(): Promise<void> {
  await readAll();
  if (box.waiting.length > 0) void flush();
}

/** Reads what is kept and goes on reading it, whichever tab changes it. */
function begin(): void {
  if (begun || typeof window === "undefined") return;
  begun = true;
  void canKeep().then((can) => {
    keeps = can;
    subscribeToOutbox(() => void readStored());
    void readStored().then(flush);
  });
}

const change = async (entry: OutboxEntry, patch: Partial<OutboxEntry>): Promise<void> => {
  if (entry.seq === undefined) unkept = unkept.map((other) => (other.id === entry.id ? { ...other, ...patch } : other));
  else {
    // What was not written before is of the id that the store still has.
    const before = [...unwritten.values()].find((other) => (other.patch.id ?? other.id) === entry.id);
    const [id, all] = [before?.id ?? entry.id, { ...before?.patch, ...patch }];
    try {
      await changeEntry(entry.seq, id, all);
      unwritten.delete(entry.seq);
    } catch {
      keeps = false;
      unwritten.set(entry.seq, { id, patch: all });
    }
    // The store tells of it a moment later; what follows here must not see the old state.
    changes += 1;
    stored = stored.map((other) => (other.id === entry.id ? { ...other, ...patch } : other));
  }
  tell();
};

/** Writes what the store would not take before: there may be room again. */
async function catchUp(): Promise<void> {
  // What was sent meanwhile needs no writing: that nothing fails then says nothing of the store.
  if (unkept.every((entry) => entry.state === "taken") && unwritten.size === 0) {
    if (unkept.length > 0) {
      unkept = [];
      tell();
    }
    return;
  }
  try {
    for (const [seq, { id, patch }] of [...unwritten]) {
      await changeEntry(seq, id, patch);
      unwritten.delete(seq);
    }
    for (const entry of [...unkept]) {
      if (entry.state !== "taken") {
        const placed = await addEntry(entry);
        if (!stored.some((other) => other.id === entry.id)) stored = [...stored, placed];
      }
      unkept = unkept.filter((other) => other.id !== entry.id);
    }
    keeps = true;
  } catch {
    keeps = false;
  }
  tell();
}

/** Returns what the workshop itself answers to an entry; null if something else answered for it: a sign-in of the network, a proxy, a page of maintenance. */
async function ownAnswer(
  answer: Response,
  id: string,
): Promise<{ ok: true; place: NonNullable<OutboxEntry["place"]> } | { ok: false; why: SendProblem } | null> {
  if (answer.redirected || !(answer.headers.get("content-type") ?? "").startsWith("application/json")) return null;
  const said = (await answer.json().catch(() => null)) as { ok?: unknown; id?: unknown; seq?: unknown; epoch?: unknown; error?: SendProblem } | null;
  if (answer.ok)
    return said?.ok === true && said.id === id && typeof said.seq === "number" ? { ok: true, place: { seq: said.seq, epoch: String(said.epoch ?? "") } } : null;
  return typeof said?.error?.message === "string" ? { ok: false, why: said.error } : null;
}

/** Returns what became of one entry that was sent. */
async function sendOne(entry: OutboxEntry): Promise<"went" | "away"> {
  const { event, batchId, workshopId, what } = entry;
  const isNote = what === "note";
  const path = isNote ? "notes" : `${AGGREGATE_PATHS[what ?? "batch"]}/${batchId}/events`;
  const answer = await fetch(`/api/workshops/${workshopId}/${path}`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify(isNote ? event : { ...event, v: entry.v ?? (await import("./version")).versionOf(event.kind) }),
    signal: AbortSignal.timeout(15_000),
    redirect: "manual",
  }).catch(() => null);
  const own = answer && (await ownAnswer(answer, event.id));
  if (!answer || !own || [401, 408, 429, 502, 503, 504].includes(answer.status)) return "away";
  // A note is on no page of a log: once the server has it, its photographs need no room here.
  if (own.ok && isNote) {
    asking.get(entry.id)?.(null);
    asking.delete(entry.id);
    await discard(entry);
  } else if (own.ok) await change(entry, { state: "taken", why: null, place: own.place });
  else if (answer.status >= 500 && entry.tries + 1 < MAX_TRIES) await change(entry, { tries: entry.tries + 1 });
  else await change(entry, { state: "refused", why: own.why });
  return "went";
}

/** Returns whether another tab has sent it, or it was dropped or changed there, since this one read the store. */
async function wentElsewhere(entry: OutboxEntry): Promise<boolean> {
  if (entry.seq === undefined || Object.keys(unwrittenOf(entry)).length > 0) return false;
  const row = await entryAt(entry.seq).catch(() => undefined);
  return row !== undefined && row.id === entry.id && row.state !== "waiting";
}

/** Sends what waits, oldest first. One that fails does not stop the others; a server that is away stops all until later. */
async function sendAll(): Promise<void> {
  await catchUp();
  // Another tab may have sent some of it meanwhile.
  await readAll();
  const tried = new Set<string>();
  const next = () => all().find((entry) => entry.state === "waiting" && !tried.has(entry.id) && !wasRemoved(entry.id));
  for (let item = next(); item; item = next()) {
    tried.add(item.id);
    if (await wentElsewhere(item)) continue;
    if ((await sendOne(item)) === "away") {
      if (!away) void askToPersist();
      away = true;
      return tell();
    }
  }
  // Until all of it went, what waits is told of.
  if (away) {
    away = false;
    tell();
  }
  const taken = all().filter((entry) => entry.state === "taken");
  if (taken.length > MAX_TAKEN) await dropEntries(taken.slice(0, -MAX_TAKEN)).catch(() => undefined);
}

/** The turn that waits for its place, while one does. */
let queued: Promise<void> | null = null;
/** Where tabs cannot wait for one another, this one at least sends one thing at a time. */
let alone: Promise<void> = Promise.resolve();
/** Sends what waits as soon as no other tab is sending. Resolves once it was tried. */
export function flush(): Promise<void> {
  begin();
  if (keeps === null) return Promise.resolve();
  const turn = async () => {
    queued = null;
    await sendAll();
  };
  queued ??= inTurn(turn).catch(() => {
    queued = null;
  });
  return queued;
}
async function inTurn(turn: () => Promise<void>): Promise<void> {
  if (typeof navigator !== "undefined" && navigator.locks) return void (await navigator.locks.request(LOCK, turn));
  alone = alone.then(turn, turn);
  return alone;
}

/** Puts an entry down. Resolves when the server has answered: null, or why it was refused. What it takes the place of goes. */
export function send(
  entry: Pick<OutboxEntry, "workshopId" | "batchId" | "what" | "of" | "told" | "event" | "v">,
  instead?: string,
): Promise<SendProblem | null> {
  begin();
  const row: OutboxEntry = { ...entry, id: entry.event.id, state: "waiting", why: null, tries: 0 };
  return new Promise((resolve) => {
    asking.set(row.id, resolve);
    void (async () => {
      try {
        const placed = await addEntry(row, instead);
        if (!stored.some((entry) => entry.id === row.id)) stored = [...stored, placed];
      } catch {
        keeps = false;
        unkept = [...unkept, row];
      }
      tell();
      void flush();
    })();
  });
}

/** Puts several entries down at once: all are kept on this device before the first of them is sent. Resolves once they are. */
export async function sendMany(entries: readonly Pick<OutboxEntry, "workshopId" | "batchId" | "what" | "of" | "told" | "event" | "v">[]): Promise<void> {
  begin();
  const rows = entries.map((entry): OutboxEntry => ({ ...entry, id: entry.event.id, state: "waiting", why: null, tries: 0 }));
  try {
    const placed = await addEntries(rows);
    stored = [...stored, ...placed.filter((row) => !stored.some((entry) => entry.id === row.id))];
  } catch {
    keeps = false;
    unkept = [...unkept, ...rows];
  }
  tell();
  void flush();
}

/** Drops an entry that was refused or lost; gives the way to have it back. */
export async function discard(entry: OutboxEntry): Promise<() => void> {
  if (entry.seq === undefined) unkept = unkept.filter((other) => other.id !== entry.id);
  else await dropEntries([entry]);
  stored = stored.filter((other) => other.id !== entry.id);
  tell();
  return () => {
    if (entry.seq === undefined) unkept = [...unkept, entry];
    else void putEntry(entry);
    tell();
  };
}

/** Sends an entry once more: mended, to another batch, or as it is. It gets an id of its own where it was changed. */
export async function retry(entry: OutboxEntry, patch: Partial<Pick<OutboxEntry, "batchId" | "of" | "told" | "event" | "v">> = {}): Promise<void> {
  const event = patch.event ?? entry.event;
  await change(entry, { ...patch, event, id: event.id, state: "waiting", why: null, tries: 0 });
  void flush();
}

/** Has entries wait again that the server was said to have taken, and that its log does not hold. */
export async function waitAgain(missing: readonly OutboxEntry[]): Promise<void> {
  for (const entry of missing) await retry(entry);
}

/**
 * Asks whether the server still has what it had taken of this device in another history of its database, after a backup was restored. What it has no more is
 * lost until the maker says what becomes of it.
 */
export async function checkHistory(workshopId: string, epoch: string): Promise<void> {
  begin();
  await readStored();
  const doubtful = box.taken.filter((entry) => entry.workshopId === workshopId && entry.place !== undefined && entry.place.epoch !== epoch);
  if (doubtful.length === 0) return;
  const answer = await fetch(`/api/workshops/${workshopId}/entries?ids=${doubtful.map((entry) => entry.id).join()}`, { redirect: "manual" }).catch(() => null);
  if (!answer?.ok) return;
  const said = (await answer.json().catch(() => null)) as { epoch?: string; known?: { id: string; seq: number }[] } | null;
  if (said?.epoch !== epoch || !said.known) return;
  for (const entry of doubtful) {
    const there = said.known.find((other) => other.id === entry.id);
    await change(entry, there ? { place: { seq: there.seq, epoch } } : { state: "lost" });
  }
}

/** Returns the outbox as it is now. */
export const getSnapshot = (): Box => box;

export const useOutbox = (): Box =>
  useSyncExternalStore(
    (listener) => {
      begin();
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    getSnapshot,
    () => NONE,
  );

export const entries = (n: number): string => (n === 1 ? "1 entry" : `${n} entries`);
