import type { Model, Use } from "./model";

/** How much of one resource is taken, over time: a step function. */
class Profile {
  /** Where it changes, and what is taken from there on. */
  private readonly at: number[] = [0];
  private readonly taken: number[] = [0];
  constructor(private readonly cap: number) {}

  private place(time: number): number {
    let [low, high] = [0, this.at.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if ((this.at[middle] as number) <= time) low = middle;
      else high = middle - 1;
    }
    return low;
  }
  private cut(time: number): number {
    const k = this.place(time);
    if (this.at[k] === time) return k;
    this.at.splice(k + 1, 0, time);
    this.taken.splice(k + 1, 0, this.taken[k] as number);
    return k + 1;
  }
  add(from: number, to: number, q: number): void {
    if (to <= from) return;
    const begin = this.cut(from);
    const end = this.cut(to);
    for (let k = begin; k < end; k++) this.taken[k] = (this.taken[k] as number) + q;
  }
  /** The end of the last stretch within [from, to) in which there is no room for `q` more; −1 where there is room throughout. */
  lastFull(from: number, to: number, q: number): number {
    if (to <= from) return -1;
    for (let k = this.place(to - 1); k >= 0 && (this.at[k + 1] ?? Number.POSITIVE_INFINITY) > from; k--)
      if ((this.taken[k] as number) + q > this.cap) return this.at[k + 1] ?? Number.POSITIVE_INFINITY;
    return -1;
  }
  /** Returns the end of the first such stretch. */
  firstFull(from: number, to: number, q: number): number {
    if (to <= from) return -1;
    for (let k = this.place(from); k < this.at.length && (this.at[k] as number) < to; k++)
      if ((this.taken[k] as number) + q > this.cap) return this.at[k + 1] ?? Number.POSITIVE_INFINITY;
    return -1;
  }
}

const heldFirst = ({ heldJobs }: Model, order: readonly number[]): readonly number[] =>
  heldJobs.length === 0 ? order : [...heldJobs.filter((j) => order.includes(j)), ...order.filter((j) => !heldJobs.includes(j))];

/** Jobs that stand already, with the starts of all steps. */
interface Standing {
  jobs: readonly number[];
  starts: ArrayLike<number>;
}

/**
 * Puts jobs into a timetable one after another, each as early as what stands there allows: the earliest starts of its steps
 * are the least that satisfy waits and room, found by pushing starts up until nothing pushes any more. Every order of jobs
 * gives a timetable.
 */
export class Inserter {
  private readonly usesOf: Use[][];
  constructor(private readonly model: Model) {
    this.usesOf = Array.from({ length: model.n }, () => []);
    for (const use of model.uses) this.usesOf[use.a]?.push(use);
  }

  /** The starts that follow from putting the jobs in this order; `fixed` are starts of jobs that stand already. */
  place(order: readonly number[], fixed: Standing | null = null): Int32Array {
    const { starts, profiles, take } = this.begin(fixed);
    // What is held to a time stands before the others look for room.
    for (const j of heldFirst(this.model, order)) {
      this.earliest(j, starts, profiles);
      take(j);
    }
    return starts;
  }

  /** Returns the same, with the next job chosen each time: the one that scores least where it would stand. */
  greedy(jobs: readonly number[], score: (j: number, starts: Int32Array) => number, fixed: Standing | null = null): Int32Array {
    const { starts, profiles, take } = this.begin(fixed);
    const left = new Set(jobs);
    for (const j of this.model.heldJobs) {
      if (!left.delete(j)) continue;
      this.earliest(j, starts, profiles);
      take(j);
    }
    while (left.size > 0) {
      let best = -1;
      let least = Number.POSITIVE_INFINITY;
      for (const j of left) {
        this.earliest(j, starts, profiles);
        const its = score(j, starts);
        if (its < least) {
          least = its;
          best = j;
        }
      }
      take(best);
      left.delete(best);
    }
    return starts;
  }

  private begin(fixed: Standing | null) {
    const { model } = this;
    const profiles = Array.from(model.caps, (cap) => new Profile(cap));
    const starts = new Int32Array(model.n);
    const take = (j: number) => {
      for (let op = model.first[j] as number; op >= 0; op = model.next[op] as number)
        for (const use of this.usesOf[op] as Use[]) profiles[use.r]?.add((starts[use.a] as number) + use.aOff, (starts[use.b] as number) + use.bOff, use.q);
    };
    for (const j of fixed?.jobs ?? []) {
      for (let op = model.first[j] as number; op >= 0; op = model.next[op] as number) starts[op] = fixed?.starts[op] as number;
      take(j);
    }
    return { starts, profiles, take };
  }

  private earliest(j: number, starts: Int32Array, profiles: Profile[]): void {
    const { model } = this;
    const first = model.first[j] as number;
    const last = model.last[j] as number;
    starts[first] = model.release[j] as number;
    for (let op = first + 1; op <= last; op++) starts[op] = (starts[op - 1] as number) + (model.dur[op - 1] as number) + (model.waitLeast[op - 1] as number);
    for (let again = true; again; ) {
      again = false;
      for (let op = first; op <= last; op++) {
        const dur = model.dur[op] as number;
        let start = Math.max(starts[op] as number, model.held[op] as number);
        if (op > first) start = Math.max(start, (starts[op - 1] as number) + (model.dur[op - 1] as number) + (model.waitLeast[op - 1] as number));
        for (let moved = true; moved; ) {
          moved = false;
          for (const use of this.usesOf[op] as Use[]) {
            const profile = profiles[use.r] as Profile;
            const open = use.b !== op;
            const end = open ? Math.max(starts[use.b] as number, start + dur + (model.waitLeast[op] as number)) : start + use.bOff;
            // What stays taken until the next step cannot become shorter: it has to begin behind the last full stretch.
            const full = open ? profile.lastFull(start + use.aOff, end, use.q) : profile.firstFull(start, end, use.q);
            if (full >= 0 && full - use.aOff > start) {
              start = full - use.aOff;
              moved = true;
            }
          }
        }
        if (start !== starts[op]) {
          starts[op] = start;
          again = true;
        }
      }
      for (let op = last - 1; op >= first; op--) {
        const most = model.waitMost[op] as number;
        if (most < 0) continue;
        const least = (starts[op + 1] as number) - (model.dur[op] as number) - most;
        if (least > (starts[op] as number)) {
          starts[op] = least;
          again = true;
        }
      }
    }
  }
}
