import { isForContainer } from "../process/container-kind";
import { poursOf, reservePourOf, secondPourOf } from "../process/process";
import { secondsLater } from "../units/duration";
import { progress } from "./phase";
import type { BatchPlan } from "./plan";
import type { BatchState } from "./state";

/** One step of a mold after its first pour, by the clock. */
export interface MoldStep {
  key: string;
  name: string;
  done: boolean;
  /** When it was done, or when it is due: after the waits of the process, if each step before it is done as soon as it is due. */
  at: string;
  /** The latest that it should be done; null where the process says nothing. */
  until: string | null;
  /** It can be done next. */
  isNext: boolean;
}

/** Returns what is done with the molds of a batch after their first pour, in order, what is overdue as done by now at the earliest; empty where it fills none, or nothing is poured yet. */
export function moldClock(plan: BatchPlan, state: BatchState, now: string): MoldStep[] {
  if (!plan.products.some((product) => product.container === "mold")) return [];
  const [first] = poursOf(plan.process.steps).filter((pour) => state.pours[pour.id]);
  const pouredAt = first && state.pours[first.id]?.at;
  if (!first || !pouredAt) return [];
  const { prompts, open } = progress(plan, state);
  const from = prompts.findIndex((prompt) => prompt.step === first.id);
  let at = pouredAt;
  return prompts
    .slice(from + 1)
    .filter((prompt) => prompt.entry !== null && isForContainer(prompt.only, "mold"))
    .map((prompt): MoldStep => {
      const before = at;
      const due = prompt.done && prompt.at ? prompt.at : secondsLater(before, prompt.least ?? 0);
      at = prompt.done || Date.parse(due) > Date.parse(now) ? due : now;
      return {
        ...{ key: prompt.key, name: prompt.name, done: prompt.done, at: due },
        until: prompt.done || prompt.most === undefined ? null : secondsLater(before, prompt.most),
        isNext: open.some((other) => other.key === prompt.key),
      };
    });
}

/** Returns the share of the fill that a second pour took, by what each piece weighed, in millionths; null where it was not weighed, or there was none. */
export function secondPourShare(plan: BatchPlan, state: BatchState, containerId: string): number | null {
  const again = secondPourOf(plan.process.steps);
  const poured = again && state.pours[again.id];
  const product = plan.products.find((item) => item.containerId === containerId);
  const weights = poured?.filled.find((item) => item.product === product?.key)?.weightsMg ?? [];
  if (!product || weights.length === 0) return null;
  return Math.round((weights.reduce((sum, mg) => sum + mg, 0) / weights.length / product.fillMg) * 1_000_000);
}

/** Returns a process that keeps another share back for its second pour, in millionths of the fill; the same where it does not pour twice. */
export function withReserve<P extends Pick<BatchPlan["process"], "steps">>(process: P, sharePpm: number): P {
  const [first] = poursOf(process.steps);
  const again = reservePourOf(process.steps);
  if (!again || !first) return process;
  return {
    ...process,
    steps: process.steps.map((step) =>
      step.id === first.id ? { ...step, share: 1_000_000 - sharePpm } : step.id === again.id ? { ...step, share: sharePpm } : step,
    ),
  };
}
