import type { ScheduleAnswer, ScheduleRequest } from "../schedule/request";

/** Returns what is wrong with a timetable: order, waits, release, room. It shares nothing with what made it, and looks at every minute. */
export function faultsOf(request: ScheduleRequest, answer: Pick<ScheduleAnswer, "steps" | "makespan" | "total_lateness" | "lower_bound">): string[] {
  const faults: string[] = [];
  const found = new Map(answer.steps.map((step) => [`${step.job}/${step.step}`, step]));
  const taken = new Map<string, Map<number, number>>();
  const take = (resource: string, from: number, to: number, q: number) => {
    const minutes = taken.get(resource) ?? new Map<number, number>();
    taken.set(resource, minutes);
    for (let at = from; at < to; at++) minutes.set(at, (minutes.get(at) ?? 0) + q);
  };
  let last = 0;
  let late = 0;
  for (const job of request.jobs) {
    for (const [index, step] of job.steps.entries()) {
      const item = found.get(`${job.id}/${step.id}`);
      if (!item) {
        faults.push(`${job.id}/${step.id} is missing`);
        continue;
      }
      if (!Number.isInteger(item.start) || item.end !== item.start + step.minutes) faults.push(`${job.id}/${step.id} takes ${item.end - item.start}`);
      if (step.at != null && item.start !== step.at) faults.push(`${job.id}/${step.id} is held at ${step.at} and starts at ${item.start}`);
      if (item.start < job.release) faults.push(`${job.id}/${step.id} begins before ${job.release}`);
      const next = job.steps[index + 1];
      const after = next && found.get(`${job.id}/${next.id}`);
      if (after) {
        const wait = after.start - item.end;
        if (wait < step.wait.min || (step.wait.max != null && wait > step.wait.max)) faults.push(`after ${job.id}/${step.id} ${wait} minutes are waited`);
      }
      for (const [resource, q] of Object.entries(step.needs)) take(resource, item.start, item.end, q);
      if (after) for (const resource of step.keeps) take(resource, item.end, after.start, Math.max(1, step.needs[resource] ?? 0));
      if (!job.background) last = Math.max(last, item.end);
      if (!next && !job.background && job.due != null) late += Math.max(0, item.end - job.due);
    }
  }
  for (const [resource, minutes] of taken)
    for (const [at, q] of minutes) if (q > (request.resources[resource] ?? 0)) faults.push(`${q} of ${resource} are taken at ${at}`);
  if (answer.steps.length !== found.size || answer.steps.length !== request.jobs.reduce((sum, job) => sum + job.steps.length, 0))
    faults.push("steps are doubled");
  if (answer.makespan !== last) faults.push(`the makespan is ${last}, not ${answer.makespan}`);
  if (answer.total_lateness !== late) faults.push(`the lateness is ${late}, not ${answer.total_lateness}`);
  if (answer.lower_bound > (request.objective === "makespan" ? last : late)) faults.push(`the bound ${answer.lower_bound} is above what was found`);
  return faults;
}

/** Returns the least value by trying every start of every step up to a horizon; null if none fits into it. For a handful of steps only. */
export function byTrying(request: ScheduleRequest, horizon: number): number | null {
  const steps = request.jobs.flatMap((job) => job.steps.map((step, index) => ({ job, step, at: index })));
  const left: Record<string, Int32Array> = Object.fromEntries(
    Object.entries(request.resources).map(([name, n]) => [name, new Int32Array(horizon + 1).fill(n)]),
  );
  const fits = (resource: string, from: number, to: number, q: number) => {
    for (let at = from; at < to; at++) if ((left[resource]?.[at] ?? 0) < q) return false;
    return true;
  };
  const take = (resource: string, from: number, to: number, q: number) => {
    const there = left[resource] as Int32Array;
    for (let at = from; at < to; at++) there[at] = (there[at] as number) - q;
  };
  let best: number | null = null;
  const go = (n: number, before: number, value: number): void => {
    if (best !== null && value >= best) return;
    const here = steps[n];
    if (!here) {
      best = value;
      return;
    }
    const { job, step, at } = here;
    const previous = at > 0 ? job.steps[at - 1] : undefined;
    const from = previous ? before + previous.wait.min : job.release;
    const to = previous?.wait.max != null ? before + previous.wait.max : horizon;
    for (let start = from; start <= to && start + step.minutes <= horizon; start++) {
      if (step.at != null && start !== step.at) continue;
      const end = start + step.minutes;
      const stretches: [string, number, number, number][] = Object.entries(step.needs).map(([resource, q]) => [resource, start, end, q]);
      for (const resource of previous?.keeps ?? []) stretches.push([resource, before, start, Math.max(1, previous?.needs[resource] ?? 0)]);
      const done: typeof stretches = [];
      const room = stretches.every((stretche) => {
        if (!fits(...stretche)) return false;
        take(...stretche);
        done.push(stretche);
        return true;
      });
      if (room) {
        const isLast = at === job.steps.length - 1;
        const its = request.objective === "makespan" ? Math.max(value, end) : value + (isLast && job.due != null ? Math.max(0, end - job.due) : 0);
        go(n + 1, isLast ? 0 : end, its);
      }
      for (const [resource, a, b, q] of done) take(resource, a, b, -q);
    }
  };
  go(0, 0, 0);
  return best;
}
