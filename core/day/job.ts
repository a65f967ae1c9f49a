import type { TemperatureRange } from "../heat/range";
import { isOnBurner, poursOf, rangeOfStep, recordedBy, type Step } from "../process/process";
import { stepTypeOf } from "../process/steps";
import type { ScheduleRequest } from "../schedule/request";
import { coolingMinutes, DEFAULT_ROOM } from "./cooling";
import type { DayPot } from "./pots";

type Job = ScheduleRequest["jobs"][number];
type TimedStep = Job["steps"][number];

/** So long a pot may stand on its burner at the heat before something is done with it. An assumption, no source. */
const HOLD_MINUTES = 15;
/** So long one that has cooled too far takes on the heat again, at most. An assumption, no source. */
const REHEAT_MINUTES = 10;

const middle = (range: TemperatureRange): number => (range.low + range.high) / 200;

export interface DayStep {
  id: string;
  name: string;
  hands: boolean;
  heats: boolean;
  pours: boolean;
  /** °C that the pot is thought to have after it; null while it is cold. */
  after: number | null;
  /** It stands on its burner until the next. */
  onBurner: boolean;
}

/** Weighing one more thing into a pot takes so long; sticking and centring the wicks of one jar. Common practice, no source. */
const WEIGH_MINUTES = 3;
const WICK_MINUTES = 0.75;

/** What the people and the heat do for one pot on its day, in order. */
export interface DayJob {
  job: Job;
  /** The verb of each step, whether hands are needed, and whether it is on the heat or pours. */
  steps: DayStep[];
  /** What else the people have to do for it, before one of its steps: in the waits, or before the day begins. */
  chores: { kind: "oils" | "wicks"; minutes: number; before: string }[];
  /** How long what is poured stands unmoved after the last step of the day, in minutes. */
  setMinutes: number;
}

/** What is known of a pot between two of its steps: °C, minutes that only pass, what of them at most, its weight and its room. */
interface Between {
  heat: number | null;
  idle: number;
  idleMost: number | null;
  massMg: number;
  room: number;
}

/** The wait from one step to the next that does something, and whether the pot stands on its burner meanwhile. */
function waitBetween(last: Step, next: Step, { heat, idle, idleMost, massMg, room }: Between): { wait: TimedStep["wait"]; onBurner: boolean } {
  const range = rangeOfStep(next);
  const falls = range !== undefined && heat !== null && !isOnBurner(next);
  if (isOnBurner(last) && (!falls || heat * 100 <= range.high)) return { wait: { min: idle, max: idle + HOLD_MINUTES }, onBurner: true };
  const most = falls ? coolingMinutes(heat, range.low / 100, massMg, room) : Number.POSITIVE_INFINITY;
  if (!falls || !Number.isFinite(most)) return { wait: { min: idle, ...(idleMost === null ? {} : { max: Math.max(idle, idleMost) }) }, onBurner: false };
  const min = Math.max(idle, Math.ceil(coolingMinutes(heat, range.high / 100, massMg, room)));
  return { wait: { min, max: Math.max(min, Math.floor(most), most < 1 ? REHEAT_MINUTES : 0) }, onBurner: false };
}

/**
 * Returns the steps of a pot's process as the job of a timetable. What only waits becomes the least of a wait; between two
 * temperatures lies the time in which the pot falls from one range to the other, at least to its upper end and at most to
 * its lower; on the burner a pot is held for a while. Hands, burner and pitcher are taken as the steps say.
 */
export function jobOfPot(pot: DayPot, room = DEFAULT_ROOM): DayJob {
  const plan = {
    pots: Array.from({ length: 8 }, () => ({ components: Array.from({ length: pot.components }, () => ({})) as never, totalMg: pot.totalMg })),
    products: [{ count: pot.jars }],
  };
  const processSteps = pot.process.steps.filter((processStep) => stepTypeOf(processStep.kind).afterPour?.(processStep).recommendedCure === undefined);
  const steps: (TimedStep & { name: string; processSteps: Step[]; after: number | null })[] = [];
  let oils = 0;
  let setMinutes = 0;
  /** °C that the pot is thought to have after its last step; null while it is cold. */
  let heat: number | null = null;
  let idle = 0;
  let idleMost: number | null = null;
  for (const [index, processStep] of processSteps.entries()) {
    const kind = stepTypeOf(processStep.kind);
    const took = kind.takes(processStep, plan);
    const { needs } = took;
    let { minutes } = took;
    const next = processSteps[index + 1];
    // The wax is weighed first; the rest while it melts.
    if (kind.weighs?.(processStep) === "all" && next && isOnBurner(next) && minutes > WEIGH_MINUTES) {
      oils += minutes - WEIGH_MINUTES;
      minutes = WEIGH_MINUTES;
    }
    if (kind.isIdle) {
      idle += minutes;
      const longest = kind.longest?.(processStep);
      if (longest !== undefined) idleMost = (idleMost ?? 0) + Math.floor(longest / 60);
      if (kind.afterPour?.(processStep).set !== undefined) setMinutes = minutes;
      continue;
    }
    const before = steps.at(-1);
    const wish = Object.fromEntries(needs.filter((need) => need !== "table").map((need) => [need, 1]));
    const last = processSteps[index - 1];
    if (before && idle === 0 && last && stepTypeOf(last.kind).joins?.includes(processStep.kind)) {
      before.minutes += minutes;
      before.processSteps.push(processStep);
      before.name = `${before.name} and ${kind.verb}`;
    } else {
      if (before) {
        const { wait, onBurner } = waitBetween(before.processSteps.at(-1) as Step, processStep, { heat, idle, idleMost, massMg: pot.totalMg, room });
        before.wait = wait;
        if (onBurner) before.keeps.push("burner");
      }
      steps.push({
        id: String(steps.length + 1),
        name: kind.verb,
        minutes,
        needs: wish,
        wait: { min: 0 },
        keeps: [],
        processSteps: [processStep],
        after: null,
      });
    }
    idle = 0;
    idleMost = null;
    const range = rangeOfStep(processStep);
    if (range) heat = kind.heat?.after?.(middle(range)) ?? middle(range);
    const step = steps.at(-1);
    if (step) step.after = heat;
  }
  // A pitcher is taken from the first to the last that needs it.
  const uses = steps.flatMap((step, index) => (step.needs.pitcher ? [index] : []));
  for (let at = uses[0] ?? steps.length; at < (uses.at(-1) ?? 0); at++) steps[at]?.keeps.push("pitcher");
  const pours = new Set<Step>(poursOf(processSteps));
  const adding = new Set(recordedBy(processSteps, "add_c"));
  const first = (of: (processStep: Step) => boolean) => steps.find((step) => step.processSteps.some(of))?.id;
  const [adds, fills] = [first((processStep) => adding.has(processStep)), first((processStep) => pours.has(processStep))];
  return {
    job: { id: pot.key, release: 0, background: false, steps: steps.map(({ processSteps: _steps, name: _name, after: _after, ...step }) => step) },
    steps: steps.map((step) => ({
      id: step.id,
      name: step.name,
      hands: (step.needs.hands ?? 0) > 0,
      heats: step.processSteps.some(isOnBurner),
      pours: step.processSteps.some((processStep) => pours.has(processStep)),
      after: step.after,
      onBurner: step.keeps.includes("burner"),
    })),
    chores: [
      ...(oils > 0 && adds ? [{ kind: "oils" as const, minutes: oils, before: adds }] : []),
      ...((pot.wicked ?? 0) > 0 && fills ? [{ kind: "wicks" as const, minutes: Math.ceil((pot.wicked ?? 0) * WICK_MINUTES), before: fills }] : []),
    ],
    setMinutes,
  };
}
