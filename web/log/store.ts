import type { BatchEvent, BatchFacts, SentEvent } from "@hearth/core";
import { Dexie, type EntityTable } from "dexie";

export type Refusal = { message: string; fields: Record<string, string[]> };

/** An entry of this device, from the moment it is put down. */
export interface Kept {
  /** In the order in which they were put down, by all tabs of this browser together. */
  seq?: number;
  id: string;
  workshopId: string;
  batchId: string;
  event: SentEvent;
  /** Which batch it belongs to and what it says, as it is told where the batch is not at hand. */
  of: string;
  told: string;
  /** What the server has taken is kept for a while, since it counts here until the page has read it back. */
  state: "waiting" | "taken" | "refused";
  why: Refusal | null;
  /** How often the server failed at it, though it could be reached. */
  tries: number;
}

/** What was last known of a batch: a page that opens without the server goes on from there. */
export interface Known {
  batchId: string;
  workshopId: string;
  facts: BatchFacts;
  events: BatchEvent[];
  total: number;
  seq: number;
  keptAt: number;
}

/** What this device keeps, in the browser's own database: written through to the disk before it counts as kept. */
class Device extends Dexie {
  entries!: EntityTable<Kept, "seq">;
  known!: EntityTable<Known, "batchId">;
  constructor(durability: "strict" | "relaxed") {
    super("hearth", { chromeTransactionDurability: durability });
    this.version(1).stores({ entries: "++seq, &id, state", known: "batchId, keptAt" });
  }
}

let opened: Device | null = null;
let copies: Device | null = null;
/** The same store for what is only a copy of what the server has: it need not wait for the disk. */
function forCopies(): Device | null {
  if (!device()) return null;
  if (copies?.hasBeenClosed()) copies = null;
  copies ??= new Device("relaxed");
  return copies;
}

/** The device's store; null where there is none, as when a page is drawn on the server. */
export function device(): Device | null {
  try {
    // Where storage is forbidden, asking for it can be a fault already.
    if (typeof indexedDB === "undefined" || indexedDB === null) return null;
    opened ??= new Device("strict");
    return opened;
  } catch {
    return null;
  }
}

const OLD = "hearth.outbox";

/** Entries that an older version left waiting elsewhere are taken over. */
async function takeOver(db: Device): Promise<void> {
  const text = typeof localStorage === "undefined" ? null : localStorage.getItem(OLD);
  if (!text) return;
  try {
    const old = JSON.parse(text) as Pick<Kept, "workshopId" | "batchId" | "event">[];
    const rows = old.map((one): Kept => ({ ...one, id: one.event.id, of: "", told: "", state: "waiting", why: null, tries: 0 }));
    await db.transaction("rw", db.entries, async () => {
      for (const row of rows) if (!(await db.entries.where("id").equals(row.id).count())) await db.entries.add(row);
    });
  } catch (error) {
    // What cannot be read was no entry; what cannot be written stays where it is.
    if (!(error instanceof SyntaxError || error instanceof TypeError)) return;
  }
  localStorage.removeItem(OLD);
}

/** Whether this device really keeps what it is given: something is written and taken away again. */
export async function canKeep(): Promise<boolean> {
  const db = device();
  if (!db) return false;
  try {
    await takeOver(db);
    await db.transaction("rw", db.known, async () => {
      const probe = "probe";
      await db.known.put({ batchId: probe, workshopId: "", facts: {} as BatchFacts, events: [], total: 0, seq: 0, keptAt: 0 });
      await db.known.delete(probe);
    });
    return true;
  } catch {
    return false;
  }
}

/** The most batches whose state is kept; the oldest make room. */
const MOST_KNOWN = 40;

export async function keepKnown(known: Omit<Known, "keptAt">): Promise<void> {
  const db = forCopies();
  if (!db) return;
  try {
    await db.transaction("rw", db.known, async () => {
      const old = await db.known.get(known.batchId);
      if (old && old.seq >= known.seq) return;
      await db.known.put({ ...known, keptAt: Date.now() });
      const many = await db.known.count();
      if (many > MOST_KNOWN)
        await db.known
          .orderBy("keptAt")
          .limit(many - MOST_KNOWN)
          .delete();
    });
  } catch {
    // It is only a copy of what the server has.
  }
}

export async function readKnown(batchId: string): Promise<Known | null> {
  return (
    (await device()
      ?.known.get(batchId)
      .catch(() => null)) ?? null
  );
}
