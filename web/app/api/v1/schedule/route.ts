import { scheduleRequest } from "@hearth/core";
import { calculation } from "@/server/respond";
import { scheduleInThread } from "@/server/schedule";

/** Puts jobs into a timetable, in a thread of its own: nobody else waits for it. */
export const POST = calculation(scheduleRequest, scheduleInThread, () => null);
