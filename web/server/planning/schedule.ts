import { answerSchedule, type ScheduleAnswer, type ScheduleRequest } from "@hearth/core";
import { inThread } from "@/server/operation/thread";

/** A timetable is searched for as long as it asks, and no longer than this. */
const LIMIT_MS = 180_000;

/** Works a timetable out in a thread of its own, which ends with the request. @throws TooBusy */
export const scheduleInThread = (request: ScheduleRequest, signal: AbortSignal): Promise<ScheduleAnswer> =>
  inThread({
    file: "schedule.cjs",
    data: request,
    signal,
    limitMs: LIMIT_MS,
    what: "this timetable",
    here: () => answerSchedule(request, () => performance.now()),
  });
