import type { Problem, SentEvent } from "@hearth/core";
import { type DBSchema, type IDBPDatabase, type IDBPObjectStore, openDB } from "idb";
import type { CachedLogOf } from "./log-cache";
import type { WaitingName } from "./subjects";

/** Why the server refused an entry. `newer`: the entry that stands now in the place of the one it corrects. */
export type SendProblem = Omit<Problem, "ok"> & { newer?: string | undefined };

/** An entry of this device, from the moment it is logged. */
export interface OutboxEntry {
  /** In the order in which they were logged, by all tabs of this browser together. */
  seq?: number;
  id: string;
  workshopId: string;
  /** What it belongs to: a batch, or a trial, an order or whatever a note is of, of this id, where `what` says so. Earlier versions knew only batches. */
  batchId: string;
  what?: WaitingName;
  event: SentEvent;
  /** The version of what it says, as it was when it was logged; older versions of this program kept none. */
  v?: number;
  /** Which batch it belongs to and what it says, as it is told where the batch is not at hand. */
  of: string;
  told: string;
  /**
   * What the server has taken is kept for a while, since it counts here until the page has read it back. What it had taken and no longer has, after a backup
   * was restored, is lost until the maker says what becomes of it.
   */
  state: "waiting" | "taken" | "refused" | "lost";
  why: SendProblem | null;
  /** How often the server failed at it, though it could be reached. */
  tries: number;
  /** Where it stands in the server's log, and of which history of its database; earlier versions of this program kept neither. */
  place?: { seq: number; epoch: string };
}

/** The cached log of a batch or trial: a page that opens without the server goes on from it. */
export interface CachedLog<F = unknown, E = unknown> extends CachedLogOf<F, E> {
  batchId: string;
  workshopId: string;
  /** Raised when states or events change shape; copies up to 0.13 have none. */
  format?: number;
  keptAt: number;
}

interface Shape extends DBSchema {
  entries: { key: number; value: OutboxEntry; indexes: { id: string; state: OutboxEntry["state"] } };
  known: { key: string; value: CachedLog; indexes: { keptAt: number } };
}
export type Device = IDBPDatabase<Shape>;

/** What counts as kept is written through to the disk; a copy of what the server has need not wait for it. */
const STRICT = { durability: "strict" } as const;
const RELAXED = { durability: "relaxed" } as const;
/** The number under which earlier versions of this program opened the same two stores. */
const VERSION = 10;

let opened: Promise<Device> | null = null;
const forget = () => {
  opened = null;
};

/** Returns what this device keeps, in the browser's own database; null if there is none, as when a page is drawn on the server. */
export async function device(): Promise<Device | null> {
  try {
    // Where storage is forbidden, asking for it can be a fault already.
    if (typeof indexedDB === "undefined" || indexedDB === null) return null;
    opened ??= openDB<Shape>("hearth", VERSION, {
      upgrade: (db) => {
        const entries = db.createObjectStore("entries", { keyPath: "seq", autoIncrement: true });
        entries.createIndex("id", "id", { unique: true });
        entries.createIndex("state", "state");
        const known = db.createObjectStore("known", { keyPath: "batchId" });
        known.createIndex("keptAt", "keptAt");
      },
      blocking: (_now, _next, event) => {
        forget();
        (event.target as IDBDatabase).close();
      },
      terminated: forget,
    });
    return await opened;
  } catch {
    forget();
    return null;
  }
}

const CHANNEL = "hearth.entries";
let channel: BroadcastChannel | null = null;
const hearers = new Set<() => void>();

/** The entries that were taken off the device on purpose, by this tab or another: any other that vanishes was lost. "all" once the device was wiped. */
const removed = new Set<string>();
export const wasRemoved = (id: string): boolean => removed.has(id) || removed.has("all");

/** Tells all tabs that the entries changed, and which of them were taken away. */
function changed(ids: readonly string[] = []): void {
  for (const id of ids) removed.add(id);
  channel?.postMessage({ removed: ids });
  for (const hear of hearers) hear();
}

/** Hears of every change of the entries, whichever tab of this browser makes it, and when a page that slept is seen again. */
export function subscribeToOutbox(hear: () => void): void {
  if (hearers.size === 0) {
    channel = typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel(CHANNEL);
    if (channel)
      channel.onmessage = ({ data }: MessageEvent<{ removed?: string[] } | "changed">) => {
        // A tab of an earlier version says only that something changed.
        if (data !== "changed") for (const id of data.removed ?? []) removed.add(id);
        for (const hearer of hearers) hearer();
      };
    globalThis.window?.addEventListener?.("pageshow", hear);
  }
  hearers.add(hear);
}

/** The device's store, where there must be one. */
async function kept(): Promise<Device> {
  const db = await device();
  if (!db) throw new Error("Nothing is kept here.");
  return db;
}

/** Deletes the cached logs of batches, trials and orders from this device; entries that wait to be sent stay. */
export const clearLogCache = async (): Promise<void> => (await kept()).clear("known");

/** Deletes everything that this device keeps. */
export async function forgetAll(): Promise<void> {
  await clearLogCache();
  await (await kept()).clear("entries");
  changed(["all"]);
}

/** Returns all entries of this device, in the order in which they were logged. */
export const allEntries = async (): Promise<OutboxEntry[]> => (await kept()).getAll("entries");

/** Returns the outbox entry with this sequence number as this device holds it; undefined if it was sent or discarded. */
export const entryAt = async (seq: number): Promise<OutboxEntry | undefined> => (await kept()).get("entries", seq);

type EntryStore = IDBPObjectStore<Shape, ["entries"], "entries", "readwrite">;

/** Runs one writing of the entries, all of it or none. @throws where the store does not take it */
async function writing<T>(run: (store: EntryStore) => Promise<T>): Promise<T> {
  const tx = (await kept()).transaction("entries", "readwrite", STRICT);
  // Where a step fails the transaction fails with it: told once, by the step.
  tx.done.catch(() => undefined);
  const given = await run(tx.store);
  await tx.done;
  return given;
}

const placeIn = async (store: EntryStore, { seq: _none, ...row }: OutboxEntry): Promise<OutboxEntry> => ({ ...row, seq: await store.add(row) });

/** Keeps an entry and gives it its place in the order; what it takes the place of goes with the same writing. */
export async function addEntry(row: OutboxEntry, instead?: string): Promise<OutboxEntry> {
  // What is logged after a device was wiped is kept again.
  removed.delete("all");
  const placed = await writing(async (store) => {
    const old = instead === undefined ? undefined : await store.index("id").getKey(instead);
    if (old !== undefined) await store.delete(old);
    return placeIn(store, row);
  });
  changed(instead === undefined ? [] : [instead]);
  return placed;
}

/** Keeps several entries in their order, all of them or none. */
export async function addEntries(rows: readonly OutboxEntry[]): Promise<OutboxEntry[]> {
  const placed = await writing(async (store) => {
    const all: OutboxEntry[] = [];
    for (const row of rows) all.push(await placeIn(store, row));
    return all;
  });
  changed();
  return placed;
}

/** Changes the entry of that id at its place; nothing where another stands there, as after the browser cleared the store. */
export async function changeEntry(seq: number, id: string, patch: Partial<OutboxEntry>): Promise<void> {
  const isThere = await writing(async (store) => {
    const row = await store.get(seq);
    if (row?.id !== id) return false;
    await store.put({ ...row, ...patch });
    return true;
  });
  // One that gets another id takes the place of the old one.
  changed(isThere && patch.id !== undefined && patch.id !== id ? [id] : []);
}

/** Keeps an entry under the place it had: one that was dropped and is had back. */
export async function putEntry(row: OutboxEntry): Promise<void> {
  await writing((store) => store.put(row));
  removed.delete(row.id);
  changed();
}

export async function dropEntries(rows: readonly OutboxEntry[]): Promise<void> {
  await writing(async (store) => {
    for (const { seq } of rows) if (seq !== undefined) await store.delete(seq);
  });
  changed(rows.map((row) => row.id));
}

const OLD = "hearth.outbox";

/** Entries that an older version left waiting elsewhere are taken over. */
async function takeOver(db: Device): Promise<void> {
  const text = typeof localStorage === "undefined" ? null : localStorage.getItem(OLD);
  if (!text) return;
  try {
    const old = JSON.parse(text) as Pick<OutboxEntry, "workshopId" | "batchId" | "event">[];
    for (const item of old)
      if ((await db.countFromIndex("entries", "id", item.event.id)) === 0)
        await addEntry({ ...item, id: item.event.id, of: "", told: "", state: "waiting", why: null, tries: 0 });
  } catch (error) {
    // What cannot be read was no entry; what cannot be written stays where it is.
    if (!(error instanceof SyntaxError || error instanceof TypeError)) return;
  }
  localStorage.removeItem(OLD);
}

/** Asks the browser not to clear what this device keeps when its disk runs full. */
export async function askToPersist(): Promise<void> {
  try {
    if (!(await navigator.storage?.persisted?.())) await navigator.storage?.persist?.();
  } catch {
    // Where it cannot be asked for, the browser does as it likes.
  }
}

/** Returns whether this device really keeps what it is given: something is written and taken away again. */
export async function canKeep(): Promise<boolean> {
  const db = await device();
  if (!db) return false;
  try {
    await takeOver(db);
    const tx = db.transaction("known", "readwrite", STRICT);
    const probe = "probe";
    await tx.store.put({ batchId: probe, workshopId: "", state: {}, events: [], total: 0, seq: 0, epoch: "", keptAt: 0 });
    await tx.store.delete(probe);
    await tx.done;
    return true;
  } catch {
    return false;
  }
}

/** The most batches whose state is kept; the oldest make room. */
const MAX_KNOWN = 40;
const LOG_CACHE_FORMAT = 2;

export async function writeLogCache(known: Omit<CachedLog, "keptAt" | "format">): Promise<void> {
  const db = await device();
  if (!db) return;
  try {
    const tx = db.transaction("known", "readwrite", RELAXED);
    const old = await tx.store.get(known.batchId);
    if (!old || old.format !== LOG_CACHE_FORMAT || old.epoch !== known.epoch || old.seq < known.seq) {
      await tx.store.put({ ...known, format: LOG_CACHE_FORMAT, keptAt: Date.now() });
      const many = await tx.store.count();
      if (many > MAX_KNOWN) for (const key of await tx.store.index("keptAt").getAllKeys(null, many - MAX_KNOWN)) await tx.store.delete(key);
    }
    await tx.done;
  } catch {
    // It is only a copy of what the server has.
  }
}

export async function readLogCache(batchId: string): Promise<CachedLog | null> {
  try {
    const cached = await (await device())?.get("known", batchId);
    // A copy that another version wrote names other events: the server has all of it.
    return cached?.format === LOG_CACHE_FORMAT ? cached : null;
  } catch {
    return null;
  }
}
