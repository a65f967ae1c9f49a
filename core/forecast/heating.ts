import type { Reached } from "./cooling";
import { halfInterval } from "./interval";
import type { PotReading } from "./law";
import { leastSquares } from "./least-squares";

/** A pot on the heat rises towards what its burner would bring it to: the rise slows as it comes nearer. */
interface HeatingLaw {
  celsius: number;
  from: number;
  /** °C that it would come to. */
  towards: number;
  /** Minutes in which the distance falls to a third. */
  minutes: number;
}

/** What is thought before anything was read: towards 120 °C, give or take 35, in half an hour, give or take a factor of two. Assumptions, no source. */
const TOWARDS = { usual: 120, spread: 35 };
const MINUTES = { usual: 30, spread: 0.7 };
const NOISE = 0.8;
/** Heat that is turned up or down, or lumps that still melt, bend it: so much of the time that is left. */
const OF_TIME_LEFT = 0.12;

const lawOf = (p: readonly number[], from: number): HeatingLaw => ({
  celsius: p[0] as number,
  from,
  towards: p[1] as number,
  minutes: Math.exp(p[2] as number),
});
const celsiusAt = ({ celsius, from, towards, minutes }: HeatingLaw, minute: number): number =>
  towards - (towards - celsius) * Math.exp(-(minute - from) / minutes);
const minuteOf = ({ celsius, from, towards, minutes }: HeatingLaw, target: number): number | null =>
  target >= towards ? null : from + minutes * Math.log((towards - celsius) / (towards - target));

/** Returns when a pot that is being heated reaches a temperature, with its 80 % interval; null if it never would. */
export function heatedAt(readings: readonly PotReading[], target: number, now: number): (Reached & { noise: number }) | null {
  const from = readings[0]?.minute ?? 0;
  const misses = (p: readonly number[]) => readings.map((reading) => celsiusAt(lawOf(p, from), reading.minute) - reading.celsius);
  const { parameters, covariance } = leastSquares(
    (p) => [
      ...misses(p).map((misse) => misse / NOISE),
      ((p[1] as number) - TOWARDS.usual) / TOWARDS.spread,
      ((p[2] as number) - Math.log(MINUTES.usual)) / MINUTES.spread,
    ],
    [readings[0]?.celsius ?? 20, TOWARDS.usual, Math.log(MINUTES.usual)],
  );
  const minute = minuteOf(lawOf(parameters, from), target);
  if (minute === null || !Number.isFinite(minute)) return null;
  const spread = halfInterval((other) => minuteOf(lawOf(other, from), target), parameters, covariance, OF_TIME_LEFT * Math.max(0, minute - now));
  const rms = Math.sqrt(misses(parameters).reduce((sum, value) => sum + value * value, 0) / Math.max(1, readings.length));
  return { minute, low: minute - spread, high: minute + spread, noise: rms };
}
