import { infeasibility, latenessOf, makespanOf, modelOf } from "./model";
import type { ScheduleAnswer, ScheduleRequest } from "./request";
import { type Found, NONE, search } from "./search";

const NOTHING = { steps: [], makespan: 0, total_lateness: 0, lower_bound: 0, proved_optimal: false };

/** Returns what cannot all be kept, where each job alone could: two held steps that need the same thing at once, or else all that is held. */
function crowded(request: ScheduleRequest): NonNullable<ScheduleAnswer["infeasible"]> {
  const held = request.jobs.flatMap((job) =>
    job.steps.flatMap((step) => (step.at != null ? [{ job: job.id, step, from: step.at, to: step.at + step.minutes }] : [])),
  );
  for (const [resource, available] of Object.entries(request.resources))
    for (const item of held) {
      const at = held.filter((other) => other.from < item.to && other.to > item.from && (other.step.needs[resource] ?? 0) > 0);
      const other = at.find((it) => it !== item);
      if ((item.step.needs[resource] ?? 0) > 0 && other && at.reduce((sum, it) => sum + (it.step.needs[resource] ?? 0), 0) > available)
        return {
          reason: `“${item.step.id}” of “${item.job}” and “${other.step.id}” of “${other.job}” are held at times at which both need ${resource}, and there ${available === 1 ? "is" : "are"} ${available}.`,
          job: item.job,
          step: item.step.id,
          resource,
        };
    }
  const first = held[0];
  return { reason: "No schedule keeps every pinned step. Unpin one.", job: first?.job ?? "", step: first?.step.id ?? "" };
}

/** Where a search stands: what it has, and that as an answer. */
export interface Standing {
  found: Found;
  answer: () => ScheduleAnswer;
}

/** Returns the first timetable that is found: one that keeps to everything, and need not be the best. */
export function firstTimetable(request: ScheduleRequest): ScheduleAnswer {
  const { done, value } = answering(request, () => 0).next();
  return done ? value : value.answer();
}

/**
 * Looks for the best timetable in the time the request gives, and says after each piece of work where it stands; it may be left at any
 * of them. Returns the answer, with a bound that holds. `clock` tells the time in ms.
 */
export function* answering(request: ScheduleRequest, clock: () => number): Generator<Standing, ScheduleAnswer> {
  const fault = infeasibility(request);
  if (fault) return { ...NOTHING, infeasible: fault };
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
    if (state.value !== NONE) yield { found, answer };
    if (clock() >= until) break;
  }
  return found.value === NONE ? { ...NOTHING, infeasible: crowded(request) } : answer();
}

/** The best timetable that is found in the time the request gives. */
export function answerSchedule(request: ScheduleRequest, clock: () => number): ScheduleAnswer {
  const states = answering(request, clock);
  for (;;) {
    const next = states.next();
    if (next.done) return next.value;
  }
}
