import type { PotReading } from "./law";

/** A number from 0 to 1, each time another. */
type Random = () => number;

/** A curve in °C, minute by minute, over eight hours. */
type Curve = number[];

const STEP_S = 5;
const KELVIN = 273.15;
const STEFAN_BOLTZMANN = 5.67e-8;
const radiated = (celsius: number, room: number): number => STEFAN_BOLTZMANN * ((celsius + KELVIN) ** 4 - (room + KELVIN) ** 4);
const areaOf = (massG: number, random: Random): number => 0.011 * Math.cbrt(massG / 1_000) ** 2 * (3 + random() * 2);

/**
 * Returns a pot of another model than the law that is fitted: wax and pitcher as two bodies that pass heat to one another, the pitcher and the
 * top losing it by free convection and radiation.
 */
function twoBodies(random: Random, massG: number, room: number, begin: number): Curve {
  const area = areaOf(massG, random);
  const [wax, metal] = [massG * 2.5, (150 + random() * 350) * 0.9];
  const [free, gray, link] = [1.3 + random() * 0.9, 0.3 + random() * 0.6, 2 + random() * 6];
  let [inside, outside] = [begin, begin - random() * 15];
  const out: Curve = [];
  for (let second = 0; second < 8 * 3_600; second += STEP_S) {
    if (second % 60 === 0) out.push(inside);
    const wall = area * (free * Math.max(0, outside - room) ** 1.25 + gray * radiated(outside, room));
    const top = area * 0.25 * (free * Math.max(0, inside - room) ** 1.25 + 0.9 * radiated(inside, room));
    const passes = link * (inside - outside);
    inside -= ((passes + top) / wax) * STEP_S;
    outside += ((passes - wall) / metal) * STEP_S;
  }
  return out;
}

/** Returns a pot as one body whose heat capacity grows a little as it cools, losing heat by free convection and radiation, in a room that warms by it. */
function oneBody(random: Random, massG: number, room: number, begin: number): Curve {
  const area = areaOf(massG, random) * 1.25;
  const [free, gray, grows, warms] = [1.2 + random() * 1.2, 0.2 + random() * 0.7, random() * 0.004, random() * 1.5];
  let inside = begin;
  const out: Curve = [];
  for (let second = 0; second < 8 * 3_600; second += STEP_S) {
    if (second % 60 === 0) out.push(inside);
    const around = room + warms * (1 - Math.exp(-second / 5_400));
    const capacity = massG * (2.1 + grows * (begin - inside));
    inside -= ((area * (free * Math.max(0, inside - around) ** 1.25 + gray * radiated(inside, around))) / capacity) * STEP_S;
  }
  return out;
}

/**
 * Returns a pot beside a fan: moving air takes heat by a constant coefficient (Newton's law), and it radiates. The room goes up and down with
 * its heating.
 */
function movingAir(random: Random, massG: number, room: number, begin: number): Curve {
  const area = areaOf(massG, random);
  const [moved, gray, swings, period] = [5 + random() * 8, 0.3 + random() * 0.6, random() * 0.7, 1_200 + random() * 2_400];
  let inside = begin;
  const out: Curve = [];
  for (let second = 0; second < 8 * 3_600; second += STEP_S) {
    if (second % 60 === 0) out.push(inside);
    const around = room + swings * Math.sin((2 * Math.PI * second) / period);
    inside -= ((area * (moved * (inside - around) + gray * radiated(inside, around))) / (massG * 2.4)) * STEP_S;
  }
  return out;
}

export const POT_MODELS = { "two bodies": twoBodies, "one body": oneBody, "moving air": movingAir } as const;
export type PotModel = keyof typeof POT_MODELS;

/** The minute at which a curve is down to a temperature; −1 where it never is, or was from the first. */
function minuteBelow(curve: Curve, celsius: number): number {
  const below = curve.findIndex((value) => value <= celsius);
  if (below <= 0) return -1;
  const [warmer, cooler] = [curve[below - 1] as number, curve[below] as number];
  return below - (celsius - cooler) / (warmer - cooler);
}

const gauss = (random: Random): number => Math.sqrt(-2 * Math.log(random() + 1e-12)) * Math.cos(2 * Math.PI * random());

/** Returns a pot that was read every few minutes, and the temperature that is waited for with the minute at which it really comes; −1 where it never does. */
export function aCoolingPot(random: Random, many: number, model: PotModel = "two bodies") {
  const massG = 500 + random() * 2_500;
  const room = 17 + random() * 8;
  const curve = POT_MODELS[model](random, massG, room, 70 + random() * 20);
  const every = 3 + Math.floor(random() * 4);
  // Thermometers and stirring differ.
  const noise = 0.1 + random() * 0.2;
  const readings = Array.from(
    { length: many },
    (_, n): PotReading => ({ minute: n * every, celsius: Math.round(((curve[n * every] as number) + gauss(random) * noise) * 10) / 10 }),
  );
  const now = (many - 1) * every;
  const target = (curve[now] as number) - (4 + random() * 12);
  return { massG, room, readings, now, target, truth: minuteBelow(curve, target), curve };
}

/** What makes a generated test pot harder to forecast: setting wax, a lid, or cool oil added between readings. */
export const COMPLICATIONS = ["none", "setting", "lid", "oil"] as const;
export type Complication = (typeof COMPLICATIONS)[number];
/** The minute at which oil goes in. */
const OIL_AT = 6;

/**
 * Returns a pot of two bodies with a complication: wax that gives up 60 to 180 kJ/kg over 8 to 22 °C from 55 °C down; a lid that keeps most of the
 * loss at the top and some at the wall; 6 to 10 % of oil of 21 °C at minute 6. Read with errors of 0.4 °C; with its true curve.
 */
export function aComplicatedPot(random: Random, complication: Complication, many: number) {
  const massG = 400 + random() * 4_600;
  const room = 16 + random() * 10;
  const begin = 70 + random() * 20;
  const area = areaOf(massG, random);
  const [free, gray, link] = [1.3 + random() * 0.9, 0.3 + random() * 0.6, 2 + random() * 6];
  const metal = (150 + random() * 350) * 0.9;
  const capacity = 2 + random() * 0.6;
  const [latent, span] = complication === "setting" ? [60 + random() * 120, 8 + random() * 14] : [0, 1];
  const [top, wall] = complication === "lid" ? [0.1 + random() * 0.2, 0.45 + random() * 0.3] : [1, 1];
  const oilG = complication === "oil" ? massG * (0.06 + random() * 0.04) : 0;
  let [inside, outside, mass] = [begin, begin - random() * 15, massG];
  const curve: Curve = [];
  for (let second = 0; second < 14 * 3_600; second += STEP_S) {
    if (second === OIL_AT * 60 && oilG > 0) {
      inside = (mass * capacity * inside + oilG * 1.9 * 21) / (mass * capacity + oilG * 1.9) - random() * 1.5;
      mass += oilG;
    }
    if (second % 60 === 0) curve.push(inside);
    const lost = area * wall * (free * Math.max(0, outside - room) ** 1.25 + gray * radiated(outside, room));
    const above = area * 0.25 * top * (free * Math.max(0, inside - room) ** 1.25 + 0.9 * radiated(inside, room));
    const passes = link * (inside - outside);
    const setting = inside < 55 && inside > 55 - span ? latent / span : 0;
    inside -= ((passes + above) / (mass * (capacity + setting))) * STEP_S;
    outside += ((passes - lost) / metal) * STEP_S;
  }
  const every = 3 + Math.floor(random() * 3);
  const minutes = (complication === "oil" ? [0, 2, 5, ...Array.from({ length: Math.max(0, many - 3) }, (_, n) => 8 + n * every)] : []).slice(0, many);
  const times = complication === "oil" ? minutes : Array.from({ length: many }, (_, n) => n * every);
  const readings = times.map((minute): PotReading => ({ minute, celsius: Math.round(((curve[minute] as number) + gauss(random) * 0.4) * 10) / 10 }));
  /** The true minute at which it is down to a temperature; −1 where it never is. */
  const truth = (celsius: number): number => minuteBelow(curve, celsius);
  return { massG, room, readings, now: times.at(-1) as number, truth, events: oilG > 0 ? [{ minute: OIL_AT, oil_g: oilG, oil_c: 21 }] : undefined };
}
