import { infeasibility, latenessOf, makespanOf, modelOf } from "./model";
import type { ScheduleAnswer, ScheduleRequest } from "./request";
import { type Found, search } from "./search";

/**
 * The best timetable that is found in the time the request gives, with a bound that holds. `clock` tells the time in ms;
 * `onFound` hears of each state of the search, may ask for it as an answer, and ends the search by returning false.
 */
export function answerSchedule(
  request: ScheduleRequest,
  clock: () => number,
  onFound?: (found: Found, answer: () => ScheduleAnswer) => boolean | undefined,
): ScheduleAnswer {
  const fault = infeasibility(request);
  if (fault) return { steps: [], makespan: 0, total_lateness: 0, lower_bound: 0, proved_optimal: false, infeasible: fault };
  const model = modelOf(request);
  const until = clock() + request.seconds * 1_000;
  let found: Found = { starts: new Int32Array(0), value: 0, bound: 0 };
  const answer = (): ScheduleAnswer => {
    let at = 0;
    const steps = request.jobs.flatMap((job) =>
      job.steps.map((step) => {
        const start = found.starts[at++] as number;
        return { job: job.id, step: step.id, start, end: start + step.minutes };
      }),
    );
    return {
      steps,
      makespan: makespanOf(model, found.starts),
      total_lateness: latenessOf(model, found.starts),
      lower_bound: found.bound,
      proved_optimal: found.bound >= found.value,
    };
  };
  for (const state of search(model, clock)) {
    found = state;
    if (onFound?.(state, answer) === false || clock() >= until) break;
  }
  return answer();
}
