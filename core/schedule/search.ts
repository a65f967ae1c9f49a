import { randomFrom } from "../random";
import { Inserter } from "./insert";
import { type Model, makespanOf, type Use, worth } from "./model";
import { Network } from "./network";

/** The value where there is no timetable that keeps what is held. */
export const NONE = 1_000_000_000;

/** What the search knows so far. */
export interface Found {
  starts: Int32Array;
  value: number;
  /** No timetable is better than this. */
  bound: number;
}

const slackOf = (net: Network, u: Use, v: Use): number => (net.high[v.a] as number) + v.aOff - ((net.low[u.b] as number) + u.bOff);

/** Returns two uses that lie on one another at the earliest starts and must be ordered: the pair with the least room. */
function tightest(net: Network, noise: () => number): number {
  const { low, open, settled, pairU, pairV } = net;
  const { uses } = net.model;
  let best = -1;
  let least = Number.POSITIVE_INFINITY;
  for (let k = 0; k < open.length; k++) {
    const pair = open[k] as number;
    if (settled[pair]) continue;
    const u = uses[pairU[pair] as number] as Use;
    const v = uses[pairV[pair] as number] as Use;
    if ((low[u.a] as number) + u.aOff >= (low[v.b] as number) + v.bOff || (low[v.a] as number) + v.aOff >= (low[u.b] as number) + u.bOff) continue;
    const [value, other] = [slackOf(net, u, v), slackOf(net, v, u)];
    const [less, more] = value < other ? [value, other] : [other, value];
    // Of one that can stand in a single order, or in none, there is nothing to weigh.
    if (less < 0) return pair;
    const room = (less + 1) / Math.sqrt((less + 1) / (more + 1)) + noise();
    if (room < least) {
      least = room;
      best = pair;
    }
  }
  return best;
}

/** Uses that together take more than there is at one moment of the earliest starts; a smallest such set, or nothing. */
function crowd(net: Network): Use[] | null {
  const { low } = net;
  for (const { cap, uses } of net.shared) {
    const there = uses.filter((u) => (low[u.b] as number) + u.bOff > (low[u.a] as number) + u.aOff);
    there.sort((x, y) => (low[x.a] as number) + x.aOff - ((low[y.a] as number) + y.aOff));
    let active: Use[] = [];
    for (const u of there) {
      const at = (low[u.a] as number) + u.aOff;
      active = active.filter((use) => (low[use.b] as number) + use.bOff > at);
      active.push(u);
      let sum = active.reduce((all, use) => all + use.q, 0);
      if (sum <= cap) continue;
      // As few of them as are still too many, those that end last left out first.
      const few = [...active].sort((x, y) => (low[y.b] as number) + y.bOff - ((low[x.b] as number) + x.bOff));
      for (const use of [...few]) {
        if (few.length > 2 && sum - use.q > cap) {
          few.splice(few.indexOf(use), 1);
          sum -= use.q;
        }
      }
      return few;
    }
  }
  return null;
}

interface Limits {
  /** So many dead ends, and no more. */
  fails: number;
  noise: () => number;
  whole: boolean;
  stop: () => boolean;
  onBetter: (starts: Int32Array) => void;
}

/**
 * Looks through all orders of uses that cannot share, by branching: the earliest starts are a timetable where nothing lies
 * on one another. True where everything was looked through, so that nothing within the target is left.
 */
function branch(net: Network, limits: Limits): boolean {
  let complete = true;
  const look = (): void => {
    if (!net.propagate(limits.whole)) {
      limits.fails -= 1;
      return;
    }
    if (limits.fails <= 0 || limits.stop()) {
      complete = false;
      return;
    }
    const pair = tightest(net, limits.noise);
    if (pair >= 0) {
      const u = net.model.uses[net.pairU[pair] as number] as Use;
      const v = net.model.uses[net.pairV[pair] as number] as Use;
      const uFirst = slackOf(net, u, v) + limits.noise() >= slackOf(net, v, u) + limits.noise();
      const here = net.mark();
      for (const first of uFirst ? [true, false] : [false, true]) {
        net.settle(pair);
        if (first) net.order(u, v);
        else net.order(v, u);
        look();
        net.back(here);
        if (!complete) return;
      }
      return;
    }
    const few = crowd(net);
    if (!few) {
      limits.onBetter(net.low.slice());
      return;
    }
    const orders = few
      .flatMap((u) =>
        few.filter((v) => v !== u && v.job !== u.job && slackOf(net, u, v) >= 0).map((v) => ({ u, v, room: slackOf(net, u, v) + limits.noise() })),
      )
      .sort((x, y) => y.room - x.room);
    const here = net.mark();
    for (const { u, v } of orders) {
      net.order(u, v);
      look();
      net.back(here);
      if (!complete) return;
    }
    if (orders.length === 0) limits.fails -= 1;
  };
  look();
  return complete;
}

/**
 * Keeps the order of all uses but those of freed steps, as they stand in a timetable. A use that has no length there can grow when
 * its steps move apart: it is kept in order too, or, where it lies within another, looked at like a freed one.
 */
function hold(net: Network, starts: Int32Array, freed: Uint8Array): void {
  const { model } = net;
  const startOf = (u: Use) => (starts[u.a] as number) + u.aOff;
  const endOf = (u: Use) => (starts[u.b] as number) + u.bOff;
  const loose = new Set(model.uses.filter((u) => freed[u.a] || freed[u.b]));
  for (let r = 0; r < model.caps.length; r++) {
    const cap = model.caps[r] as number;
    const mine = model.uses.filter((u) => u.r === r && !loose.has(u)).sort((x, y) => startOf(x) - startOf(y) || endOf(x) - endOf(y));
    if (mine.reduce((sum, u) => sum + u.q, 0) <= cap) continue;
    // Each piece of the resource goes from one use to the next.
    const pieces: { end: number; of: Use | null }[] = Array.from({ length: cap }, () => ({ end: Number.NEGATIVE_INFINITY, of: null }));
    for (const u of mine) {
      const free = pieces.filter((piece) => piece.end <= startOf(u)).sort((x, y) => y.end - x.end);
      if (free.length < u.q) {
        loose.add(u);
        continue;
      }
      const before = new Set<Use>();
      for (const piece of free.slice(0, u.q)) {
        if (piece.of) before.add(piece.of);
        piece.end = endOf(u);
        piece.of = u;
      }
      for (const use of before) if (use.job !== u.job) net.order(use, u);
    }
  }
  const { uses } = model;
  net.open = Int32Array.from(
    [...net.settled.keys()].filter((pair) => loose.has(uses[net.pairU[pair] as number] as Use) || loose.has(uses[net.pairV[pair] as number] as Use)),
  );
}

/** Returns how hard it was to make a resource do: what takes longest stands first in the first orders tried. */
function firstOrders(model: Model, all: readonly number[], random: () => number): number[][] {
  const span = (j: number) => {
    let sum = 0;
    for (let op = model.first[j] as number; op >= 0; op = model.next[op] as number)
      sum += (model.dur[op] as number) + Math.max(0, model.waitLeast[op] as number);
    return sum;
  };
  const due = (j: number) => ((model.due[j] as number) < 0 ? Number.MAX_SAFE_INTEGER : (model.due[j] as number));
  const by = (key: (j: number) => number) => [...all].sort((a, b) => key(a) - key(b));
  const orders = [[...all], by((j) => -span(j)), by(span), by(due), by((j) => due(j) - span(j)), by((j) => model.release[j] as number)];
  for (let k = 0; k < 8; k++) orders.push([...all].sort(() => random() - 0.5));
  return orders;
}

/** Returns what no timetable can be below, from each job alone. */
function simpleBound(model: Model): number {
  let most = 0;
  let late = 0;
  for (let j = 0; j < model.jobs; j++) {
    let end = model.release[j] as number;
    for (let op = model.first[j] as number; op >= 0; op = model.next[op] as number)
      end += (model.dur[op] as number) + ((model.next[op] as number) < 0 ? 0 : (model.waitLeast[op] as number));
    if (!model.background[j]) most = Math.max(most, end);
    if ((model.due[j] as number) >= 0) late += Math.max(0, end - (model.due[j] as number));
  }
  return model.objective === "makespan" ? most : late;
}

/** Returns the ends of all jobs together. */
const endsOf = ({ last, dur }: Pick<Model, "last" | "dur">, starts: Int32Array): number =>
  last.reduce((sum, op) => sum + (starts[op] as number) + (dur[op] as number), 0);

/** More pairs of uses than this are not compared with one another. */
const MAX_PAIRS = 400_000;
const pairsOf = (model: Model): number => {
  const uses = new Int32Array(model.caps.length);
  for (const use of model.uses) uses[use.r] = (uses[use.r] as number) + 1;
  return uses.reduce((sum, n) => sum + (n * (n - 1)) / 2, 0);
};

/** Returns the least target that cannot be shown to be out of reach without deciding anything. */
function rootBound(net: Network, from: number, to: number): number {
  const holds = (target: number) => {
    net.target = target;
    net.reset();
    return net.propagate(true);
  };
  let [low, high] = [from, to];
  while (low < high) {
    const middle = Math.floor((low + high) / 2);
    if (holds(middle)) high = middle;
    else low = middle + 1;
  }
  return low;
}

/**
 * Searches for the best timetable, and says after each piece of work what it has. A first one comes from putting jobs in one
 * after another; then pieces of the best are taken apart and looked through anew (large neighborhoods), and the bound is
 * raised by looking through everything below it. Ends when the two meet; until then it can be stopped at any time.
 */
export function* search(model: Model, clock: () => number, seed = 1): Generator<Found, Found> {
  const random = randomFrom(seed);
  const noise = (much: number) => () => random() * much;
  const inserter = new Inserter(model);
  const everyone = Array.from({ length: model.jobs }, (_, j) => j);
  const holds = (starts: Int32Array) => model.heldJobs.length === 0 || model.held.every((at, op) => at < 0 || starts[op] === at);
  let best: Int32Array = inserter.place(everyone);
  /** Where what is held to a time was pushed away, it is no timetable yet. */
  let value = holds(best) ? worth(model, best) : NONE;
  let bound = simpleBound(model);
  let compact = value < NONE ? endsOf(model, best) : Number.POSITIVE_INFINITY;
  const take = (starts: Int32Array) => {
    if (!holds(starts)) return;
    const its = worth(model, starts);
    if (its > value) return;
    // What is as good, with its jobs out of the way sooner, leaves more room to go on from.
    const ends = endsOf(model, starts);
    if (its === value && ends > compact) return;
    best = starts;
    value = its;
    compact = ends;
  };
  const found = (): Found => ({ starts: best, value, bound: Math.min(bound, value) });
  if (model.n === 0) return found();
  for (const order of firstOrders(model, everyone, random)) take(inserter.place(order));
  if (value === NONE) {
    // Nothing that was put in one after another keeps what is held: looked through, something may.
    const net = pairsOf(model) <= MAX_PAIRS ? new Network(model) : null;
    for (let fails = 500; net && value === NONE && fails < 200_000; fails *= 4) {
      net.reset();
      const through = branch(net, { fails, noise: noise(1), whole: true, stop: () => value < NONE, onBetter: take });
      yield found();
      if (through) break;
    }
    if (value === NONE) return found();
  }
  yield found();
  /** Takes next what is soonest out of the way, or most pressed; with some chance, so that it goes another way each time. */
  const score = (by: number, much: number) => (j: number, starts: Int32Array) => {
    const first = starts[model.first[j] as number] as number;
    const last = model.last[j] as number;
    const end = (starts[last] as number) + (model.dur[last] as number);
    const due = model.objective === "lateness" && (model.due[j] as number) >= 0 ? (model.due[j] as number) : 0;
    return (by === 0 ? end : by === 1 ? first : first + end) + (due > 0 ? due - end * 0.5 : 0) + random() * much;
  };
  for (let by = 0; by < 3; by++) take(inserter.greedy(everyone, score(by, 0)));
  yield found();
  if (value <= bound) return found();
  // So many pairs cannot be looked through in the time anybody waits: then jobs are only put in again in other orders.
  const net = pairsOf(model) <= MAX_PAIRS ? new Network(model) : null;
  if (net) bound = rootBound(net, bound, value);
  yield found();

  /** Looks through what is left when some steps are freed. */
  const apart = (net: Network, freed: Uint8Array, sideways: boolean, fails: number, much: number, until: number) => {
    net.target = sideways ? value : value - 1;
    net.ends = sideways ? compact - 1 : Number.POSITIVE_INFINITY;
    net.reset();
    hold(net, best, freed);
    branch(net, {
      fails,
      noise: noise(much),
      whole: net.open.length < 3_000 && model.n < 150,
      stop: () => clock() > until,
      onBetter: (starts) => {
        take(starts);
        net.target = sideways ? value : value - 1;
        if (sideways) net.ends = compact - 1;
      },
    });
    net.ends = Number.POSITIVE_INFINITY;
    net.open = Int32Array.from(net.settled.keys());
  };
  /** Looks through everything up to a target; true where that was done, so that nothing better than what is known then is there. */
  const whole = (net: Network, target: number, fails: number, until: number): boolean => {
    net.target = target;
    net.reset();
    return branch(net, {
      fails,
      noise: noise(fails > 1_000 ? 0.01 : 0.5),
      whole: true,
      stop: () => clock() > until,
      onBetter: (starts) => {
        take(starts);
        net.target = Math.min(net.target, value - 1);
      },
    });
  };

  let tries = 0;
  let wide = 2;
  let fails = 200;
  let dry = 0;
  while (value > bound) {
    tries += 1;
    const before = value;
    const until = clock() + 60;
    if (net && tries % 40 === 1) {
      // From above: is there anything better at all?
      if (whole(net, value - 1, fails * 4, clock() + 400)) bound = value;
    } else if (net && tries % 40 === 21 && bound < value - 1) {
      // From below: can the bound be reached?
      if (whole(net, bound, fails * 4, clock() + 400) && value > bound) bound += 1;
    } else if (!net || tries % 3 === 0) {
      // Some jobs are taken out and put in again in another order.
      const order = [...everyone].sort(() => random() - 0.5);
      const out = order.slice(0, Math.max(1, Math.min(model.jobs, 1 + Math.floor(random() * (wide + 2)))));
      const stay = order.slice(out.length);
      for (let turn = 0; turn < 6; turn++) {
        out.sort(() => random() - 0.5);
        const standing = { jobs: stay, starts: best };
        take(turn % 2 === 0 ? inserter.place(out, standing) : inserter.greedy(out, score(turn % 3, 8), standing));
      }
    } else {
      const freed = new Uint8Array(model.n);
      if (random() < 0.5) {
        const jobs = new Set<number>();
        while (jobs.size < Math.min(model.jobs, wide)) jobs.add(Math.floor(random() * model.jobs));
        for (let op = 0; op < model.n; op++) if (jobs.has(model.jobOf[op] as number)) freed[op] = 1;
      } else {
        const span = makespanOf(model, best);
        const long = Math.max(1, Math.round((span * Math.min(0.9, 0.12 * wide)) / 2));
        const from = Math.floor(random() * Math.max(1, span - long));
        for (let op = 0; op < model.n; op++) {
          const start = best[op] as number;
          if (start < from + long && start + (model.dur[op] as number) > from) freed[op] = 1;
        }
      }
      // Sideways too, so that it does not stay where it is.
      apart(net, freed, random() < 0.5, fails, 2 + random() * 20, until);
    }
    dry = value < before ? 0 : dry + 1;
    if (dry > 60) {
      dry = 0;
      wide = Math.min(Math.max(2, model.jobs), wide + 1);
      fails = Math.min(200_000, Math.round(fails * 1.5));
    }
    yield found();
  }
  return found();
}
