import { parentPort, workerData } from "node:worker_threads";
import { answerSchedule, type ScheduleRequest } from "@hearth/core";

/** The thread in which a timetable is worked out for another program. */
parentPort?.postMessage(answerSchedule(workerData as ScheduleRequest, () => performance.now()));
