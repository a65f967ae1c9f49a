import { availableParallelism } from "node:os";
import { join } from "node:path";
import { answerSchedule, type ScheduleAnswer, type ScheduleRequest } from "@hearth/core";
import { TooBusy } from "./respond";

/** So many timetables are worked out at once; a few more wait their turn. */
const AT_ONCE = Math.max(1, availableParallelism() - 1);
const MOST_WAITING = 8;

const gone = () => new TooBusy("Nobody waits for this timetable any more.");

let running = 0;
const waiting: (() => void)[] = [];

/** Where the built threads are; nothing while developing, when it is worked out here. */
const threads = (): string | undefined => process.env.HEARTH_THREADS;

/** Works a timetable out in a thread of its own, which ends with the request. @throws TooBusy */
export async function inThread(request: ScheduleRequest, signal: AbortSignal): Promise<ScheduleAnswer> {
  const folder = threads();
  if (!folder) return answerSchedule(request, () => performance.now());
  if (running >= AT_ONCE) {
    if (waiting.length >= MOST_WAITING) throw new TooBusy("Too many timetables are being worked out just now. Try again in half a minute.");
    await new Promise<void>((turn) => waiting.push(turn));
  }
  if (signal.aborted) {
    waiting.shift()?.();
    throw gone();
  }
  running += 1;
  // Asked for at run time: the bundler would look for a file whose name is not known yet.
  const { Worker } = process.getBuiltinModule("node:worker_threads");
  const worker = new Worker(join(folder, "schedule.js"), { workerData: request });
  try {
    return await new Promise<ScheduleAnswer>((resolve, reject) => {
      worker.once("message", resolve);
      worker.once("error", reject);
      worker.once("exit", () => reject(new Error("The thread ended without an answer.")));
      signal.addEventListener("abort", () => reject(gone()), { once: true });
    });
  } finally {
    void worker.terminate();
    running -= 1;
    waiting.shift()?.();
  }
}
