import { answerSchedule, type ScheduleAnswer, type ScheduleRequest } from "@hearth/core";

/** The thread in which a timetable is worked out for another program. */
export const work = (request: ScheduleRequest): ScheduleAnswer => answerSchedule(request, () => performance.now());
