import type { ScheduleAnswer, ScheduleRequest } from "../schedule/request";
import { coolingMinutes, DEFAULT_ROOM } from "./cooling";
import { type DayJob, type DayStep, jobOfPot } from "./job";
import { type DayPot, gatherPots, type Wanted } from "./pots";
import type { DayRecord } from "./record";

/** One pot of a day with what is done for it. */
export interface DayWork extends DayJob {
  pot: DayPot & { number: number };
}

/** A product as the plan of a day uses it. */
export type DayProduct = Omit<Wanted, "count">;

/** Returns the pots of a day and what is done for each: those that were abandoned left out, the numbers of the others kept. */
export function workOfDay(record: DayRecord, products: readonly DayProduct[], room = DEFAULT_ROOM): DayWork[] {
  const wanted = products.flatMap((product) => (record.counts[product.productId] ? [{ ...product, count: record.counts[product.productId] as number }] : []));
  return gatherPots(wanted, record.pitcherMg, record.sparePpm)
    .map((pot, index) => ({ ...pot, number: index + 1 }))
    .filter((pot) => record.gone[pot.key] === undefined)
    .map((pot) => ({ pot, ...jobOfPot(pot, room) }));
}

/** Long after every day's end. */
const FOR_GOOD = 2_880;

/** A day as a request for a timetable: what was held is held, breaks have the people, and what was lost is taken by nobody. */
export function requestOfDay(record: DayRecord, work: readonly DayWork[], seconds: number): ScheduleRequest {
  const resources = { hands: record.hands, burner: record.burners, pitcher: record.pitchers };
  const taken = (id: string, needs: Record<string, number>, at: number, minutes: number): ScheduleRequest["jobs"][number] => ({
    id,
    release: 0,
    background: true,
    steps: [{ id, minutes, needs, wait: { min: 0 }, keeps: [], at: Math.max(0, at) }],
  });
  return {
    resources,
    jobs: [
      ...work.map(({ job }) => ({ ...job, steps: job.steps.map((step) => ({ ...step, at: record.held[`${job.id}/${step.id}`] ?? null })) })),
      ...record.breaks.map((item, n) => taken(`break ${n + 1}`, { hands: record.hands }, item.from, item.minutes)),
      ...record.lost.map((item, n) => taken(`lost ${n + 1}`, { [item.of]: 1 }, item.from, FOR_GOOD)),
    ],
    objective: "makespan",
    seconds,
  };
}

/** A step with its time, in minutes from the beginning of the day. */
export interface PlacedStep extends DayStep {
  start: number;
  end: number;
}
export interface DayRow {
  key: string;
  number: number;
  name: string;
  steps: PlacedStep[];
}

/** Returns what a timetable says of each pot; only those of which it places every step. */
export function rowsOf(work: readonly DayWork[], answer: Pick<ScheduleAnswer, "steps"> | null): DayRow[] {
  const at = new Map((answer?.steps ?? []).map((step) => [`${step.job}/${step.step}`, step]));
  return work.flatMap(({ pot, steps, job }) => {
    const placed = steps.flatMap((step) => {
      const item = at.get(`${job.id}/${step.id}`);
      return item ? [{ ...step, start: item.start, end: item.end }] : [];
    });
    return placed.length === steps.length ? [{ key: pot.key, name: pot.formulaName, number: pot.number, steps: placed }] : [];
  });
}

/** What else the people do, where they are free. */
export interface Chore {
  key: string;
  number: number;
  name: string;
  /** The pot, or the batch, that it is for. */
  of: string;
  /** When it is done, in pieces; minutes from the beginning, below 0 for before the day begins. */
  parts: { start: number; end: number }[];
}

/** Shorter stretches are not begun on. */
const MIN_STRETCH = 3;
const CHORE_NAMES = { oils: "weigh the oils", wicks: "wick the jars" } as const;
/** Trimming, lidding and labelling one piece takes so long, in minutes. Common practice, no source. */
const LABEL_MINUTES = 0.5;

/** A batch whose cure is over: its pieces are trimmed and labeled when there is time. */
export interface ToLabel {
  /** Of the batch. */
  number: number;
  title: string;
  pieces: number;
}

/**
 * Puts wicking and the weighing of oils into the waits in which hands are free, what is needed first coming first; what finds no room
 * there is done before the day begins. Breaks are kept free.
 */
export function choresOf(
  work: readonly DayWork[],
  rows: readonly DayRow[],
  record: Pick<DayRecord, "hands" | "breaks">,
  labels: readonly ToLabel[] = [],
): Chore[] {
  const last = Math.max(0, ...rows.flatMap((row) => row.steps.map((step) => step.end)));
  const free = new Int16Array(last + 1).fill(record.hands);
  const take = (from: number, to: number, n: number) => {
    for (let at = Math.max(0, from); at < Math.min(last, to); at++) free[at] = (free[at] as number) - n;
  };
  for (const row of rows) for (const step of row.steps) if (step.hands) take(step.start, step.end, 1);
  for (const item of record.breaks) take(item.from, item.from + item.minutes, record.hands);
  const wanted = rows.flatMap((row) => {
    const dayWork = work.find((work) => work.pot.key === row.key);
    return (dayWork?.chores ?? []).map((chore) => ({
      key: `${row.key} ${chore.kind}`,
      number: row.number,
      name: CHORE_NAMES[chore.kind] as string,
      of: `pot ${row.number}`,
      minutes: chore.minutes,
      by: row.steps.find((step) => step.id === chore.before)?.start ?? 0,
      must: true,
    }));
  });
  wanted.sort((a, b) => a.by - b.by || a.number - b.number);
  // What has no pot to wait for it comes last, and is left for another day where there is no time.
  for (const label of labels)
    wanted.push({
      key: `label ${label.number}`,
      number: 0,
      name: `label ${label.pieces} of`,
      of: `batch ${label.number}, ${label.title}`,
      minutes: Math.ceil(label.pieces * LABEL_MINUTES),
      by: last,
      must: false,
    });
  let before = 0;
  return wanted.flatMap(({ minutes, by, must, ...chore }): Chore[] => {
    const parts: { start: number; end: number }[] = [];
    let left = minutes;
    for (let at = 0; at < by && left > 0; ) {
      let end = at;
      while (end < by && (free[end] as number) > 0 && end - at < left) end++;
      if (end - at >= Math.min(MIN_STRETCH, left)) {
        parts.push({ start: at, end });
        take(at, end, 1);
        left -= end - at;
      }
      at = Math.max(end, at + 1);
    }
    if (left > 0 && must) {
      parts.unshift({ start: before - left, end: before });
      before -= left;
    }
    return parts.length > 0 ? [{ ...chore, parts }] : [];
  });
}

/** Returns how warm a pot is expected to be over its day: minutes from the beginning and °C. On its burner it keeps its heat; else it cools by its mass. */
export function heatOf(row: DayRow, massMg: number, room = DEFAULT_ROOM): { minute: number; celsius: number }[] {
  const out: { minute: number; celsius: number }[] = [];
  let now: number | null = null;
  const constant = coolingMinutes(room + Math.E, room + 1, massMg, room);
  for (const [index, step] of row.steps.entries()) {
    if (now === null && step.after === null) continue;
    if (now === null) now = room;
    // One that fell too far is put back on the heat before the step, for as long as it takes.
    if (!step.heats && step.after !== null && step.after > now + 2) now = step.after;
    out.push({ minute: step.start, celsius: now });
    // A step that warms ends where it wants to; one that is added to or read falls there; the rest cools on.
    if (step.heats || (step.after !== null && step.after !== row.steps[index - 1]?.after && step.after < now)) now = step.after ?? now;
    out.push({ minute: step.end, celsius: now });
    const next = row.steps[index + 1];
    if (!next) break;
    if (step.onBurner) continue;
    const from: number = now;
    const falls = (minute: number) => room + (from - room) * Math.exp(-(minute - step.end) / constant);
    for (let minute = step.end + 5; minute < next.start; minute += 5) out.push({ minute, celsius: falls(minute) });
    now = falls(next.start);
  }
  return out;
}

/** A time span during which a pot uses a resource, with the number of the pot. */
export interface Stretch {
  number: number;
  start: number;
  end: number;
}

/** Returns which burner, or which pitcher, each pot has, and when: as few lines as are in use at once. */
export function lanesOf(work: readonly DayWork[], rows: readonly DayRow[], resource: "burner" | "pitcher"): Stretch[][] {
  const taken = rows.flatMap((row): Stretch[] => {
    const steps = work.find((work) => work.pot.key === row.key)?.job.steps ?? [];
    const out: Stretch[] = [];
    for (const [index, step] of steps.entries()) {
      const placed = row.steps[index] as PlacedStep;
      const keeps = step.keeps.includes(resource) && index < steps.length - 1;
      if (!step.needs[resource] && !keeps) continue;
      const start = step.needs[resource] ? placed.start : placed.end;
      const end = keeps ? (row.steps[index + 1] as PlacedStep).start : placed.end;
      const before = out.at(-1);
      if (before && before.end >= start) before.end = Math.max(before.end, end);
      else if (end > start) out.push({ number: row.number, start, end });
    }
    return out;
  });
  const lanes: Stretch[][] = [];
  for (const stretch of taken.sort((a, b) => a.start - b.start)) {
    const lane = lanes.find((other) => (other.at(-1) as Stretch).end <= stretch.start);
    if (lane) lane.push(stretch);
    else lanes.push([stretch]);
  }
  return lanes;
}

/** Returns what moved from one timetable to the next. */
export function movesOf(before: readonly DayRow[], after: readonly DayRow[]): { number: number; name: string; step: string; from: number; to: number }[] {
  return after.flatMap((row) => {
    const old = before.find((day) => day.key === row.key);
    return row.steps.flatMap((step) => {
      const was = old?.steps.find((placedStep) => placedStep.id === step.id);
      return was && was.start !== step.start ? [{ number: row.number, name: row.name, step: step.name, from: was.start, to: step.start }] : [];
    });
  });
}
