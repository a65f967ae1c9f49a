import { availableParallelism } from "node:os";
import { join } from "node:path";
import { Piscina } from "piscina";
import { ServerBusyError } from "@/server/http/respond";

/** The most threads of one kind that work at once; a few more requests wait their turn. */
const MAX_THREADS = Math.max(1, availableParallelism() - 1);
const MAX_WAITING = 8;
/** Of each kind one thread is kept once it was needed, since starting one takes half a second; others that have nothing to do are kept so long. */
const IDLE_MS = 60_000;

export interface ThreadWork<T> {
  /** The built thread, in `web/.next`: its export `work` is given `data`. */
  file: string;
  data: unknown;
  /** Ends the work when the client leaves; without it only the limit does. */
  signal?: AbortSignal;
  /** Ends it after so long, in ms. */
  limitMs: number;
  /** What is worked out, for messages: "this timetable". */
  what: string;
  /** The same without a thread, while developing and in tests: nothing is built there. */
  here: () => T | Promise<T>;
}

const pools = new Map<string, Piscina>();

function poolOf(filename: string): Piscina {
  const existing = pools.get(filename);
  if (existing) return existing;
  // With no thread that is always there, work that waits when a running one is ended would wait for ever.
  const pool = new Piscina({ filename, minThreads: 1, maxThreads: MAX_THREADS, maxQueue: MAX_WAITING, idleTimeout: IDLE_MS, name: "work" });
  pools.set(filename, pool);
  return pool;
}

/** Works something out in a thread, so that no other request waits for it. @throws TooBusy if too much waits, it takes too long, or nobody waits for it any more */
export async function inThread<T>({ file, data, signal, limitMs, what, here }: ThreadWork<T>): Promise<T> {
  const folder = process.env.HEARTH_THREADS;
  if (!folder) return here();
  const pool = poolOf(join(folder, file));
  if (pool.queueSize >= MAX_WAITING) throw new ServerBusyError("The server is busy with calculations. Try again in 30 seconds.");
  // Held here: a signal made of several by AbortSignal.any can be collected before one of them ends the work (Node 20).
  const ending = new AbortController();
  const end = () => ending.abort();
  const timer = setTimeout(end, limitMs);
  signal?.addEventListener("abort", end, { once: true });
  if (signal?.aborted) end();
  try {
    return (await pool.run(data, { signal: ending.signal })) as T;
  } catch (error) {
    if (signal?.aborted) throw new ServerBusyError(`Nobody waits for ${what} any more.`);
    if (ending.signal.aborted)
      throw new ServerBusyError(`${what[0]?.toUpperCase()}${what.slice(1)} takes longer than ${limitMs / 1_000} s. Ask for less at once.`);
    throw error;
  } finally {
    clearTimeout(timer);
    signal?.removeEventListener("abort", end);
  }
}
