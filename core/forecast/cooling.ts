import { median } from "../statistics/mean";
import { type CurveShape, curveOf, PLAIN, type Step, startOf, unlikelihood } from "./curve";
import { halfInterval, standardDeviation } from "./interval";
import { ASSUMED, AT, type CoolingLaw, type PotReading, rateOf, type TypicalCooling } from "./law";
import { leastSquares } from "./least-squares";

/** A reading of a stirred pot is off by about so much, °C: common practice, no source. */
const USUAL_NOISE = 0.18;
/** Of few readings nothing tells how far they are off: for each that lacks to six, so much more is allowed. */
const NOISE_OF_FEW = 0.05;
const MANY = 6;
/** Readings are compared with one another as if each were off by so much, °C, so that one misread digit does not bend the law towards it. */
const NOISE_ALLOWED = 0.4;
/** As if the usual noise had been seen in so many readings. */
const WEIGHT_OF_NOISE = 4;

export interface CoolingFit {
  /** After the last step. */
  law: CoolingLaw;
  shape: CurveShape;
  /** Of the curve, as `curve.ts` has them, with their covariance. */
  parameters: number[];
  covariance: number[][];
  /** °C, root of the mean square by which readings miss the law. */
  noise: number;
  /** How many were used, and those that were left out, by their place. */
  used: number;
  suspects: number[];
  /** Sum of the squares by which readings miss the curve, each in units of its noise, and by which the curve is unlikely. */
  misfit: number;
}

/** Runs of one workshop differ from one another by at least so much, as a logarithm: pitchers, drafts. An assumption, no source. */
const MIN_SPREAD = 0.12;

/**
 * Returns what is usual in a workshop, from how its earlier pots cooled: each by the minutes for a kilogram, and
 * how much more than the heat balance says stirring in the oil dropped them. The more there are, the less what is assumed counts.
 */
export function typicalFrom(minutes: readonly number[], drops: readonly number[] = []): TypicalCooling | null {
  const stirring = drops.length > 0 ? { stirring: { factor: median(drops), pots: drops.length } } : {};
  if (minutes.length === 0) return drops.length > 0 ? { ...ASSUMED, ...stirring } : null;
  const logs = minutes.map(Math.log);
  const mean = logs.reduce((sum, value) => sum + value, 0) / logs.length;
  const seen = logs.length > 2 ? Math.sqrt(logs.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (logs.length - 1)) : 0;
  const between = Math.max(MIN_SPREAD, seen);
  const [weight, assumed] = [logs.length / between ** 2, 1 / ASSUMED.spread ** 2];
  const middle = (mean * weight + Math.log(ASSUMED.minutes) * assumed) / (weight + assumed);
  return { minutes: Math.exp(middle), spread: Math.sqrt(between ** 2 + 1 / (weight + assumed)), ...stirring };
}

/** Returns minutes in which a kilogram would cool as a fitted pot of so many grams did. */
export const minutesPerKg = (law: Pick<CoolingLaw, "rate">, massG: number): number => AT / (law.rate * Math.cbrt(massG / 1_000));

/** A pot as it is fitted: what is known of it beside its readings. */
interface Pot {
  room: number;
  massG: number;
  usual: TypicalCooling;
  steps: readonly Step[];
  /** °C; null if its setting is not reckoned with. */
  sets: number | null;
}

function fitOnce(readings: readonly PotReading[], pot: Pot, noise: number): Omit<CoolingFit, "noise" | "suspects" | "law" | "used"> & { misses: number[] } {
  const { room, massG, usual: typical, steps } = pot;
  const shape: CurveShape = { from: readings[0]?.minute ?? 0, steps, setsBelow: pot.sets === null ? null : pot.sets - room };
  const lnRate = Math.log(rateOf(typical, massG));
  const first = Math.max(1, (readings[0]?.celsius ?? room) - room);
  const misses = (p: readonly number[]) => {
    const curve = curveOf(p, shape);
    return readings.map((reading) => curve.excessAt(reading.minute) + room - reading.celsius);
  };
  const { parameters, covariance, sumOfSquares } = leastSquares(
    (p) => [...misses(p).map((misse) => (Number.isFinite(misse) ? misse / noise : 1e6)), ...unlikelihood(p, lnRate, typical.spread, shape)],
    startOf(first, lnRate, shape),
  );
  return { shape, parameters, covariance, misses: misses(parameters), misfit: sumOfSquares };
}

/** A reading further off than so many usual misses, and than so many °C, is asked about and not used. */
const SUSPECT_MISSES = 4;
const SUSPECT_CELSIUS = 1.5;

/** A newest reading that a few others leave no room for: further off than so many standard deviations, and than so many °C. */
const STRAYED_SPREADS = 4;
const STRAYED_CELSIUS = 6;

function strayed(readings: readonly PotReading[], pot: Pot): boolean {
  const newest = readings.at(-1) as PotReading;
  const { shape, parameters, covariance } = fitOnce(readings.slice(0, -1), pot, NOISE_ALLOWED);
  const of = (p: readonly number[]) => curveOf(p, shape).excessAt(newest.minute);
  const spread = standardDeviation(of, parameters, covariance, NOISE_ALLOWED);
  return Math.abs(of(parameters) + pot.room - newest.celsius) > Math.max(STRAYED_CELSIUS, STRAYED_SPREADS * spread);
}

/** Returns the place of the reading that the others leave least room for, by what they say without it; −1 where all fit. */
function oddest(used: readonly PotReading[], pot: Pot, all: boolean): number {
  // Of two or three only the newest can be told to be odd.
  if (used.length < 4) return all && used.length >= 2 && strayed(used, pot) ? used.length - 1 : -1;
  let worst = -1;
  let by = 0;
  for (const [n, potReading] of used.entries()) {
    const alone = fitOnce(
      used.filter((_, m) => m !== n),
      pot,
      NOISE_ALLOWED,
    );
    const spread = Math.max(NOISE_ALLOWED / 1.5, 1.4826 * median(alone.misses.map(Math.abs)));
    const miss = Math.abs(curveOf(alone.parameters, alone.shape).excessAt(potReading.minute) + pot.room - potReading.celsius);
    // At the ends the law is guessed beyond what was read, so that more is allowed.
    const allowed = n === 0 || n === used.length - 1 ? 1.6 : 1;
    if (miss > allowed * Math.max(SUSPECT_CELSIUS, SUSPECT_MISSES * spread) && miss / spread > by) {
      by = miss / spread;
      worst = n;
    }
  }
  return worst;
}

/** What is known of a pot beside its readings: how pots of the workshop cool, where something went in, and from where down its wax sets. */
export interface KnownOfPot {
  usual?: TypicalCooling | undefined;
  steps?: readonly Step[] | undefined;
  sets?: number | null | undefined;
}

/**
 * The curve that readings of one cooling follow, with what is known of the pot; what cannot belong to it is left out and named. One
 * reading alone gives what is usual. Newest last, minutes rising.
 */
export function fitCooling(
  readings: readonly PotReading[],
  room: number,
  massG = 1_000,
  { usual: typical = ASSUMED, steps = PLAIN.steps, sets = null }: KnownOfPot = {},
): CoolingFit {
  const pot: Pot = { room, massG, usual: typical, steps, sets };
  let kept = readings.map((_, index) => index);
  for (;;) {
    const used = kept.map((at) => readings[at] as PotReading);
    const thought = USUAL_NOISE + NOISE_OF_FEW * Math.max(0, MANY - used.length);
    const { misses } = fitOnce(used, pot, thought);
    const seen = misses.reduce((sum, value) => sum + value * value, 0);
    const noise = Math.sqrt((seen + WEIGHT_OF_NOISE * thought ** 2) / (Math.max(0, used.length - 2) + WEIGHT_OF_NOISE));
    const worst = oddest(used, pot, used.length === readings.length);
    if (worst >= 0 && (used.length < 4 || kept.length > Math.max(3, readings.length * 0.6))) {
      kept = kept.filter((_, n) => n !== worst);
      continue;
    }
    const { shape, parameters, covariance, misfit } = fitOnce(used, pot, noise);
    const suspects = readings.flatMap((_, index) => (kept.includes(index) ? [] : [index]));
    return { law: curveOf(parameters, shape).law, shape, parameters, covariance, noise, used: used.length, suspects, misfit };
  }
}

/** Steeper than so many of its neighbors' falls, and by more than so many °C at once: something cool went in. More than the most is a misread digit. */
const STEEP = 2.5;
const MIN_STEP = 2;
const MAX_STEP = 12;
/** A pot that cools rises between two readings by no more than this, °C. */
const RISEN = 1;
/** By so much a step has to better the fit, in squared standard deviations, beside what it costs. */
const BETTERED = 12;
const UNKNOWN_STEP = { by: 0.08, spread: 0.12 };

/**
 * Returns where a pot fell at once between two readings that a law of cooling leaves no room for, and by how many °C: oil went in and nobody said so.
 * Null where it did not, or where it is a single reading after too few others.
 */
export function stepIn(readings: readonly PotReading[], room: number, massG = 1_000, known: KnownOfPot = {}): { step: Step; celsius: number } | null {
  const slope = (n: number) => {
    const [a, b] = [readings[n - 1] as PotReading, readings[n] as PotReading];
    return (a.celsius - b.celsius) / Math.max(0.5, b.minute - a.minute);
  };
  const slopes = readings.slice(1).map((_, index) => slope(index + 1));
  let found: { step: Step; celsius: number; misfit: number } | null = null;
  if (readings.length < 3) return null;
  const fitWith = (steps: readonly Step[]) => fitOnce(readings, { room, massG, usual: known.usual ?? ASSUMED, steps, sets: known.sets ?? null }, NOISE_ALLOWED);
  const plain = fitWith([]);
  for (let at = 1; at < readings.length; at++) {
    const [before, after] = [readings[at - 1] as PotReading, readings[at] as PotReading];
    const others = slopes.filter((_, n) => n !== at - 1);
    const fell = before.celsius - after.celsius - Math.max(0, median(others)) * (after.minute - before.minute);
    if (fell < MIN_STEP || fell > MAX_STEP || (slopes[at - 1] as number) < STEEP * median(others)) continue;
    // Both before and after there must be something to hold it against; after a reading that rose it is that one which is odd.
    if (at < 2 && readings.length - at < 3) continue;
    if (at >= 2 && before.celsius > (readings[at - 2] as PotReading).celsius + RISEN) continue;
    const step: Step = { minute: (before.minute + after.minute) / 2, ...UNKNOWN_STEP };
    const fit = fitWith([step]);
    if (fit.misfit < (found?.misfit ?? plain.misfit - BETTERED)) found = { step, celsius: fell, misfit: fit.misfit };
  }
  return found;
}

export interface Reached {
  minute: number;
  /** Between these it lies in four of five cases. */
  low: number;
  high: number;
}

/**
 * No pot follows a law with three numbers to the letter: what the fit knows of itself is widened by a share of the time that is left,
 * the more the less of it was read. Set on curves of three other models, see `./hearth bench forecast`.
 */
const OF_TIME_LEFT = 0.005;
const OF_TIME_UNREAD = 0.015;
/** Wax does not set evenly: of the time in which it does, so much. */
const OF_SETTING = 0.15;
/** A pot with a lid cools half as fast: while few readings tell of it, the late end lies later, by a share of the time left for each reading that lacks. */
const OF_A_LID = 0.18;

/** Returns when a pot reaches a temperature, with its 80 % interval; null if it never does. `now` is the minute from which time is left. */
export function reachedAt({ shape, parameters, covariance, used }: CoolingFit, room: number, celsius: number, now: number): Reached | null {
  const minuteFor = (p: readonly number[]) => curveOf(p, shape).minuteOf(celsius - room);
  const at = minuteFor(parameters);
  if (at === null || !Number.isFinite(at)) return null;
  const left = Math.max(0, at - now);
  const unread = left * (OF_TIME_LEFT + OF_TIME_UNREAD * Math.min(4, left / Math.max(3, now - shape.from)));
  const sets = shape.setsBelow === null ? null : curveOf(parameters, shape).minuteOf(shape.setsBelow);
  const setting = sets === null ? 0 : Math.max(0, at - Math.max(now, sets)) * OF_SETTING;
  const spread = halfInterval(minuteFor, parameters, covariance, Math.hypot(unread, setting));
  // A time that is left is off by a factor: the late end lies further away than the early one.
  const late = left > 0 ? left * Math.expm1(Math.min(3, spread / left)) : spread;
  return { minute: at, low: at - spread, high: at + late + left * OF_A_LID * Math.max(0, MANY - 1 - used) };
}
