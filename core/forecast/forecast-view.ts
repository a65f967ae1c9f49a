import type { BatchPlan } from "../batch/plan";
import { type BatchState, readingsOf } from "../batch/state";
import { DEFAULT_ROOM } from "../day/cooling";
import { rangeStatus } from "../heat/range";
import { recordedBy } from "../process/process";
import { stepTypeOf } from "../process/steps";
import { fitCooling, minutesPerKg } from "./cooling";
import { type ForecastAnswer, forecastFrom } from "./forecast";
import { type ForecastTarget, type ForecastView, type Foreseen, momentOf } from "./watch";

/** Fewer readings, or a smaller fall in °C, tell little of how a pot cools. */
const MIN_READINGS = 4;
const MIN_FALL = 5;

/** Returns what a pot that was poured tells of how pots cool here: minutes for a kilogram; null if it was hardly read. */
export function learnedFrom(plan: BatchPlan, state: BatchState, room = DEFAULT_ROOM): number | null {
  const cooled = recordedBy(plan.process.steps, "pour_c", 0).find((step) => !stepTypeOf(step.kind).heat?.isHeld);
  const poured = Object.values(state.pours)[0];
  const massG = (plan.pots[0]?.totalMg ?? 0) / 1_000;
  if (!cooled || !poured || state.abandoned || massG < 1) return null;
  const mine = readingsOf(state).filter((reading) => reading.step === cooled.id && Date.parse(reading.at) <= Date.parse(poured.at));
  const from = Date.parse(mine[0]?.at ?? "");
  const readings = mine.map((reading) => ({ minute: (Date.parse(reading.at) - from) / 60_000, celsius: reading.celsius / 100 }));
  // One that was put back on the heat between its readings tells nothing.
  if (readings.some((reading, index) => index > 0 && reading.celsius > (readings[index - 1]?.celsius ?? 0) + 1)) return null;
  if (readings.length < MIN_READINGS || (readings[0]?.celsius ?? 0) - (readings.at(-1)?.celsius ?? 0) < MIN_FALL) return null;
  const its = poured.roomCelsius === null ? room : poured.roomCelsius / 100;
  return minutesPerKg(fitCooling(readings, its, massG).law, massG);
}

/** Returns what is forecast of a watch, as it is said. Costs a fit: from a worker, or on the server. */
export function forecastView(watch: ForecastTarget): ForecastView {
  const { name, range, request, mixed: guessed } = watch;
  const newest = request.readings.at(-1)?.celsius ?? 0;
  // On the heat and not yet inside it rises, however few readings there are.
  const known = { rises: watch.heating && newest * 100 < range.low, usual: watch.usual };
  const answer = forecastFrom(request, known);
  // Where nobody knows how far the oil dropped it, it may be as cool as common practice has it.
  const { drops } = watch;
  const cooler = drops
    ? forecastFrom(
        { ...request, readings: request.readings.map((reading) => ({ ...reading, celsius: reading.celsius + drops.balance - drops.practice })) },
        known,
      ).targets
    : [];
  const moment = (minute: number) => momentOf(watch, minute);
  const [high, low] = answer.targets as [ForecastAnswer["targets"][number], ForecastAnswer["targets"][number]];
  const rises = answer.fit.state === "heating";
  const [first, second] = rises ? [low, high] : [high, low];
  const now = request.readings.at(-1)?.minute ?? 0;
  const ahead = (item: ForecastAnswer["targets"][number]): Foreseen | null =>
    item.minute === null || item.low === null || item.high === null || item.minute < now
      ? null
      : {
          at: moment(item.minute),
          low: moment(Math.min(item.low, ...cooler.flatMap((other) => (other.celsius === item.celsius ? [other.low ?? now] : [])))),
          high: moment(item.high),
        };
  const newestFitting = request.readings.findLast((_, index) => !answer.suspect_readings.includes(index));
  const fits = newestFitting?.celsius ?? newest;
  const here = rangeStatus(Math.round(fits * 100), range);
  const isPast = rises ? here.is === "above" : here.is === "below";
  return {
    name,
    range,
    is: answer.fit.state,
    mixed: guessed,
    drops,
    readAt: moment(newestFitting?.minute ?? now),
    readings: guessed ? 0 : answer.fit.readings_used,
    enters: here.is === "inside" || isPast ? null : ahead(first),
    leaves: isPast ? null : ahead(second),
    why: here.is === "inside" || isPast ? null : (first.reason ?? null),
    doubts: answer.suspect_readings.flatMap((at) => {
      const item = request.readings[at];
      return item ? [{ at: moment(item.minute), celsius: Math.round(item.celsius * 100) }] : [];
    }),
  };
}

/** Returns what is forecast of pots, by their keys; null where nothing is ahead of a pot. Costs a fit of each: in a thread. */
export const forecastViews = <K extends string>(targets: Readonly<Record<K, ForecastTarget | null>>): Record<K, ForecastView | null> =>
  Object.fromEntries(Object.entries<ForecastTarget | null>(targets).map(([key, target]) => [key, target && forecastView(target)])) as Record<
    K,
    ForecastView | null
  >;
