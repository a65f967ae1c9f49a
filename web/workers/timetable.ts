import { answerSchedule, type ScheduleAnswer, type ScheduleRequest } from "@hearth/core";

export interface Told {
  answer: ScheduleAnswer;
  /** Whether it goes on looking. */
  looking: boolean;
}

/** Searches a timetable, and tells each one that is better than the last, or better bounded. */
self.onmessage = ({ data }: MessageEvent<ScheduleRequest>) => {
  const told = { value: Number.POSITIVE_INFINITY, bound: -1 };
  const answer = answerSchedule(
    data,
    () => performance.now(),
    (found, now) => {
      if (found.value < told.value || found.bound > told.bound) {
        told.value = found.value;
        told.bound = found.bound;
        self.postMessage({ answer: now(), looking: true } satisfies Told);
      }
      return undefined;
    },
  );
  self.postMessage({ answer, looking: false } satisfies Told);
};
