import { availableParallelism } from "node:os";
import { join } from "node:path";
import { TooBusy } from "./respond";

/** The most threads that work at once; a few more requests wait their turn. */
const MAX_AT_ONCE = Math.max(1, availableParallelism() - 1);
const MAX_WAITING = 8;

export interface ThreadWork<T> {
  /** The built thread, in `web/.next`. It posts one message, its answer. */
  file: string;
  data: unknown;
  /** Ends the thread when the client leaves. */
  signal: AbortSignal;
  /** Ends it after so long, in ms. */
  limitMs: number;
  /** What is worked out, for messages: "this timetable". */
  what: string;
  /** The same without a thread, while developing and in tests: nothing is built there. */
  here: () => T | Promise<T>;
}

let running = 0;
const waiting: (() => void)[] = [];

/** Works something out in a thread of its own, so that no other request waits for it. @throws TooBusy where too much waits, it takes too long, or nobody waits for it any more */
export async function inThread<T>({ file, data, signal, limitMs, what, here }: ThreadWork<T>): Promise<T> {
  const folder = process.env.HEARTH_THREADS;
  if (!folder) return here();
  const gone = () => new TooBusy(`Nobody waits for ${what} any more.`);
  if (running >= MAX_AT_ONCE) {
    if (waiting.length >= MAX_WAITING) throw new TooBusy("Too much is being worked out just now. Try again in half a minute.");
    await new Promise<void>((turn) => waiting.push(turn));
  }
  if (signal.aborted) {
    waiting.shift()?.();
    throw gone();
  }
  running += 1;
  // Asked for at run time: the bundler would look for a file whose name is not known yet.
  const { Worker } = process.getBuiltinModule("node:worker_threads");
  const worker = new Worker(join(folder, file), { workerData: data });
  let timer: NodeJS.Timeout | undefined;
  try {
    return await new Promise<T>((resolve, reject) => {
      worker.once("message", resolve);
      worker.once("error", reject);
      worker.once("exit", () => reject(new Error("The thread ended without an answer.")));
      signal.addEventListener("abort", () => reject(gone()), { once: true });
      timer = setTimeout(
        () => reject(new TooBusy(`${what[0]?.toUpperCase()}${what.slice(1)} takes longer than ${limitMs / 1_000} s. Ask for less at once.`)),
        limitMs,
      );
    });
  } finally {
    clearTimeout(timer);
    void worker.terminate();
    running -= 1;
    waiting.shift()?.();
  }
}
