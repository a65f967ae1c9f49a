import type { z } from "zod";
import { inUnits, METRIC } from "../units/measured-text";
import { writeTemperature } from "../units/temperature";
import { type CoolingFit, fitCooling, type KnownOfPot, type Reached, reachedAt, stepIn } from "./cooling";
import type { Step } from "./curve";
import { heatedAt } from "./heating";
import type { PotReading, TypicalCooling } from "./law";
import { CAPACITY, mixed } from "./mixing";
import type * as schema from "./schema";

export type ForecastRequest = z.output<typeof schema.forecastRequest>;
export type ForecastAnswer = z.output<typeof schema.forecastAnswer>;

/** Returns a temperature for a reason, in both systems. */
const degrees = (celsius: number): string => `{${celsius} °C|${writeTemperature(Math.round(celsius * 100), "F")}}`;

/** A pot rises while its newest readings do, by more than they are off. */
const RISES_BY = 1.5;
/** Long rows of readings are thinned: a law of three numbers needs no more. */
const MAX_FITTED = 240;

/** The stretch that says how it goes on: from the warmest on where it cools, from the coolest before the end where it is heated. */
function stretchOf(readings: readonly PotReading[]): { from: number; heating: boolean } {
  const last = readings.length - 1;
  const newest = readings[last] as PotReading;
  let low = last;
  while (low > 0 && (readings[low - 1] as PotReading).celsius <= (readings[low] as PotReading).celsius + 0.3) low--;
  if (newest.celsius - (readings[low] as PotReading).celsius >= RISES_BY && last - low >= Math.min(2, last)) return { from: low, heating: true };
  // One reading that is too warm is no turn: the second warmest near it has to agree.
  let top = 0;
  for (let at = 1; at <= last; at++) if ((readings[at] as PotReading).celsius > (readings[top] as PotReading).celsius) top = at;
  const next = readings[top + 1];
  const sharp =
    next !== undefined &&
    top > 0 &&
    (readings[top] as PotReading).celsius - next.celsius > 6 &&
    (readings[top] as PotReading).celsius - (readings[top - 1] as PotReading).celsius > 6;
  return { from: sharp ? 0 : top, heating: false };
}

/** Returns when it passed a temperature between two of its readings, newest crossing first; null if it did not. */
function passedAt(readings: readonly PotReading[], target: number): number | null {
  for (let at = readings.length - 1; at > 0; at--) {
    const [a, b] = [readings[at - 1] as PotReading, readings[at] as PotReading];
    if ((a.celsius - target) * (b.celsius - target) <= 0 && a.celsius !== b.celsius)
      return a.minute + ((a.celsius - target) / (a.celsius - b.celsius)) * (b.minute - a.minute);
  }
  return null;
}

const tenth = (value: number): number => Math.round(value * 100) / 100;

/** What else is known of a pot than its readings: that it stands on the heat, and how pots of this workshop cool. */
interface Known {
  rises?: boolean;
  usual?: TypicalCooling | null;
}

/** Returns when a pot reaches temperatures, from its readings so far. Minutes on the clock of the readings. */
export const answerForecast = (request: ForecastRequest): ForecastAnswer => {
  const answer = forecastFrom(request);
  return {
    ...answer,
    targets: answer.targets.map((target) => (target.reason === undefined ? target : { ...target, reason: inUnits(target.reason, METRIC) })),
  };
};

/** Stirring, a cool spoon and a cool pitcher take more than the heat balance says, by up to so much of it again; °C beside it. */
const STIRRING = { share: 0.6, celsius: 1 };

/** The steps in a stretch of readings where oil went in: by the heat balance, as far as it may be off. */
function stepsOf(events: ForecastRequest["events"], readings: readonly PotReading[], room: number, massG: number): Step[] {
  const [first, last] = [readings[0]?.minute ?? 0, readings.at(-1)?.minute ?? 0];
  return [...(events ?? [])]
    .sort((a, b) => a.minute - b.minute)
    .flatMap((event): Step[] => {
      if (event.minute <= first || event.minute > last) return [];
      const before = readings.findLast((each) => each.minute < event.minute)?.celsius ?? room + 1;
      const after = mixed([
        { massG: Math.max(1, massG - event.oil_g), celsius: before, capacity: CAPACITY.wax },
        { massG: event.oil_g, celsius: event.oil_c, capacity: CAPACITY.oil },
      ]);
      const [excess, left] = [Math.max(1, before - room), Math.max(0.5, after - room)];
      const by = Math.log(excess / left);
      return [{ minute: event.minute, by, spread: Math.abs(by) * STIRRING.share + STIRRING.celsius / excess }];
    });
}

/** Where nobody says from where down a wax sets: soy and most blends for containers begin near here, °C. Common practice, no source. */
const MAY_SET = 55;
/** A curve that fits better than another by so much is taken alone, in squared standard deviations. */
const CLEARLY = 6;
const LEFT_OUT = 16;

/**
 * The curves that readings may follow. Of wax whose setting point is known it is one; if it is unknown and the wax may set on the way,
 * it may, or may not: both, unless the readings tell.
 */
function fitsOf(readings: readonly PotReading[], room: number, massG: number, known: KnownOfPot, sets: number | null, coolest: number): CoolingFit[] {
  if (sets !== null) return [fitCooling(readings, room, massG, { ...known, sets: sets > room ? sets : null })];
  const plain = fitCooling(readings, room, massG, known);
  if (coolest >= MAY_SET || room >= MAY_SET) return [plain];
  const setting = fitCooling(readings, room, massG, { ...known, sets: MAY_SET });
  // A reading that had to be left out speaks against a curve more than one that misses it.
  const against = (fit: CoolingFit) => fit.misfit + LEFT_OUT * fit.suspects.length;
  if (against(setting) < against(plain) - CLEARLY) return [setting];
  return against(plain) < against(setting) - CLEARLY ? [plain] : [plain, setting];
}

/** Returns when the curves reach a temperature: between the earliest and the latest of them; null if none ever does. */
function reachedBy(fits: readonly CoolingFit[], room: number, celsius: number, now: number): Reached | null {
  const all = fits.flatMap((fit) => reachedAt(fit, room, celsius, now) ?? []);
  const [first] = all;
  return first ? { minute: first.minute, low: Math.min(...all.map((item) => item.low)), high: Math.max(...all.map((item) => item.high)) } : null;
}

/** The same with what else is known of the pot. */
export function forecastFrom(request: ForecastRequest, known: Known = {}): ForecastAnswer {
  const { ambient_c: room, mass_g: massG = 1_000, readings, targets_c: targets, events, sets_c: sets = null } = request;
  const stretch = stretchOf(readings);
  const heating = stretch.heating || known.rises === true;
  const from = stretch.heating || !known.rises ? stretch.from : readings.length - 1;
  const mine = readings.slice(from);
  const every = Math.max(1, Math.ceil(mine.length / MAX_FITTED));
  const places = mine.flatMap((_, index) => (index % every === 0 || index === mine.length - 1 ? [index] : []));
  const used = places.map((at) => mine[at] as PotReading);
  const newest = readings.at(-1) as PotReading;
  const typical = known.usual ?? undefined;
  const said = heating ? [] : stepsOf(events, used, room, massG);
  const seen = heating || said.length > 0 ? null : stepIn(used, room, massG, { usual: typical });
  const steps = seen ? [seen.step] : said;
  const fits = heating ? [] : fitsOf(used, room, massG, { usual: typical, steps }, sets, Math.min(...targets, ...used.map((potReading) => potReading.celsius)));
  const fit = fits[0] ?? null;
  const suspects = fit?.suspects.map((at) => from + (places[at] as number)) ?? [];
  const kept = readings.filter((_, index) => !suspects.includes(index));
  const now = newest.minute;
  const here = kept.at(-1)?.celsius ?? newest.celsius;
  let noise = fit?.noise ?? 0;
  const told = targets.map((celsius): ForecastAnswer["targets"][number] => {
    const passed = heating ? here >= celsius : here <= celsius;
    if (passed) {
      const at = passedAt(kept, celsius);
      return at === null
        ? { celsius, minute: null, low: null, high: null, reason: `It was ${heating ? "above" : "below"} ${degrees(celsius)} already when it was first read.` }
        : { celsius, minute: tenth(at), low: tenth(at), high: tenth(at) };
    }
    if (!heating && celsius <= room)
      return { celsius, minute: null, low: null, high: null, reason: `It never cools to ${degrees(celsius)}: the room has ${degrees(room)}.` };
    const reached = heating ? heatedAt(used, celsius, now) : reachedBy(fits, room, celsius, now);
    if (!reached) return { celsius, minute: null, low: null, high: null, reason: `With this heat it does not come to ${degrees(celsius)}.` };
    if (![reached.minute, reached.low, reached.high].every(Number.isFinite))
      return { celsius, minute: null, low: null, high: null, reason: `These readings cannot tell when it comes to ${degrees(celsius)}.` };
    if ("noise" in reached) noise = reached.noise as number;
    return { celsius, minute: tenth(Math.max(now, reached.minute)), low: tenth(Math.max(now, reached.low)), high: tenth(Math.max(now, reached.high)) };
  });
  return {
    targets: told,
    fit: {
      state: heating ? "heating" : "cooling",
      readings_used: used.length - suspects.length,
      noise_c: tenth(noise),
      rate_c_per_min: fit ? tenth(fit.law.rate) : null,
      bend: fit ? tenth(fit.law.bend) : null,
    },
    suspect_readings: suspects,
    ...(seen ? { steps: [{ minute: tenth(seen.step.minute), by_c: tenth(seen.celsius) }] } : {}),
  };
}
