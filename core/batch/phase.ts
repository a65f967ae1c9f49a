import { standing } from "../heat/range";
import type { Step } from "../process/kind";
import { poursOf, RANGE_NAMES, timesOf } from "../process/process";
import { stepsOf } from "../process/steps";
import { type BatchFacts, partKey, targetOf } from "./facts";
import { isLost, isPoured } from "./loss";
import type { BatchPlan, Component } from "./plan";

export type Phase = "pot" | "setting" | "curing" | "ready" | "closed" | "abandoned";

export interface CureTimes {
  /** Leave unmoved until then. */
  setAt: string;
  /** Tests before this mislead. */
  testFrom: string;
  /** Cured as recommended: fit to sell once its tests are passed. */
  sellFrom: string;
}

const later = (iso: string, seconds: number) => new Date(Date.parse(iso) + seconds * 1_000).toISOString();

/** When all pours are done: the time of the last; null before. */
export function pouredAt(plan: BatchPlan, facts: Pick<BatchFacts, "pours">): string | null {
  let last: string | null = null;
  for (const act of poursOf(plan.process.acts)) {
    const done = facts.pours[act.id];
    if (!done) return null;
    if (last === null || Date.parse(done.at) > Date.parse(last)) last = done.at;
  }
  return last;
}

/** When a poured batch has set, may be tested, may be sold, by its process. Cure times: common practice, no source. */
export function cureTimes(poured: string, process: Parameters<typeof timesOf>[0]): CureTimes {
  const { set, leastCure, recommendedCure } = timesOf(process);
  return { setAt: later(poured, set), testFrom: later(poured, Math.max(leastCure, set)), sellFrom: later(poured, Math.max(recommendedCure, set)) };
}

/** One step with what has become of it. */
export interface Progress extends Step {
  done: boolean;
  /** When it was last worked at; null where it was not. */
  at: string | null;
  /** What of it was weighed or counted so far, and what is asked, with the rest of the pot set anew where that was done. */
  given: number;
  asked: number;
}

/** Weighed closely enough: within half a percent, or 1 g, of what was asked. On a small scale it is weighed in parts. */
const enough = (given: number, asked: number) => given >= asked - Math.max(asked * 0.005, Math.min(1_000, asked * 0.05));

function progressOf(plan: BatchPlan, step: Step, facts: BatchFacts): Progress {
  const none = { ...step, done: false, at: null, given: 0, asked: 0 };
  // What was lost and not weighed again is no more to be weighed once the pot is poured.
  const pouredWithout = (part: Component) => (facts.lost[partKey(step.pot, part.id)] ?? 0) > 0 && isPoured(plan, facts, step.pot);
  switch (step.entry) {
    case "weighed": {
      const part = step.component as Component;
      const asked = targetOf(facts, step.pot, part);
      const got = facts.weighed[partKey(step.pot, part.id)];
      return { ...none, done: (got !== undefined && enough(got.mg, asked)) || pouredWithout(part), at: got?.at ?? null, given: got?.mg ?? 0, asked };
    }
    case "counted": {
      const part = step.component as Component;
      const got = facts.counted[partKey(step.pot, part.id)];
      const asked = part.count?.n ?? 0;
      return { ...none, done: (got?.n ?? 0) >= asked || pouredWithout(part), at: got?.at ?? null, given: got?.n ?? 0, asked };
    }
    case "read":
      return { ...none, done: facts.reads[step.act] !== undefined, at: facts.reads[step.act]?.at ?? null };
    case "poured":
      return { ...none, done: facts.pours[step.act] !== undefined, at: facts.pours[step.act]?.at ?? null };
    case "stirred":
    case "did":
      return { ...none, done: facts.did[step.act] !== undefined, at: facts.did[step.act]?.at ?? null };
    default:
      return none;
  }
}

/** Every step with what has become of it, and the one that waits for hands. */
export function progress(plan: BatchPlan, facts: BatchFacts): { steps: Progress[]; next: Progress | null } {
  const steps = stepsOf(plan).map((step) => progressOf(plan, step, facts));
  if (facts.closed || facts.abandoned) return { steps, next: null };
  const hands = steps.filter((step) => step.entry !== null);
  // After a loss what is missing is weighed again before anything else is done with that pot.
  const again = hands.find((step) => !step.done && step.component !== undefined && isLost(plan, facts, step.pot, step.component.id));
  if (again) return { steps, next: again };
  const lastDone = hands.reduce((last, step, index) => (step.done ? index : last), -1);
  const newest = hands[lastDone];
  const first = hands.slice(lastDone + 1).find((step) => !step.done) ?? null;
  // The pot has to be brought into a range before it goes on: put back on the heat, or read outside.
  if (newest?.range && (facts.onHeat !== null || standing(facts.reads[newest.act]?.celsius ?? 0, newest.range).is !== "inside")) return { steps, next: newest };
  return { steps, next: first };
}

/** What of a range a step is spoken of: "heat", "add", "pour". */
export const rangeName = (step: Pick<Step, "kind">): string => RANGE_NAMES[step.kind as keyof typeof RANGE_NAMES] ?? step.kind;

/** When a step may be done: after the wait that it is, or at once; null where nothing was done before. */
export function dueOf(steps: readonly Progress[], step: Progress): { from: string; until: string | null } | null {
  const at = steps.findIndex((one) => one.key === step.key);
  const before = steps.slice(0, at).findLast((one) => one.at !== null)?.at ?? null;
  if (before === null) return null;
  return { from: later(before, step.least ?? 0), until: step.most === undefined ? null : later(before, step.most) };
}

/** Where a batch stands at a moment: the only thing here that looks at the clock. */
export function phaseAt(plan: BatchPlan, facts: BatchFacts, now: string): { phase: Phase; times: CureTimes | null; pouredAt: string | null } {
  const poured = pouredAt(plan, facts);
  const times = poured ? cureTimes(poured, plan.process) : null;
  const at = Date.parse(now);
  const phase: Phase = facts.closed
    ? "closed"
    : facts.abandoned
      ? "abandoned"
      : !times
        ? "pot"
        : at < Date.parse(times.setAt)
          ? "setting"
          : at < Date.parse(times.sellFrom)
            ? "curing"
            : "ready";
  return { phase, times, pouredAt: poured };
}

/** How long a pot has been above its ceiling, in seconds, up to now. */
export const secondsAbove = (facts: Pick<BatchFacts, "over">, now: string): number =>
  facts.over.seconds + (facts.over.since === null ? 0 : Math.max(0, Math.round((Date.parse(now) - Date.parse(facts.over.since)) / 1_000)));

/** The load really weighed into a pot, in percent of the wax; null until both wax and fragrance are weighed. */
export function weighedLoad(plan: BatchPlan, facts: Pick<BatchFacts, "weighed">, pot = 0): number | null {
  const sum = (kind: Component["kind"]) =>
    (plan.pots[pot]?.components ?? []).filter((part) => part.kind === kind).reduce((all, part) => all + (facts.weighed[partKey(pot, part.id)]?.mg ?? 0), 0);
  const [wax, oil] = [sum("wax"), sum("fragrance")];
  return wax > 0 && oil > 0 ? (oil / wax) * 100 : null;
}

/** What a record would lack if it were closed now, in a maker's words; empty where nothing is missing. */
export function missingToClose(plan: BatchPlan, facts: BatchFacts, now: string): string[] {
  const { times } = phaseAt(plan, facts, now);
  const missing = progress(plan, facts)
    .steps.filter((step) => step.entry !== null && !step.done)
    .map((step) => step.name);
  if (times && Date.parse(now) < Date.parse(times.testFrom)) missing.push("minimum cure");
  if (!facts.lookedAt) missing.push("look-over");
  return missing;
}
