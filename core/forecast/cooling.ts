import { median } from "../statistics/mean";
import { halfInterval, standardDeviation } from "./interval";
import { ASSUMED, AT, type CoolingLaw, excessAt, minuteOf, type PotReading, rateOf, USUAL_BEND, type Usual } from "./law";
import { leastSquares } from "./least-squares";

/** Pots in moving air bend less than free convection makes them, pots that radiate much bend more. */
const SPREAD_OF_BEND = 0.13;
/** A reading of a stirred pot is off by about so much, °C: common practice, no source. */
const USUAL_NOISE = 0.18;
/** Readings are held against one another as if each were off by so much, °C, so that one misread digit does not bend the law towards it. */
const NOISE_ALLOWED = 0.4;
/** As if the usual noise had been seen in so many readings. */
const WEIGHT_OF_NOISE = 4;

export interface CoolingFit {
  law: CoolingLaw;
  /** Of excess, ln rate, bend. */
  covariance: number[][];
  /** °C, root of the mean square by which readings miss the law. */
  noise: number;
  /** Readings that were left out, by their place. */
  suspects: number[];
}

/** Runs of one workshop differ from one another by at least so much, as a logarithm: pitchers, draughts. An assumption, no source. */
const LEAST_SPREAD = 0.12;

/** What is usual in a workshop, from how its earlier pots cooled: each by the minutes for a kilogram. The more there are, the less what is assumed counts. */
export function usualFrom(minutes: readonly number[]): Usual | null {
  if (minutes.length === 0) return null;
  const logs = minutes.map(Math.log);
  const mean = logs.reduce((sum, one) => sum + one, 0) / logs.length;
  const seen = logs.length > 2 ? Math.sqrt(logs.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (logs.length - 1)) : 0;
  const between = Math.max(LEAST_SPREAD, seen);
  const [weight, assumed] = [logs.length / between ** 2, 1 / ASSUMED.spread ** 2];
  const middle = (mean * weight + Math.log(ASSUMED.minutes) * assumed) / (weight + assumed);
  return { minutes: Math.exp(middle), spread: Math.sqrt(between ** 2 + 1 / (weight + assumed)) };
}

/** Minutes in which a kilogram would cool as a fitted pot of so many grams did. */
export const minutesPerKg = (law: Pick<CoolingLaw, "rate">, massG: number): number => AT / (law.rate * Math.cbrt(massG / 1_000));

const lawOf = (p: readonly number[], from: number): CoolingLaw => ({ excess: p[0] as number, from, rate: Math.exp(p[1] as number), bend: p[2] as number });

function fitOnce(
  readings: readonly PotReading[],
  room: number,
  massG: number,
  noise: number,
  usual: Usual,
): { law: CoolingLaw; covariance: number[][]; misses: number[] } {
  const from = readings[0]?.minute ?? 0;
  const rate = Math.log(rateOf(usual, massG));
  const first = Math.max(1, (readings[0]?.celsius ?? room) - room);
  const misses = (p: readonly number[]) => readings.map((one) => excessAt(lawOf(p, from), one.minute) + room - one.celsius);
  const { parameters, covariance } = leastSquares(
    (p) => [
      ...misses(p).map((one) => (Number.isFinite(one) ? one / noise : 1e6)),
      ((p[1] as number) - rate) / usual.spread,
      ((p[2] as number) - USUAL_BEND) / SPREAD_OF_BEND,
    ],
    [first, rate, USUAL_BEND],
  );
  return { law: lawOf(parameters, from), covariance, misses: misses(parameters) };
}

/** A reading further off than so many usual misses, and than so many °C, is asked about and not used. */
const SUSPECT_MISSES = 4;
const SUSPECT_CELSIUS = 1.5;

/** A newest reading that a few others leave no room for: further off than so many standard deviations, and than so many °C. */
const STRAYED_SPREADS = 4;
const STRAYED_CELSIUS = 6;

function strayed(readings: readonly PotReading[], room: number, massG: number, usual: Usual): boolean {
  const newest = readings.at(-1) as PotReading;
  const { law, covariance } = fitOnce(readings.slice(0, -1), room, massG, NOISE_ALLOWED, usual);
  const of = (p: readonly number[]) => excessAt(lawOf(p, law.from), newest.minute);
  const spread = standardDeviation(of, [law.excess, Math.log(law.rate), law.bend], covariance, NOISE_ALLOWED);
  return Math.abs(excessAt(law, newest.minute) + room - newest.celsius) > Math.max(STRAYED_CELSIUS, STRAYED_SPREADS * spread);
}

/** The place of the reading that the others leave least room for, by what they say without it; −1 where all fit. */
function oddest(used: readonly PotReading[], room: number, massG: number, usual: Usual, all: boolean): number {
  // Of two or three only the newest can be told to be odd.
  if (used.length < 4) return all && used.length >= 2 && strayed(used, room, massG, usual) ? used.length - 1 : -1;
  let worst = -1;
  let by = 0;
  for (const [n, one] of used.entries()) {
    const alone = fitOnce(
      used.filter((_, m) => m !== n),
      room,
      massG,
      NOISE_ALLOWED,
      usual,
    );
    const spread = Math.max(NOISE_ALLOWED / 1.5, 1.4826 * median(alone.misses.map(Math.abs)));
    const miss = Math.abs(excessAt(alone.law, one.minute) + room - one.celsius);
    // At the ends the law is guessed beyond what was read, so that more is allowed.
    const allowed = n === 0 || n === used.length - 1 ? 1.6 : 1;
    if (miss > allowed * Math.max(SUSPECT_CELSIUS, SUSPECT_MISSES * spread) && miss / spread > by) {
      by = miss / spread;
      worst = n;
    }
  }
  return worst;
}

/**
 * The law that readings of one cooling follow, with what is known of the mass; what cannot belong to it is left out and named. One
 * reading alone gives what is usual. Newest last, minutes rising.
 */
export function fitCooling(readings: readonly PotReading[], room: number, massG = 1_000, usual: Usual = ASSUMED): CoolingFit {
  let kept = readings.map((_, at) => at);
  for (;;) {
    const used = kept.map((at) => readings[at] as PotReading);
    const { misses } = fitOnce(used, room, massG, USUAL_NOISE, usual);
    const seen = misses.reduce((sum, one) => sum + one * one, 0);
    const noise = Math.sqrt((seen + WEIGHT_OF_NOISE * USUAL_NOISE ** 2) / (Math.max(0, used.length - 2) + WEIGHT_OF_NOISE));
    const worst = oddest(used, room, massG, usual, used.length === readings.length);
    if (worst >= 0 && (used.length < 4 || kept.length > Math.max(3, readings.length * 0.6))) {
      kept = kept.filter((_, n) => n !== worst);
      continue;
    }
    const last = fitOnce(used, room, massG, noise, usual);
    return { law: last.law, covariance: last.covariance, noise, suspects: readings.flatMap((_, at) => (kept.includes(at) ? [] : [at])) };
  }
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

/** When a pot reaches a temperature, with its 80 % interval; null where it never does. `now` is the minute from which time is left. */
export function reachedAt({ law, covariance }: Pick<CoolingFit, "law" | "covariance">, room: number, celsius: number, now: number): Reached | null {
  const at = minuteOf(law, celsius - room);
  if (at === null || !Number.isFinite(at)) return null;
  const p = [law.excess, Math.log(law.rate), law.bend];
  const left = Math.max(0, at - now);
  const off = left * (OF_TIME_LEFT + OF_TIME_UNREAD * Math.min(4, left / Math.max(3, now - law.from)));
  const spread = halfInterval((other) => minuteOf(lawOf(other, law.from), celsius - room), p, covariance, off);
  return { minute: at, low: at - spread, high: at + spread };
}
