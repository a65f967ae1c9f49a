import { answering, type ScheduleAnswer, type ScheduleRequest } from "@hearth/core";

export interface Told {
  answer: ScheduleAnswer;
  /** Whether it goes on looking. */
  looking: boolean;
}

/** What the worker is told: what to look for, or to stop and say the best so far. */
export type Wished = ScheduleRequest | "stop";

/** Better timetables are told so often at most, in ms: no oftener than they can be followed. */
const EVERY_MS = 2_000;
/** So long it rests after telling one: where there are few processors the page needs them to show it. */
const REST_MS = 250;
/** So often it looks whether it is to stop. */
const BREATH_MS = 50;

let stopped = false;
const rest = (ms: number) => new Promise((after) => setTimeout(after, ms));

/** Searches a timetable, and tells from time to time one that is better than the last, or better bounded. */
async function look(request: ScheduleRequest): Promise<void> {
  let rested = 0;
  let [told, breathed] = [Number.NEGATIVE_INFINITY, performance.now()];
  const last = { value: Number.POSITIVE_INFINITY, bound: -1 };
  // What it rests is no part of the time it may look.
  const states = answering(request, () => performance.now() - rested);
  for (;;) {
    const next = states.next();
    if (next.done) return self.postMessage({ answer: next.value, looking: false } satisfies Told);
    const { found, answer } = next.value;
    const now = performance.now();
    const better = found.value < last.value || found.bound > last.bound;
    const tell = better && now - told > EVERY_MS;
    if (tell) {
      told = now;
      Object.assign(last, { value: found.value, bound: found.bound });
      self.postMessage({ answer: answer(), looking: true } satisfies Told);
    }
    if (tell || now - breathed > BREATH_MS) {
      await rest(tell ? REST_MS : 0);
      breathed = performance.now();
      rested += breathed - now;
    }
    if (stopped) return self.postMessage({ answer: answer(), looking: false } satisfies Told);
  }
}

self.onmessage = ({ data }: MessageEvent<Wished>) => {
  if (data === "stop") stopped = true;
  else void look(data);
};
