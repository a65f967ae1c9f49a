import { randomUUID } from "node:crypto";
import type { EventOf, Topic, WrittenOf } from "@hearth/core";
import { type SQL, sql } from "drizzle-orm";
import pg from "pg";
import { CONNECTION_TIMEOUT_MS, type Database, type Transaction } from "@/data/client";
import { processSingleton } from "@/data/process-singleton";

/** A change of a workshop, as PostgreSQL notifies every server of it and each server its pages. */
export interface Change {
  workshop: string;
  /** The batch, trial or order; nothing where something else of the workshop changed. */
  batch?: string;
  trial?: string;
  order?: string;
  /** What it is about; nothing where it can be anything. */
  topics?: readonly Topic[];
  /** A device or person that may see nothing more: its streams end. */
  cut?: string;
  /** A person whose role has changed: that person's streams end, and begin again. */
  role?: string;
  /** This server stops. */
  ends?: true;
  /** What was written to it, where it only goes on from what was there and is short enough to be told at once. */
  written?: WrittenOf<EventOf>;
}
type Listener = (change: Change) => void;

const CHANNEL = "hearth_changed";
/** PostgreSQL tells at most 8,000 bytes at once (its manual, NOTIFY); what is longer is read by those who want it. */
const MAX_TOLD = 7_900;
/** Notifies pages of a change when the transaction commits: a change that is rolled back is not sent. */
export const notifyPages = async (tx: Transaction | Database, change: Change): Promise<void> => void (await tx.execute(sql`select ${telling(change)}`));

/** Returns the same as a part of another statement. */
function telling(change: Change): SQL {
  const whole = JSON.stringify(change);
  const { written: _, ...news } = change;
  return sql`pg_notify(${CHANNEL}, ${Buffer.byteLength(whole) <= MAX_TOLD ? whole : JSON.stringify(news)})`;
}

interface Live {
  listeners: Set<Listener>;
  connecting: boolean;
  client: pg.Client | null;
  /** One for each time that the listening began: what was told before it is not known. */
  since: string;
  /** How often each workshop was told of since then. */
  told: Map<string, number>;
}
const live = (): Live => processSingleton("live", () => ({ listeners: new Set(), connecting: false, client: null, since: "", told: new Map() }));

/** One connection of its own listens for this process, and is made again when it is lost. */
async function connect(): Promise<void> {
  const mine = live();
  if (mine.connecting || mine.client || mine.listeners.size === 0) return;
  mine.connecting = true;
  const client = new pg.Client({
    connectionString: process.env.DATABASE_LISTEN_URL || process.env.DATABASE_URL,
    connectionTimeoutMillis: CONNECTION_TIMEOUT_MS,
    keepAlive: true,
  });
  const lost = () => {
    if (mine.client === client) mine.client = null;
    setTimeout(() => void connect(), 1_000);
  };
  client.on("error", lost);
  client.on("end", lost);
  client.on("notification", ({ payload }) => {
    try {
      const change = JSON.parse(payload ?? "{}") as Change;
      mine.told.set(change.workshop, (mine.told.get(change.workshop) ?? 0) + 1);
      for (const listener of mine.listeners) listener(change);
    } catch {
      // Whatever it was, it is none of ours.
    }
  });
  try {
    await client.connect();
    await client.query(`listen ${CHANNEL}`);
    mine.client = client;
    mine.since = randomUUID();
    mine.told.clear();
    // What was missed while away is read anew.
    for (const listener of mine.listeners) listener({ workshop: "*" });
  } catch {
    await client.end().catch(() => undefined);
    setTimeout(() => void connect(), 1_000);
  } finally {
    mine.connecting = false;
  }
}

/**
 * Returns how far this server had heard of a workshop when a page of it began to be read; nothing where it does not listen. Where a
 * stream begins at the same mark, nothing was told in between, and the page need not be read again.
 */
export function changeMark(workshop: string): string | null {
  const { client, since, told } = live();
  return client ? `${since}.${told.get(workshop) ?? 0}` : null;
}

/** Ends all streams of this process, so that pages reconnect to a server that keeps running. */
export function closeStreams(): void {
  for (const listener of live().listeners) listener({ workshop: "*", ends: true });
}

/** Returns how many hear changes from this process. */
export const listenerCount = (): number => live().listeners.size;

/** Hears of every change until the returned function is called. */
export function subscribeToChanges(listener: Listener): () => void {
  live().listeners.add(listener);
  void connect();
  return () => live().listeners.delete(listener);
}
