import { jobOfPot } from "../day/job";
import type { DayPot } from "../day/pots";
import { timesOf } from "../process/process";
import type { Process } from "../process/schema";
import { addDays, dayAt, daysBetween, minutesAt, timeOn } from "../units/calendar";
import type { PlanningSettings } from "./schema";
import { hoursOn, lastDayBefore, readyBy } from "./settings";

/** One line of demand: for an order, a market, or stock to keep. */
export interface DemandLine {
  id: string;
  productId: string;
  /** Pieces still to be made. */
  count: number;
  /** ISO day; null for stock that has no day. */
  wantedOn: string | null;
  /** Who or what for. */
  note: string;
}

/** A product as planning needs it. */
export interface DemandProduct {
  id: string;
  name: string;
  formulaId: string;
  formulaName: string;
  process: Process;
  components: number;
  /** Wax and oil in one piece, in mg. */
  fillMg: number;
  tested: boolean;
  /** Whether its pieces have to be wicked. */
  wicked: boolean;
}

/** How far a plan misses its demand. */
export type Fit = "stock" | "ready" | "minimum" | "late";

/** A pot with its day. */
export interface PlannedPot extends DayPot {
  /** ISO day; null if no day within reach has room for it. */
  day: string | null;
  /** The earliest day that something in it is wanted on. */
  wantedOn: string | null;
  /** The last days on which it can be poured, for the recommended and for the minimum cure; null if no such day is left or asked. */
  latest: { recommended: string | null; minimum: string | null };
  is: Fit;
  /** How many days after the last day for the cure it falls: for the recommended one where the minimum is kept, else for the minimum. */
  short: number;
  /** Its product was never tested with these wicks, or failed. */
  untested: boolean;
  handsMinutes: number;
  burnerMinutes: number;
  /** Days on which its pieces take places on the table, from the day of pouring. */
  setDays: number;
}

/** What is left to give on one day. */
interface DayLoad {
  hands: number;
  burner: number;
  table: number;
}

export interface DemandPlan {
  pots: PlannedPot[];
  /** What is planned on each day, by ISO day. */
  load: Map<string, DayLoad>;
  /** Lines whose product no longer exists. */
  unknown: DemandLine[];
}

/** So much of a day can be planned; the rest goes to what nobody plans. An assumption, no source. */
const USABLE = 0.8;
/** So far ahead a day is looked for. */
const REACH_DAYS = 540;
const DAY = 86_400;

/** A run of lines of one formula that are made together. */
interface Run {
  lines: { line: DemandLine; product: DemandProduct }[];
}

/**
 * Returns packs lines into pots in the order in which they are wanted, jar by jar: no pot above what a pitcher takes or the table holds, and
 * all of them about as heavy.
 */
function packed(run: Run, settings: PlanningSettings): { counts: number[]; mg: number; jars: number }[] {
  const room = settings.pitcherMg / (1 + settings.sparePpm / 1_000_000);
  const total = run.lines.reduce((sum, { line, product }) => sum + line.count * product.fillMg, 0);
  const jars = run.lines.reduce((sum, { line }) => sum + line.count, 0);
  const many = Math.max(1, Math.ceil(total / room), Math.ceil(jars / settings.table));
  const aim = total / many;
  const pots: { counts: number[]; mg: number; jars: number }[] = [];
  let pot = { counts: run.lines.map(() => 0), mg: 0, jars: 0 };
  const close = () => {
    if (pot.jars > 0) pots.push(pot);
    pot = { counts: run.lines.map(() => 0), mg: 0, jars: 0 };
  };
  for (const [index, { line, product }] of run.lines.entries()) {
    let left = line.count;
    while (left > 0) {
      // As many as bring it to its share, and at least one where there is room at all.
      const share = Math.ceil((aim - pot.mg) / product.fillMg);
      const most = Math.min(Math.floor((room - pot.mg) / product.fillMg), settings.table - pot.jars);
      const n = Math.min(left, Math.max(0, Math.min(most, Math.max(share, pot.jars === 0 ? 1 : 0))));
      if (n <= 0) {
        if (pot.jars === 0) {
          // One jar that is more than a pitcher takes stands alone.
          pot.counts[index] = 1;
          pot.mg = product.fillMg;
          pot.jars = 1;
          left -= 1;
        }
        close();
        continue;
      }
      pot.counts[index] = (pot.counts[index] ?? 0) + n;
      pot.mg += n * product.fillMg;
      pot.jars += n;
      left -= n;
    }
  }
  close();
  return pots;
}

/** Groups lines into runs: of one formula, and wanted within so many days of the first of the run; stock without a day joins the first. */
function runsOf(lines: readonly { line: DemandLine; product: DemandProduct }[], gatherDays: number): Run[] {
  const byFormula = new Map<string, { line: DemandLine; product: DemandProduct }[]>();
  for (const line of lines) {
    const there = byFormula.get(line.product.formulaId);
    if (there) there.push(line);
    else byFormula.set(line.product.formulaId, [line]);
  }
  const runs: Run[] = [];
  for (const all of byFormula.values()) {
    const dated = all.filter(({ line }) => line.wantedOn !== null).sort((a, b) => ((a.line.wantedOn as string) < (b.line.wantedOn as string) ? -1 : 1));
    const stock = all.filter(({ line }) => line.wantedOn === null);
    const first = runs.length;
    let run: Run | null = null;
    let from = "";
    for (const item of dated) {
      const on = item.line.wantedOn as string;
      if (!run || daysBetween(from, on) > gatherDays) {
        run = { lines: [] };
        from = on;
        runs.push(run);
      }
      run.lines.push(item);
    }
    if (stock.length === 0) continue;
    const into = runs[first];
    if (into) into.lines.push(...stock);
    else runs.push({ lines: stock });
  }
  return runs;
}

/** Returns what each day can give and what was put on it: hands, burners and table. */
function calendarOf(settings: PlanningSettings) {
  const load = new Map<string, DayLoad>();
  const loadOn = (day: string): DayLoad => {
    let there = load.get(day);
    if (!there) {
      there = { hands: 0, burner: 0, table: 0 };
      load.set(day, there);
    }
    return there;
  };
  /** What each day can give; null if nobody works. */
  const gives = new Map<string, DayLoad | null>();
  const givesOn = (day: string): DayLoad | null => {
    let there = gives.get(day);
    if (there === undefined) {
      const hours = hoursOn(day, settings);
      const minutes = hours ? (hours.to - hours.from) * USABLE : 0;
      there = hours ? { hands: minutes * settings.hands, burner: minutes * settings.burners, table: settings.table } : null;
      gives.set(day, there);
    }
    return there;
  };
  const holds = (pot: PlannedPot, day: string): boolean => {
    const there = givesOn(day);
    if (!there) return false;
    const taken = load.get(day);
    // A pot that is more than a day gives has one to itself.
    const fits = (need: number, have: number, used: number) => used + need <= have || used === 0;
    if (!fits(pot.handsMinutes, there.hands, taken?.hands ?? 0) || !fits(pot.burnerMinutes, there.burner, taken?.burner ?? 0)) return false;
    for (let n = 0; n < pot.setDays; n++) if (!fits(pot.jars, settings.table, load.get(addDays(day, n))?.table ?? 0)) return false;
    return true;
  };
  const put = (pot: PlannedPot, day: string): void => {
    pot.day = day;
    const on = loadOn(day);
    on.hands += pot.handsMinutes;
    on.burner += pot.burnerMinutes;
    for (let n = 0; n < pot.setDays; n++) loadOn(addDays(day, n)).table += pot.jars;
  };
  return { load, holds, put };
}

/** Returns the pots that wanted lines come to, without their days. */
function potsOfRuns(found: readonly { line: DemandLine; product: DemandProduct }[], settings: PlanningSettings, zone: string): PlannedPot[] {
  /** The last day to pour what is wanted on a day and takes so long: many ask the same. */
  const lastDays = new Map<string, string | null>();
  const lastDayFor = (wantedOn: string, seconds: number): string | null => {
    const key = `${wantedOn} ${seconds}`;
    let there = lastDays.get(key);
    if (there === undefined) {
      there = lastDayBefore(readyBy(wantedOn, settings.aheadDays, zone) - seconds * 1_000, settings, zone);
      lastDays.set(key, there);
    }
    return there;
  };

  const jobs = new Map<string, ReturnType<typeof jobOfPot>>();
  const pots: PlannedPot[] = [];
  for (const [runAt, run] of runsOf(found, settings.gatherDays).entries()) {
    const { formulaId, formulaName, process, components } = (run.lines[0] as Run["lines"][number]).product;
    const times = timesOf(process);
    const parts = packed(run, settings);
    for (const [partAt, part] of parts.entries()) {
      const inIt = run.lines.flatMap(({ line, product }, n) => ((part.counts[n] as number) > 0 ? [{ line, product, count: part.counts[n] as number }] : []));
      const wantedOn = inIt.reduce<string | null>(
        (least, { line }) => (line.wantedOn !== null && (least === null || line.wantedOn < least) ? line.wantedOn : least),
        null,
      );
      const latest = (seconds: number) => (wantedOn === null ? null : lastDayFor(wantedOn, Math.max(seconds, times.set)));
      const totalMg = Math.round(part.mg * (1 + settings.sparePpm / 1_000_000));
      const pot: DayPot = {
        key: `${formulaId}:${wantedOn ?? "stock"}:${runAt}.${partAt + 1}`,
        formulaId,
        formulaName: parts.length > 1 ? `${formulaName}, ${partAt + 1} of ${parts.length}` : formulaName,
        process,
        components,
        totalMg,
        jars: part.jars,
        wicked: inIt.reduce((sum, { product, count }) => sum + (product.wicked ? count : 0), 0),
        lines: inIt.map(({ line, product, count }) => ({ id: line.id, productId: product.id, name: product.name, count })),
      };
      const like = `${formulaId} ${totalMg} ${part.jars}`;
      const made = jobs.get(like) ?? jobOfPot(pot);
      jobs.set(like, made);
      const { job, steps, chores } = made;
      const sum = (of: (at: number) => boolean) => job.steps.reduce((all, step, n) => all + (of(n) ? step.minutes : 0), 0);
      pots.push({
        ...pot,
        day: null,
        wantedOn,
        latest: { recommended: latest(times.recommendedCure), minimum: latest(times.leastCure) },
        is: "stock",
        short: 0,
        untested: inIt.some(({ product }) => !product.tested),
        handsMinutes: sum((n) => steps[n]?.hands ?? false) + chores.reduce((all, item) => all + item.minutes, 0),
        burnerMinutes: sum((n) => steps[n]?.heats ?? false),
        setDays: Math.max(1, Math.ceil(times.set / DAY)),
      });
    }
  }
  return pots;
}

/** Gives each pot its day from `first` on, where one has room. */
function giveDays(pots: readonly PlannedPot[], { holds, put }: Pick<ReturnType<typeof calendarOf>, "holds" | "put">, first: string): void {
  // From the latest backwards, each on the last day that still leaves its cure; so that early days stay free for what is pressed.
  const left: PlannedPot[] = [];
  const dated = pots
    .filter((pot) => pot.wantedOn !== null)
    .sort((a, b) => (a.latest.recommended ?? "").localeCompare(b.latest.recommended ?? "") || (a.wantedOn as string).localeCompare(b.wantedOn as string));
  const backwards = (pot: PlannedPot, from: string | null): boolean => {
    for (let day = from ?? ""; day >= first && day !== ""; day = addDays(day, -1))
      if (holds(pot, day)) {
        put(pot, day);
        return true;
      }
    return false;
  };
  for (let n = dated.length - 1; n >= 0; n--) {
    const pot = dated[n] as PlannedPot;
    if (!backwards(pot, pot.latest.recommended)) left.push(pot);
  }
  // What is pressed most is put first, as early as there is room; then stock.
  left.sort((a, b) => (a.latest.minimum ?? "").localeCompare(b.latest.minimum ?? "") || (a.wantedOn as string).localeCompare(b.wantedOn as string));
  for (const pot of [...left, ...pots.filter((pot) => pot.wantedOn === null)]) {
    for (let n = 0, day = first; n < REACH_DAYS; n++, day = addDays(day, 1))
      if (holds(pot, day)) {
        put(pot, day);
        break;
      }
  }
}

/** Says of each pot that is wanted on a day whether it is ready by then, and by how many days it is short. */
function judgeDays(pots: readonly PlannedPot[]): void {
  for (const pot of pots) {
    if (pot.wantedOn === null) continue;
    const { recommended, minimum } = pot.latest;
    const after = (last: string | null) =>
      pot.day === null ? REACH_DAYS : last === null ? daysBetween(pot.wantedOn as string, pot.day) : daysBetween(last, pot.day);
    pot.is = after(recommended) <= 0 ? "ready" : after(minimum) <= 0 ? "minimum" : "late";
    pot.short = pot.is === "ready" ? 0 : after(pot.is === "minimum" ? recommended : minimum);
  }
}

/**
 * From what is wanted to pots with their days: what is of one formula and wanted at about the same time shares pots, and each pot is
 * put on the last working day that leaves the recommended cure, has hands, burners and table for it, and is not over. What finds no
 * such day goes on the first that has room, and says by how much it is late.
 */
export function planDemand(
  lines: readonly DemandLine[],
  products: readonly DemandProduct[],
  settings: PlanningSettings,
  at: { now: string; zone: string },
): DemandPlan {
  const known = new Map(products.map((product) => [product.id, product]));
  const found = lines.flatMap((line) => {
    const product = known.get(line.productId);
    return product && line.count > 0 ? [{ line, product }] : [];
  });
  const today = dayAt(at.now, at.zone);
  const open = hoursOn(today, settings);
  // A day that is half over is not planned anew.
  const first = open && minutesAt(at.now, at.zone) <= open.from + 120 ? today : addDays(today, 1);
  const calendar = calendarOf(settings);
  const pots = potsOfRuns(found, settings, at.zone);
  giveDays(pots, calendar, first);
  judgeDays(pots);
  pots.sort(
    (a, b) => (a.day ?? "9999").localeCompare(b.day ?? "9999") || (a.wantedOn ?? "9999").localeCompare(b.wantedOn ?? "9999") || a.key.localeCompare(b.key),
  );
  return { pots, load: calendar.load, unknown: lines.filter((line) => !known.has(line.productId)) };
}

/** Returns how many candles of each product the plan puts on a day. */
export function countsOn({ pots }: Pick<DemandPlan, "pots">, day: string): Record<string, number> {
  const counts: Record<string, number> = {};
  for (const pot of pots) if (pot.day === day) for (const { productId, count } of pot.lines) counts[productId] = (counts[productId] ?? 0) + count;
  return counts;
}

/** Returns how far a season misses what is wanted: pieces late by days, and pieces with the minimum cure only. */
export function missOf({ pots }: Pick<DemandPlan, "pots">): { lateDays: number; late: number; minimum: number } {
  const sum = (is: Fit, of: (pot: PlannedPot) => number) => pots.reduce((all, pot) => all + (pot.is === is ? of(pot) : 0), 0);
  return { lateDays: sum("late", (pot) => pot.short * pot.jars), late: sum("late", (pot) => pot.jars), minimum: sum("minimum", (pot) => pot.jars) };
}

/** One week of a demand plan. */
export interface Week {
  /** Its Monday. */
  from: string;
  pots: number;
  jars: number;
  /** Minutes of hands that are planned, and that there are. */
  hands: { planned: number; there: number };
  /** The fullest day of the table, and its places. */
  table: { planned: number; there: number };
  /** Pieces that cure on the rack when the week ends. */
  rack: number;
}

/** Returns a season by weeks, from the first with something in it to the last. */
export function weeksOf(demandPlan: DemandPlan, settings: PlanningSettings): Week[] {
  const placed = demandPlan.pots.filter((pot): pot is PlannedPot & { day: string } => pot.day !== null);
  const days = placed.map((pot) => pot.day).sort();
  const [begin, end] = [days[0], days.at(-1)];
  if (!begin || !end) return [];
  const monday = (day: string) => addDays(day, -((new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7));
  const weeks: Week[] = [];
  for (let from = monday(begin); from <= end; from = addDays(from, 7)) {
    const inIt = Array.from({ length: 7 }, (_, n) => addDays(from, n));
    const mine = placed.filter((pot) => pot.day >= from && pot.day < addDays(from, 7));
    const last = addDays(from, 6);
    weeks.push({
      from,
      pots: mine.length,
      jars: mine.reduce((sum, pot) => sum + pot.jars, 0),
      hands: {
        planned: Math.round(mine.reduce((sum, pot) => sum + pot.handsMinutes, 0)),
        there: inIt.reduce((sum, day) => {
          const hours = hoursOn(day, settings);
          return sum + (hours ? (hours.to - hours.from) * settings.hands : 0);
        }, 0),
      },
      table: { planned: Math.max(0, ...inIt.map((day) => demandPlan.load.get(day)?.table ?? 0)), there: settings.table },
      rack: placed.reduce((sum, pot) => {
        const cured = Math.ceil(Math.max(timesOf(pot.process).recommendedCure, timesOf(pot.process).set) / DAY);
        return sum + (pot.day <= last && addDays(pot.day, cured) > last ? pot.jars : 0);
      }, 0),
    });
  }
  return weeks;
}

/** Returns when the sun comes onto the table while something sets there, as moments; none if the workshop does not say. */
export function sunOver(pouredAt: string, process: Pick<Process, "steps">, sun: PlanningSettings["sun"], zone: string): string[] {
  if (!sun) return [];
  const end = Date.parse(pouredAt) + timesOf(process).set * 1_000;
  const out: string[] = [];
  for (let day = dayAt(pouredAt, zone); timeOn(day, 0, zone) < end; day = addDays(day, 1)) {
    const [from, to] = [timeOn(day, sun.from, zone), timeOn(day, sun.to, zone)];
    if (to > Date.parse(pouredAt) && from < end) out.push(new Date(Math.max(from, Date.parse(pouredAt))).toISOString());
  }
  return out;
}

/**
 * Returns what more could be poured from a pot that is not full: as many of its largest product as there is room for, and of the smallest of
 * its formula what is left. Nothing where a pitcher is full, or another pot of the same formula shares its day.
 */
export function roomIn(
  pot: PlannedPot,
  pots: readonly PlannedPot[],
  products: readonly DemandProduct[],
  settings: Pick<PlanningSettings, "pitcherMg" | "sparePpm" | "table">,
): { productId: string; name: string; count: number }[] {
  const last = pots.filter((plannedPot) => plannedPot.formulaId === pot.formulaId && plannedPot.day === pot.day).at(-1);
  if (last !== pot) return [];
  const spare = 1 + settings.sparePpm / 1_000_000;
  let room = settings.pitcherMg / spare - pot.totalMg / spare;
  let places = settings.table - pot.jars;
  const mine = products.filter((product) => product.formulaId === pot.formulaId).sort((a, b) => b.fillMg - a.fillMg);
  const out: { productId: string; name: string; count: number }[] = [];
  for (const product of [mine[0], mine.at(-1)]) {
    if (!product || out.some((item) => item.productId === product.id)) continue;
    const count = Math.min(places, Math.floor(room / product.fillMg));
    if (count < 1) continue;
    out.push({ productId: product.id, name: product.name, count });
    room -= count * product.fillMg;
    places -= count;
  }
  return out;
}
