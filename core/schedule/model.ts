import type { Objective, ScheduleAnswer, ScheduleRequest } from "./request";

/** A stretch during which a resource is taken: from `S[a] + aOff` to `S[b] + bOff`, where S are the starts of the steps. */
export interface Use {
  r: number;
  q: number;
  a: number;
  aOff: number;
  b: number;
  bOff: number;
  job: number;
  /** The shortest it can be. */
  least: number;
}

/** A request as numbers: steps in a row, job after job. */
export interface Model {
  n: number;
  jobs: number;
  objective: Objective;
  dur: Int32Array;
  jobOf: Int32Array;
  /** The next step of the same job; −1 after the last. */
  next: Int32Array;
  /** The wait until the next step: at least, and at most; −1 where it is unbounded. */
  waitLeast: Int32Array;
  waitMost: Int32Array;
  first: Int32Array;
  last: Int32Array;
  release: Int32Array;
  /** −1 where a job is never late. */
  due: Int32Array;
  caps: Int32Array;
  uses: Use[];
  /** 1 for a job whose end does not count. */
  background: Uint8Array;
  /** When a step starts that is held to its time; −1 where it is free. */
  held: Int32Array;
  /** The jobs with a step that is held. */
  heldJobs: number[];
}

/** A wish that no timetable can fulfil, with the step at which it fails; null if there is a timetable. */
export function infeasibility(request: ScheduleRequest): NonNullable<ScheduleAnswer["infeasible"]> | null {
  for (const job of request.jobs)
    for (const [index, step] of job.steps.entries()) {
      for (const [resource, needed] of Object.entries(step.needs)) {
        const available = request.resources[resource] ?? 0;
        if (needed > available)
          return {
            reason: `“${step.id}” of “${job.id}” needs ${needed} of ${resource}, and there ${available === 1 ? "is" : "are"} ${available}.`,
            job: job.id,
            step: step.id,
            resource,
          };
      }
      const isLast = index === job.steps.length - 1;
      for (const resource of step.keeps)
        if (!isLast && Math.max(1, step.needs[resource] ?? 0) > (request.resources[resource] ?? 0))
          return { reason: `“${step.id}” of “${job.id}” keeps ${resource}, and there is not enough of it.`, job: job.id, step: step.id, resource };
      if (!isLast && step.wait.max != null && step.wait.max < step.wait.min)
        return {
          reason: `The wait after “${step.id}” of “${job.id}” is at least ${step.wait.min} and at most ${step.wait.max} minutes.`,
          job: job.id,
          step: step.id,
        };
    }
  return heldFault(request);
}

/**
 * Returns why the steps that are held to a time cannot be: the first that its own job's waits do not let start then, with when they would.
 * Null where each job alone could keep them.
 */
function heldFault(request: ScheduleRequest): NonNullable<ScheduleAnswer["infeasible"]> | null {
  for (const job of request.jobs) {
    const low: number[] = [];
    const high: number[] = [];
    for (const [k, step] of job.steps.entries()) {
      const before = job.steps[k - 1];
      const least = before ? (low[k - 1] as number) + before.minutes + before.wait.min : job.release;
      const most = before?.wait.max != null ? (high[k - 1] as number) + before.minutes + before.wait.max : Number.POSITIVE_INFINITY;
      if (step.at != null && (step.at < least || step.at > most))
        return {
          reason: `“${step.id}” of “${job.id}” is held at minute ${step.at}, but can start only ${step.at < least ? `from minute ${least} on` : `until minute ${most}`}.`,
          job: job.id,
          step: step.id,
          window: { from: least, ...(Number.isFinite(most) ? { to: most } : {}) },
        };
      low[k] = step.at ?? least;
      high[k] = step.at ?? most;
    }
  }
  return null;
}

/** Returns the integer model of a schedule request that passed its checks. */
export function modelOf(request: ScheduleRequest): Model {
  const names = Object.keys(request.resources);
  const place = new Map(names.map((name, index) => [name, index]));
  const n = request.jobs.reduce((sum, job) => sum + job.steps.length, 0);
  const jobs = request.jobs.length;
  const model: Model = {
    n,
    jobs,
    objective: request.objective,
    dur: new Int32Array(n),
    jobOf: new Int32Array(n),
    next: new Int32Array(n).fill(-1),
    waitLeast: new Int32Array(n),
    waitMost: new Int32Array(n).fill(-1),
    first: new Int32Array(jobs),
    last: new Int32Array(jobs),
    release: Int32Array.from(request.jobs, (job) => job.release),
    due: Int32Array.from(request.jobs, (job) => (job.background ? -1 : (job.due ?? -1))),
    caps: Int32Array.from(names, (text) => request.resources[text] ?? 0),
    uses: [],
    background: Uint8Array.from(request.jobs, (job) => Number(job.background)),
    held: new Int32Array(n).fill(-1),
    heldJobs: request.jobs.flatMap((job, j) => (job.steps.some((step) => step.at != null) ? [j] : [])),
  };
  let at = 0;
  for (const [j, job] of request.jobs.entries()) {
    model.first[j] = at;
    for (const [k, step] of job.steps.entries()) {
      const isLast = k === job.steps.length - 1;
      model.dur[at] = step.minutes;
      model.jobOf[at] = j;
      model.held[at] = step.at ?? -1;
      if (!isLast) {
        model.next[at] = at + 1;
        model.waitLeast[at] = step.wait.min;
        model.waitMost[at] = step.wait.max ?? -1;
      }
      const kept = new Set(isLast ? [] : step.keeps);
      for (const [resource, q] of Object.entries(step.needs)) {
        if (q === 0) continue;
        const r = place.get(resource) as number;
        const keeps = kept.delete(resource);
        const least = step.minutes + (keeps ? step.wait.min : 0);
        if (keeps) model.uses.push({ r, q, a: at, aOff: 0, b: at + 1, bOff: 0, job: j, least });
        else if (step.minutes > 0) model.uses.push({ r, q, a: at, aOff: 0, b: at, bOff: step.minutes, job: j, least });
      }
      // What the step itself does not need is taken from its end on.
      for (const resource of kept)
        model.uses.push({ r: place.get(resource) as number, q: 1, a: at, aOff: step.minutes, b: at + 1, bOff: 0, job: j, least: step.wait.min });
      at += 1;
    }
    model.last[j] = at - 1;
  }
  return model;
}

/** Returns when the last step ends, in minutes. */
export const makespanOf = ({ last, dur, background }: Pick<Model, "last" | "dur" | "background">, starts: ArrayLike<number>): number =>
  last.reduce((most, op, j) => (background[j] ? most : Math.max(most, (starts[op] as number) + (dur[op] as number))), 0);

/** By how much jobs are late, together, in minutes. */
export const latenessOf = ({ last, dur, due }: Pick<Model, "last" | "dur" | "due">, starts: ArrayLike<number>): number =>
  last.reduce((sum, op, j) => sum + ((due[j] as number) < 0 ? 0 : Math.max(0, (starts[op] as number) + (dur[op] as number) - (due[j] as number))), 0);

/** Returns the value to minimize, by the objective that is asked for. */
export const worth = (model: Model, starts: ArrayLike<number>): number =>
  model.objective === "makespan" ? makespanOf(model, starts) : latenessOf(model, starts);
