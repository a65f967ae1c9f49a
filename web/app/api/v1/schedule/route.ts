import { scheduleRequest } from "@hearth/core";
import { calculationRoute } from "@/server/http/respond";
import { scheduleInThread } from "@/server/planning/schedule";

/** Puts jobs into a timetable, in a thread of its own: nobody else waits for it. */
export const POST = calculationRoute(scheduleRequest, scheduleInThread, () => null);
