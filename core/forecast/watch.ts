import { type Progress, progress } from "../batch/phase";
import type { BatchPlan } from "../batch/plan";
import { type BatchState, readingsOf, targetOf } from "../batch/state";
import { DEFAULT_ROOM } from "../day/cooling";
import type { TemperatureRange } from "../heat/range";
import { isOnBurner, poursOf, rangeName, recordedBy } from "../process/process";
import type { ForecastRequest } from "./forecast";
import { excessAt, type TypicalCooling, typicalLaw } from "./law";
import { CAPACITY, mixed } from "./mixing";

/** What a pot is on its way to, and what is known of the way. Small enough to be handed to a worker. */
export interface ForecastTarget {
  /** The range: "add", "pour". */
  name: string;
  range: TemperatureRange;
  /** When minute 0 of the readings was, as ISO text. */
  from: string;
  request: ForecastRequest;
  heating: boolean;
  /** Nothing was read since cool oil went in: the reading is worked out from the masses. */
  mixed: boolean;
  /** By how many °C that drops the pot, by the heat balance and in common practice, while no pot of the workshop tells; else null. */
  drops: { balance: number; practice: number } | null;
  usual: TypicalCooling | null;
}

/** Returns when a minute of a target's readings was, or will be, as ISO text. */
export const momentOf = ({ from }: ForecastTarget, minute: number): string => new Date(Date.parse(from) + minute * 60_000).toISOString();

export interface Foreseen {
  at: string;
  /** In four of five cases between these. */
  low: string;
  high: string;
}

/** What is forecast of a pot. */
export interface ForecastView {
  name: string;
  range: TemperatureRange;
  is: "cooling" | "heating";
  mixed: boolean;
  /** As the watch has it. */
  drops: ForecastTarget["drops"];
  /** When it was read last, and how often since it began to cool or to be heated, so far as the readings fit; 0 where it is worked out from the masses. */
  readAt: string;
  readings: number;
  /** When it comes into its range; null if it is inside already, was, or never will be. */
  enters: Foreseen | null;
  /** When it leaves it again, left alone; null if it never does or has. */
  leaves: Foreseen | null;
  /** Why nothing is forecast. */
  why: string | null;
  /** Readings that do not fit the others: when, and hundredths of °C. */
  doubts: { at: string; celsius: number }[];
}

/** From where down a wax begins to set, °C, by its family: common practice, no source. Gel thickens and gives off no heat of fusion. */
const SETS_C: Readonly<Record<string, number>> = { soy: 48, coconut: 44, paraffin: 56, "paraffin–soy": 54, beeswax: 62, palm: 57, gel: -50 };

/** Stirring oil in takes about so long, in minutes: common practice, no source. */
const STIRRED_IN = 2;

/** By how much a pot falls, in °C, when what is to be added goes in from the room and is stirred in. */
export function dropOnAdding(plan: BatchPlan, state: Pick<BatchState, "targets">, pot: number, celsius: number, room = DEFAULT_ROOM): number {
  const { components = [], baseMg = 0 } = plan.pots[pot] ?? {};
  const grams = (added: boolean) =>
    components.reduce((sum, part) => sum + ((part.kind === "fragrance" || part.kind === "dye") === added ? targetOf(state, pot, part) / 1_000 : 0), 0);
  // What a pot took over of another is hot already.
  const [wax, oil] = [grams(false) + baseMg / 1_000, grams(true)];
  if (wax <= 0) return 0;
  const after = mixed([
    { massG: wax, celsius, capacity: CAPACITY.wax },
    { massG: oil, celsius: room, capacity: CAPACITY.oil },
  ]);
  if (after <= room) return celsius - after;
  return celsius - room - excessAt(typicalLaw(after - room, 0, wax + oil), STIRRED_IN);
}

/**
 * Returns the drop that makers tell of after two minutes of stirring, in °C: 1 to 2 °C in a pot of 52 °C, and from 85 to about 71 °C. Common
 * practice, no source; a straight line between the two.
 */
export const practiceDrop = (celsius: number): number => Math.max(1.5, 1.5 + ((celsius - 52) / (85 - 52)) * (14 - 1.5));

/** A first reading after the oil went in tells of the drop within so many minutes. */
const TELLS_WITHIN = 12;
/** A drop by the heat balance of less than so many °C tells nothing of how much more it was. */
const MIN_DROP = 1;

/** By how much more than the heat balance says a pot that was poured dropped when its oil was stirred in; null if it was not read then. */
export function stirringOf(plan: BatchPlan, state: BatchState, room = DEFAULT_ROOM): number | null {
  const added = recordedBy(plan.process.steps, "add_c", 0)[0];
  const before = added && state.reads[added.id];
  if (!before || Object.keys(state.pours).length === 0) return null;
  const since = Date.parse(before.at);
  const after = readingsOf(state).find((reading) => Date.parse(reading.at) > since);
  const minutes = after ? (Date.parse(after.at) - since) / 60_000 : Number.POSITIVE_INFINITY;
  if (!after || minutes < STIRRED_IN / 2 || minutes > TELLS_WITHIN) return null;
  const balance = dropOnAdding(plan, state, 0, before.celsius / 100, room);
  if (balance < MIN_DROP) return null;
  // What it would have cooled by itself beyond the minutes of stirring that the balance has in it.
  const massG = (plan.pots[0]?.totalMg ?? 0) / 1_000;
  const there = after.celsius / 100 - room;
  const cooled = there > 1 ? excessAt(typicalLaw(there, 0, massG), Math.min(0, STIRRED_IN - minutes)) - there : 0;
  const factor = ((before.celsius - after.celsius) / 100 - cooled) / balance;
  return factor > 0.2 && factor < 8 ? factor : null;
}

/** The range a pot is on its way to: of the step that waits, or the next that has one; while it is poured, the one it was brought to. */
function watched(prompts: readonly Progress[], next: Progress): Progress | null {
  const mine = prompts.filter((prompt) => prompt.pot === next.pot && prompt.entry !== null);
  const at = mine.findIndex((prompt) => prompt.key === next.key);
  if (next.entry === "poured") return mine.slice(0, at).findLast((prompt) => prompt.range) ?? null;
  return mine.slice(at).find((prompt) => prompt.range) ?? null;
}

/** Returns what to forecast for the pot that needs attention; null if no range is ahead or nothing was read yet. */
export function forecastTarget(plan: BatchPlan, state: BatchState, typical: TypicalCooling | null = null, room = DEFAULT_ROOM): ForecastTarget | null {
  const { prompts, next } = progress(plan, state);
  const to = next && watched(prompts, next);
  if (!to?.range) return null;
  const order = plan.process.steps.map((step) => step.id);
  const potOf = (step: string | null) => plan.process.steps.find((item) => item.id === step)?.pot ?? 0;
  const mine = readingsOf(state).filter((reading) => reading.step === null || potOf(reading.step) === to.pot);
  // What was read before the oil went in, before it was put back on the heat or poured from, is another curve.
  const added = recordedBy(plan.process.steps, "add_c", to.pot).findLast((step) => order.indexOf(step.id) < order.indexOf(to.step));
  const before = added && state.reads[added.id];
  const poured = poursOf(plan.process.steps).flatMap((pour) =>
    (pour.pot ?? 0) === to.pot && state.pours[pour.id] ? [Date.parse(state.pours[pour.id]?.at ?? "")] : [],
  );
  const since = Math.max(before ? Date.parse(before.at) : 0, state.onHeat ? Date.parse(state.onHeat) : 0, ...poured);
  const after = mine.filter((reading) => Date.parse(reading.at) > since);
  const last = mine.findLast((reading) => Date.parse(reading.at) <= since);
  const massG = (plan.pots[to.pot]?.totalMg ?? 0) / 1_000;
  let points = after.map((reading) => ({ at: Date.parse(reading.at), celsius: reading.celsius / 100 }));
  let guessed = false;
  let drops: ForecastTarget["drops"] = null;
  if (state.onHeat && last && since === Date.parse(state.onHeat)) points = [{ at: since, celsius: last.celsius / 100 }, ...points];
  else if (points.length === 0 && before && poured.length === 0) {
    const there = before.celsius / 100;
    const balance = dropOnAdding(plan, state, to.pot, there, room);
    points = [{ at: Date.parse(before.at) + STIRRED_IN * 60_000, celsius: Math.max(room, there - balance * (typical?.stirring?.factor ?? 1)) }];
    guessed = true;
    if (!typical?.stirring) drops = { balance, practice: Math.max(balance, practiceDrop(there)) };
  }
  const from = points[0]?.at;
  if (from === undefined) return null;
  const sets = SETS_C[plan.pots[to.pot]?.waxFamily ?? ""];
  return {
    name: rangeName(to),
    range: to.range,
    from: new Date(from).toISOString(),
    request: {
      ambient_c: room,
      ...(massG >= 1 ? { mass_g: massG } : {}),
      readings: points.map((point) => ({ minute: (point.at - from) / 60_000, celsius: point.celsius })),
      targets_c: [to.range.high / 100, to.range.low / 100],
      ...(sets === undefined ? {} : { sets_c: sets }),
    },
    heating: isOnBurner(to) || state.onHeat !== null,
    mixed: guessed,
    drops,
    usual: typical,
  };
}

/**
 * What a forecast asks for at a moment: to wait, to take it off the heat, to look now, to go on while it is inside, to act before it
 * leaves, or to read it anew since what was forecast of the last reading is long over.
 */
export type NextCall =
  | { is: "wait"; until: string }
  | { is: "off" }
  | { is: "look" }
  | { is: "inside"; until: string | null }
  | { is: "leaving" }
  | { is: "past" }
  | { is: "stale" };

/** So long after what was forecast, in ms, a reading tells nothing of the pot any more. An assumption, no source. */
const STALE_AFTER = 2 * 3_600_000;
/** So long before it is hot enough, in ms, a pot is taken off the heat: its bottom is hotter than its wax. Common practice, no source. */
const COASTS_FOR = 2 * 60_000;

export function nextCall(forecastView: ForecastView, now: string): NextCall {
  const { enters, leaves, why } = forecastView;
  const nowMs = Date.parse(now);
  const over = Math.max(Date.parse(forecastView.readAt), ...[enters, leaves].map((foreseen) => (foreseen ? Date.parse(foreseen.at) : 0)));
  if (nowMs > over + STALE_AFTER) return { is: "stale" };
  if (enters && forecastView.is === "heating" && nowMs >= Date.parse(enters.at) - COASTS_FOR) return { is: "off" };
  if (enters) return now < enters.at ? { is: "wait", until: enters.at } : { is: "look" };
  // One reading alone does not say when: its interval may have begun with it.
  if (leaves) return now >= (forecastView.readings < 2 ? leaves.at : leaves.low) ? { is: "leaving" } : { is: "inside", until: leaves.at };
  return why ? { is: "inside", until: null } : { is: "past" };
}
