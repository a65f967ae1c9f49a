import { rangeStatus, type TemperatureRange } from "../heat/range";
import { poursOf, timesOf } from "../process/process";
import { promptsOf } from "../process/prompts";
import type { Prompt } from "../process/step-type";
import { secondsLater } from "../units/duration";
import { contentsOf } from "./contents";
import { isLost, isPoured } from "./loss";
import type { BatchPlan, Component } from "./plan";
import { type BatchState, countedTarget, partKey, readingsOf, targetOf } from "./state";

export type Phase = "pot" | "setting" | "curing" | "ready" | "closed" | "abandoned";

export interface CureTimes {
  /** Leave unmoved until then. */
  setAt: string;
  /** Tests before this mislead. */
  testFrom: string;
  /** Cured as recommended: fit to sell once its tests are passed. */
  sellFrom: string;
}

/** Returns when all pours are done: the time of the last; null before. */
export function pouredAt(plan: BatchPlan, state: Pick<BatchState, "pours">): string | null {
  let last: string | null = null;
  for (const step of poursOf(plan.process.steps)) {
    const done = state.pours[step.id];
    if (!done) return null;
    if (last === null || Date.parse(done.at) > Date.parse(last)) last = done.at;
  }
  return last;
}

/** Returns when a poured batch has set, may be tested, may be sold, by its process: what is in a kind of container, or all of it. Cure times: common practice, no source. */
export function cureTimes(poured: string, process: Parameters<typeof timesOf>[0], container?: "vessel" | "mold"): CureTimes {
  const { set, leastCure, recommendedCure } = timesOf(process, container);
  return {
    setAt: secondsLater(poured, set),
    testFrom: secondsLater(poured, Math.max(leastCure, set)),
    sellFrom: secondsLater(poured, Math.max(recommendedCure, set)),
  };
}

/** The cure of what is in one kind of container; of all of it where the kinds do not differ. */
export interface CureClock {
  of: "vessels" | "molds" | null;
  times: CureTimes;
}

/** Returns the cure of each kind of container that a batch fills, by its own steps: one clock for all where they are the same. */
export function cureClocks(plan: Pick<BatchPlan, "products" | "process">, poured: string): CureClock[] {
  const kinds = (["vessel", "mold"] as const).filter((kind) => plan.products.some((product) => product.container === kind));
  const clocks = kinds.map((kind): CureClock => ({ of: kind === "vessel" ? "vessels" : "molds", times: cureTimes(poured, plan.process, kind) }));
  const [first, second] = clocks;
  const isAlike = first && second && (["setAt", "testFrom", "sellFrom"] as const).every((key) => first.times[key] === second.times[key]);
  return isAlike || clocks.length === 1 ? clocks.slice(0, 1).map(({ times }) => ({ of: null, times })) : clocks;
}

/** One step with what has become of it. */
export interface Progress extends Prompt {
  done: boolean;
  /** When it was last worked at; null if it was not. */
  at: string | null;
  /** What of it was weighed or counted so far, and what is asked, with the rest of the pot set anew where that was done. */
  given: number;
  asked: number;
  /** For a prompt that is held in a range: since when the pot has been inside it, by the readings of its step; null if it is not. */
  since: string | null;
}

/** Since when a pot has been inside a range, by the readings of a step: the first of those in a row that ends with the newest. */
function insideSince(state: BatchState, step: string, range: TemperatureRange): string | null {
  let since: string | null = null;
  for (const reading of readingsOf(state))
    if (reading.step === step) since = rangeStatus(reading.celsius, range).is === "inside" ? (since ?? reading.at) : null;
  return since;
}

/** Weighed closely enough: within half a percent, or 1 g, of what was asked. On a small scale it is weighed in parts. */
const enough = (given: number, asked: number) => given >= asked - Math.max(asked * 0.005, Math.min(1_000, asked * 0.05));

/** When a step was last read or judged; null if it was not. */
const newestOf = (state: BatchState, step: string): string | null =>
  [state.reads[step]?.at, state.observed[step]?.at].flatMap((at) => at ?? []).sort((a, b) => Date.parse(b) - Date.parse(a))[0] ?? null;

/** Returns whether a pot is outside of the range of a step, by the newest reading there. Where no thermometer was used, the maker's judgment stands. */
function isOutside(state: BatchState, step: string, range: TemperatureRange): boolean {
  const reading = state.reads[step];
  const judged = state.observed[step];
  if (judged && (!reading || Date.parse(judged.at) >= Date.parse(reading.at))) return false;
  return rangeStatus(reading?.celsius ?? 0, range).is !== "inside";
}

function progressOf(plan: BatchPlan, prompt: Prompt, state: BatchState): Progress {
  const none = { ...prompt, done: false, at: null, given: 0, asked: 0, since: null };
  // What was lost and not weighed again is no more to be weighed once the pot is poured.
  const pouredWithout = (part: Component) => (state.lost[partKey(prompt.pot, part.id)] ?? 0) > 0 && isPoured(plan, state, prompt.pot);
  switch (prompt.entry) {
    case "weighed": {
      const part = prompt.component as Component;
      const asked = targetOf(state, prompt.pot, part);
      const got = state.weighed[partKey(prompt.pot, part.id)];
      return { ...none, done: (got !== undefined && enough(got.mg, asked)) || pouredWithout(part), at: got?.at ?? null, given: got?.mg ?? 0, asked };
    }
    case "counted": {
      const part = prompt.component as Component;
      const got = state.counted[partKey(prompt.pot, part.id)];
      const asked = countedTarget(state, prompt.pot, part);
      return { ...none, done: (got?.n ?? 0) >= asked || pouredWithout(part), at: got?.at ?? null, given: got?.n ?? 0, asked };
    }
    case "read":
      return { ...none, done: (state.reads[prompt.step] ?? state.observed[prompt.step]) !== undefined, at: newestOf(state, prompt.step) };
    case "split":
      return { ...none, done: state.splits[prompt.step] !== undefined, at: state.splits[prompt.step]?.at ?? null };
    case "poured":
      return { ...none, done: state.pours[prompt.step] !== undefined, at: state.pours[prompt.step]?.at ?? null };
    case "stirred":
    case "stepDone": {
      const since = prompt.range ? insideSince(state, prompt.step, prompt.range) : null;
      return { ...none, done: state.did[prompt.step] !== undefined, at: state.did[prompt.step]?.at ?? null, since };
    }
    default:
      return none;
  }
}

/** Returns whether two prompts are of one sequence: what is done to vessels only and what is done to molds only go on beside each other. */
const isOneSequence = (a: Prompt, b: Prompt): boolean => a.only === undefined || b.only === undefined || a.only === b.only;

/** Returns every step with what has become of it, those that can be done next, one for each sequence, and the one of them that is due first. */
export function progress(plan: BatchPlan, state: BatchState): { prompts: Progress[]; next: Progress | null; open: Progress[] } {
  const prompts = promptsOf(plan).map((prompt) => progressOf(plan, prompt, state));
  if (state.closed || state.abandoned) return { prompts, next: null, open: [] };
  const hands = prompts.filter((prompt) => prompt.entry !== null);
  // After a loss what is missing is weighed again before anything else is done with that pot.
  const again = hands.find((prompt) => !prompt.done && prompt.component !== undefined && isLost(plan, state, prompt.pot, prompt.component.id));
  if (again) return { prompts, next: again, open: [again] };
  const lastDone = hands.reduce((last, prompt, index) => (prompt.done ? index : last), -1);
  const newest = hands[lastDone];
  const isPassed = (prompt: Progress, index: number) => hands.slice(index + 1).some((later) => later.done && isOneSequence(later, prompt));
  const waiting = hands.filter((prompt, index) => !prompt.done && !isPassed(prompt, index));
  const open = waiting.filter((prompt, index) => waiting.slice(0, index).every((before) => !isOneSequence(before, prompt)));
  const due = (prompt: Progress) => Date.parse(dueOf(prompts, prompt)?.from ?? state.startedAt);
  const first = [...open].sort((a, b) => due(a) - due(b))[0] ?? null;
  // The pot has to be brought into a range before it goes on: put back on the heat, or read outside.
  if (newest?.range && (state.onHeat !== null || isOutside(state, newest.step, newest.range))) return { prompts, next: newest, open: [newest] };
  return { prompts, next: first, open };
}

/** Returns when a step may be done: after the wait that it is, or at once; null if nothing was done before. */
export function dueOf(prompts: readonly Progress[], prompt: Progress): { from: string; until: string | null } | null {
  const at = prompts.findIndex((progress) => progress.key === prompt.key);
  const before = prompt.since ?? prompts.slice(0, at).findLast((earlier) => earlier.at !== null && isOneSequence(earlier, prompt))?.at ?? null;
  if (before === null) return null;
  return { from: secondsLater(before, prompt.least ?? 0), until: prompt.most === undefined ? null : secondsLater(before, prompt.most) };
}

/** Returns the phase of a batch at a moment. The only function of a batch that depends on the clock. */
export function phaseAt(plan: BatchPlan, state: BatchState, now: string): { phase: Phase; times: CureTimes | null; pouredAt: string | null } {
  const poured = pouredAt(plan, state);
  const times = poured ? cureTimes(poured, plan.process) : null;
  const at = Date.parse(now);
  const phase: Phase = state.closed
    ? "closed"
    : state.abandoned
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

/** Returns how long a pot has been above its ceiling, in seconds, up to now. */
export const secondsAbove = (state: Pick<BatchState, "over">, now: string): number =>
  state.over.seconds + (state.over.since === null ? 0 : Math.max(0, Math.round((Date.parse(now) - Date.parse(state.over.since)) / 1_000)));

/** The load really weighed into a pot, in percent of the wax; null until both wax and fragrance are weighed. */
export function weighedLoad(plan: BatchPlan, state: Pick<BatchState, "weighed" | "counted" | "targets" | "splits">, pot = 0): number | null {
  const parts = contentsOf(plan, pot, state);
  const sum = (kind: Component["kind"]) => parts.reduce((all, part) => all + (part.kind === kind && part.isLogged ? part.mg : 0), 0);
  const [wax, oil] = [sum("wax"), sum("fragrance")];
  return wax > 0 && oil > 0 ? (oil / wax) * 100 : null;
}

/** Returns what a record would lack if it were closed now, as text for the maker; empty if nothing is missing. */
export function missingToClose(plan: BatchPlan, state: BatchState, now: string): string[] {
  const { times } = phaseAt(plan, state, now);
  const missing = progress(plan, state)
    .prompts.filter((prompt) => prompt.entry !== null && !prompt.done)
    .map((prompt) => prompt.name);
  if (times && Date.parse(now) < Date.parse(times.testFrom)) missing.push("minimum cure");
  if (!state.lookedAt) missing.push("inspection");
  return missing;
}
