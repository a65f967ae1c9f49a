import type { Model, Use } from "./model";

/** Later than any start. */
const FAR = 1_000_000_000;

/**
 * A network of start times with lower and upper bounds. Its arcs say that one start comes at least so long after another: the waits
 * within a job, and the chosen order of two uses of one resource. Bounds are propagated along the arcs until nothing changes.
 */
export class Network {
  readonly low: Int32Array;
  readonly high: Int32Array;
  private from = new Int32Array(1_024);
  private to = new Int32Array(1_024);
  private by = new Int32Array(1_024);
  private nextOut = new Int32Array(1_024);
  private nextIn = new Int32Array(1_024);
  private readonly out: Int32Array;
  private readonly into: Int32Array;
  private arcs = 0;
  private readonly queued: Uint8Array;
  private readonly queue: Int32Array;
  private head = 0;
  private tail = 0;
  /** Arcs that always hold. */
  private readonly base: number;

  /** Uses that cannot lie on one another: too many together, of different jobs. */
  readonly pairU: Int32Array;
  readonly pairV: Int32Array;
  readonly settled: Uint8Array;
  /** The pairs that are still to be ordered, as far as they are looked at. */
  open: Int32Array;
  private readonly trail: number[] = [];
  /** The uses of each resource that can run short; those of one at a time apart. */
  readonly single: Use[][] = [];
  readonly shared: { cap: number; uses: Use[] }[] = [];
  /** Nothing worse than this is looked for. */
  target = FAR;
  /** Nor anything in which the ends of all jobs come to more together. */
  ends = Number.POSITIVE_INFINITY;

  constructor(readonly model: Model) {
    const { n } = model;
    this.low = new Int32Array(n);
    this.high = new Int32Array(n);
    this.out = new Int32Array(n).fill(-1);
    this.into = new Int32Array(n).fill(-1);
    this.queued = new Uint8Array(n);
    this.queue = new Int32Array(n + 1);
    for (let op = 0; op < n; op++) {
      const next = model.next[op] as number;
      if (next < 0) continue;
      const dur = model.dur[op] as number;
      this.keepArc(op, next, dur + (model.waitLeast[op] as number));
      if ((model.waitMost[op] as number) >= 0) this.keepArc(next, op, -dur - (model.waitMost[op] as number));
    }
    this.base = this.arcs;
    const [us, vs]: [number[], number[]] = [[], []];
    for (let r = 0; r < model.caps.length; r++) {
      const cap = model.caps[r] as number;
      const mine = model.uses.flatMap((use, index) => (use.r === r ? [{ use, at: index }] : []));
      if (mine.reduce((sum, item) => sum + item.use.q, 0) <= cap) continue;
      for (let i = 0; i < mine.length; i++)
        for (let k = i + 1; k < mine.length; k++) {
          const [item, other] = [mine[i], mine[k]] as [(typeof mine)[number], (typeof mine)[number]];
          if (item.use.job === other.use.job || item.use.q + other.use.q <= cap) continue;
          us.push(item.at);
          vs.push(other.at);
        }
      const uses = mine.map((item) => item.use);
      if (uses.every((use) => 2 * use.q > cap)) this.single.push(uses);
      else this.shared.push({ cap, uses });
    }
    this.pairU = Int32Array.from(us);
    this.pairV = Int32Array.from(vs);
    this.settled = new Uint8Array(us.length);
    this.open = Int32Array.from(us.keys());
    this.reset();
  }

  /** As nothing had been decided. */
  reset(): void {
    this.cutArcs(this.base);
    this.trail.length = 0;
    this.settled.fill(0);
    this.open = this.open.length === this.settled.length ? this.open : Int32Array.from(this.settled.keys());
    const { model } = this;
    for (let op = 0; op < model.n; op++) {
      this.low[op] = model.release[model.jobOf[op] as number] as number;
      this.high[op] = FAR;
      const held = model.held[op] as number;
      if (held >= 0) {
        this.low[op] = held;
        this.high[op] = held;
      }
    }
    this.queueAll();
  }

  /** Returns what has to be known to come back here. */
  mark(): { arcs: number; settled: number; low: Int32Array; high: Int32Array } {
    return { arcs: this.arcs, settled: this.trail.length, low: this.low.slice(), high: this.high.slice() };
  }
  back(to: ReturnType<Network["mark"]>): void {
    this.cutArcs(to.arcs);
    while (this.trail.length > to.settled) this.settled[this.trail.pop() as number] = 0;
    this.low.set(to.low);
    this.high.set(to.high);
    this.clearQueue();
  }

  private keepArc(from: number, to: number, by: number): void {
    if (this.arcs === this.from.length) {
      const grown = (old: Int32Array) => {
        const fresh = new Int32Array(old.length * 2);
        fresh.set(old);
        return fresh;
      };
      this.from = grown(this.from);
      this.to = grown(this.to);
      this.by = grown(this.by);
      this.nextOut = grown(this.nextOut);
      this.nextIn = grown(this.nextIn);
    }
    const k = this.arcs++;
    this.from[k] = from;
    this.to[k] = to;
    this.by[k] = by;
    this.nextOut[k] = this.out[from] as number;
    this.out[from] = k;
    this.nextIn[k] = this.into[to] as number;
    this.into[to] = k;
  }
  private cutArcs(left: number): void {
    while (this.arcs > left) {
      const k = --this.arcs;
      this.out[this.from[k] as number] = this.nextOut[k] as number;
      this.into[this.to[k] as number] = this.nextIn[k] as number;
    }
  }
  private clearQueue(): void {
    this.queued.fill(0);
    this.head = 0;
    this.tail = 0;
  }
  private push(op: number): void {
    if (this.queued[op]) return;
    this.queued[op] = 1;
    this.queue[this.tail] = op;
    this.tail = this.tail + 1 === this.queue.length ? 0 : this.tail + 1;
  }
  private queueAll(): void {
    this.clearQueue();
    for (let op = 0; op < this.model.n; op++) this.push(op);
  }

  /** From now on `to` starts at least `by` after `from`. */
  add(from: number, to: number, by: number): void {
    this.keepArc(from, to, by);
    this.push(from);
    this.push(to);
  }
  /** One use ends before another begins. */
  order(first: Use, second: Use): void {
    this.add(first.b, second.a, first.bOff - second.aOff);
  }
  raise(op: number, to: number): void {
    if (to <= (this.low[op] as number)) return;
    this.low[op] = to;
    this.push(op);
  }
  lower(op: number, to: number): void {
    if (to >= (this.high[op] as number)) return;
    this.high[op] = to;
    this.push(op);
  }
  settle(pair: number): void {
    this.settled[pair] = 1;
    this.trail.push(pair);
  }

  /** Works out what follows from the arcs; false where they contradict one another or the bounds. */
  private relax(): boolean {
    const { low, high, from, to, by } = this;
    while (this.head !== this.tail) {
      const op = this.queue[this.head] as number;
      this.head = this.head + 1 === this.queue.length ? 0 : this.head + 1;
      this.queued[op] = 0;
      const [earliest, latest] = [low[op] as number, high[op] as number];
      if (earliest > latest) return false;
      for (let k = this.out[op] as number; k >= 0; k = this.nextOut[k] as number) {
        const other = to[k] as number;
        const least = earliest + (by[k] as number);
        if (least > (low[other] as number)) {
          if (least > (high[other] as number)) return false;
          low[other] = least;
          this.push(other);
        }
      }
      for (let k = this.into[op] as number; k >= 0; k = this.nextIn[k] as number) {
        const other = from[k] as number;
        const most = latest - (by[k] as number);
        if (most < (high[other] as number)) {
          if (most < (low[other] as number)) return false;
          high[other] = most;
          this.push(other);
        }
      }
    }
    return true;
  }

  /** Returns what the value that is looked for says of the ends of jobs. */
  private bound(): boolean {
    const { model, low, target, ends } = this;
    if (Number.isFinite(ends)) {
      let sum = 0;
      for (const op of model.last) sum += (low[op] as number) + (model.dur[op] as number);
      if (sum > ends) return false;
      for (const op of model.last) this.lower(op, (low[op] as number) + ends - sum);
    }
    if (target >= FAR) return true;
    if (model.objective === "makespan") {
      for (const [j, op] of model.last.entries()) if (!model.background[j]) this.lower(op, target - (model.dur[op] as number));
      return true;
    }
    let late = 0;
    const lateOf = (j: number, op: number) =>
      (model.due[j] as number) < 0 ? 0 : Math.max(0, (low[op] as number) + (model.dur[op] as number) - (model.due[j] as number));
    for (const [j, op] of model.last.entries()) late += lateOf(j, op);
    if (late > target) return false;
    for (const [j, op] of model.last.entries())
      if ((model.due[j] as number) >= 0) this.lower(op, (model.due[j] as number) + target - late + lateOf(j, op) - (model.dur[op] as number));
    return true;
  }

  /** Whether a pair was ordered since this was last looked at: what follows from it is recalculated. */
  private ordered = false;

  /** Returns orders pairs of which only one order is left; false where none is. */
  private pairs(): boolean {
    const { low, high, open, settled, pairU, pairV } = this;
    const { uses } = this.model;
    for (let k = 0; k < open.length; k++) {
      const pair = open[k] as number;
      if (settled[pair]) continue;
      const u = uses[pairU[pair] as number] as Use;
      const v = uses[pairV[pair] as number] as Use;
      const first =
        (low[u.b] as number) + u.bOff <= (high[v.a] as number) + v.aOff && (low[u.a] as number) + u.aOff + u.least <= (high[v.a] as number) + v.aOff;
      const second =
        (low[v.b] as number) + v.bOff <= (high[u.a] as number) + u.aOff && (low[v.a] as number) + v.aOff + v.least <= (high[u.a] as number) + u.aOff;
      if (first && second) continue;
      if (!first && !second) return false;
      this.settle(pair);
      if (first) this.order(u, v);
      else this.order(v, u);
      this.ordered = true;
      if (!this.relax()) return false;
    }
    return true;
  }

  private readonly orderOf = new Map<Use[], Use[]>();
  private readonly pushed = new Float64Array(4_096);

  /**
   * Of uses one at a time: one that cannot lie within or before a set of others lies after it (edge finding: Carlier and
   * Pinson 1989; in the form of Nuijten 1994, in n²). `forth` pushes starts up; otherwise, with time turned round, ends down.
   */
  private edges(uses: Use[], forth: boolean): boolean {
    const { low, high } = this;
    const est = (u: Use) => (forth ? (low[u.a] as number) + u.aOff : -((high[u.b] as number) + u.bOff));
    const lct = (u: Use) => (forth ? (high[u.b] as number) + u.bOff : -((low[u.a] as number) + u.aOff));
    let sorted = this.orderOf.get(uses);
    if (!sorted) {
      sorted = [...uses];
      this.orderOf.set(uses, sorted);
    }
    sorted.sort((x, y) => est(x) - est(y));
    const n = sorted.length;
    const ests = sorted.map(est);
    const lcts = sorted.map(lct);
    const pushed = n <= this.pushed.length ? this.pushed : new Float64Array(n);
    pushed.fill(Number.NEGATIVE_INFINITY, 0, n);
    const ends = new Float64Array(n);
    const tried = new Set<number>();
    for (let k = 0; k < n; k++) {
      const within = lcts[k] as number;
      if (tried.has(within)) continue;
      tried.add(within);
      let work = 0;
      let end = Number.NEGATIVE_INFINITY;
      for (let i = n - 1; i >= 0; i--) {
        if ((lcts[i] as number) <= within) {
          work += (sorted[i] as Use).least;
          end = Math.max(end, (ests[i] as number) + work);
          if (end > within) return false;
        }
        ends[i] = end;
      }
      let before = Number.NEGATIVE_INFINITY;
      for (let i = 0; i < n; i++) {
        const { least } = sorted[i] as Use;
        if ((lcts[i] as number) <= within) {
          before = Math.max(before, (ests[i] as number) + work);
          work -= least;
        } else {
          if ((ests[i] as number) + work + least > within) pushed[i] = Math.max(pushed[i] as number, ends[i] as number);
          if (before + least > within) pushed[i] = Math.max(pushed[i] as number, end);
        }
      }
    }
    for (let i = 0; i < n; i++) {
      const to = pushed[i] as number;
      if (to <= (ests[i] as number) || to === Number.NEGATIVE_INFINITY) continue;
      const u = sorted[i] as Use;
      if (forth) this.raise(u.a, to - u.aOff);
      else this.lower(u.b, -to - u.bOff);
    }
    return true;
  }

  /** Of uses that share: what must lie within a span may not need more than there is (energy), nor what is surely taken at one moment. */
  private share({ cap, uses }: { cap: number; uses: Use[] }, whole: boolean): boolean {
    const { low, high } = this;
    // What is surely taken, whatever is decided still.
    const parts: { at: number; q: number }[] = [];
    for (const u of uses) {
      const from = (high[u.a] as number) + u.aOff;
      const to = Math.max((low[u.b] as number) + u.bOff, (low[u.a] as number) + u.aOff + u.least);
      if (from < to) parts.push({ at: from, q: u.q }, { at: to, q: -u.q });
    }
    parts.sort((x, y) => x.at - y.at || x.q - y.q);
    const spans: { from: number; to: number; q: number }[] = [];
    let taken = 0;
    for (let k = 0; k < parts.length; k++) {
      const part = parts[k] as { at: number; q: number };
      taken += part.q;
      if (taken > cap) return false;
      const next = parts[k + 1]?.at ?? part.at;
      if (taken > 0 && next > part.at) spans.push({ from: part.at, to: next, q: taken });
    }
    for (const u of uses) {
      const sureFrom = (high[u.a] as number) + u.aOff;
      const sureTo = Math.max((low[u.b] as number) + u.bOff, (low[u.a] as number) + u.aOff + u.least);
      if (u.least === 0) continue;
      let start = (low[u.a] as number) + u.aOff;
      // The spans follow one another in time: those before it are passed over at once.
      let [from, to] = [0, spans.length];
      while (from < to) {
        const middle = (from + to) >> 1;
        if ((spans[middle]?.to ?? 0) <= start) from = middle + 1;
        else to = middle;
      }
      for (let k = from; k < spans.length; k++) {
        const span = spans[k] as (typeof spans)[number];
        if (span.to <= start) continue;
        if (span.from >= start + u.least) break;
        // Its own part in it does not stand in its way.
        const own = sureFrom < sureTo && span.from >= sureFrom && span.to <= sureTo ? u.q : 0;
        if (span.q - own + u.q > cap) start = span.to;
      }
      if (start > (low[u.a] as number) + u.aOff) this.raise(u.a, start - u.aOff);
    }
    if (!whole) return true;
    const sorted = [...uses].sort((x, y) => (high[x.b] as number) + x.bOff - ((high[y.b] as number) + y.bOff));
    for (const begin of new Set(uses.map((u) => (low[u.a] as number) + u.aOff))) {
      let energy = 0;
      for (const u of sorted) {
        if ((low[u.a] as number) + u.aOff < begin) continue;
        energy += u.q * u.least;
        if (energy > cap * ((high[u.b] as number) + u.bOff - begin)) return false;
      }
    }
    return true;
  }

  /** Works out all that follows; false where nothing is left. `whole`: also what takes longer to find. */
  propagate(whole: boolean): boolean {
    for (let round = 0; round < 60; round++) {
      this.ordered = false;
      if (!this.bound() || !this.relax() || !this.pairs()) return false;
      if (whole) {
        for (const uses of this.single) if (!this.edges(uses, true) || !this.edges(uses, false)) return false;
        for (const item of this.shared) if (!this.share(item, true)) return false;
      } else for (const item of this.shared) if (!this.share(item, false)) return false;
      if (this.head === this.tail && !this.ordered) return true;
    }
    return this.relax();
  }
}
