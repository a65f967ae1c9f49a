import { CAPACITY, mixed } from "../forecast/mixing";
import { randomFrom } from "../random";
import type { Message } from "./line";

/** J/(kg·K) from kJ/(kg·K). */
const JOULES = 1_000;
const KELVIN = 273.15;
const STEFAN_BOLTZMANN = 5.670374e-8;

/**
 * A pot that is simulated: the wax as a core and a rim that pass heat to one another, faster while it is stirred, in a pitcher that
 * takes it from the heat and loses it to the room by free convection and radiation. Another model than the one that is forecast with.
 * Its figures are assumptions, no source.
 */
export class SimulatedPot {
  readonly #random: () => number;
  /** °C of the wax in the middle and at the rim, and of the pitcher. */
  #core: number;
  #rim: number;
  #metal: number;
  #waxG: number;
  #oilG = 0;
  #heat = false;
  /** Seconds for which it is still mixed by the last stirring. */
  #stirred = 0;

  constructor(
    readonly room = 21,
    massG = 1_200,
    seed = 1,
    celsius = room,
  ) {
    this.#random = randomFrom(seed);
    this.#waxG = massG;
    this.#core = celsius;
    this.#rim = celsius;
    this.#metal = celsius;
  }

  get massG(): number {
    return this.#waxG + this.#oilG;
  }
  /** °C that a stirred pot would have. */
  get mean(): number {
    return (this.#core + this.#rim) / 2;
  }
  /** °C where a probe stands that somebody left in the pot: nearer to the rim, where it is uneven. */
  get atProbe(): number {
    return 0.35 * this.#core + 0.65 * this.#rim;
  }

  /** Does what is said to it as a line: "HEAT 1", "HEAT 0", "STIR", "OIL 144" (grams). False where it is nothing that can be done. */
  told(line: string): boolean {
    const [what, figure = "0"] = line.trim().split(" ");
    const value = Number(figure);
    if (!Number.isFinite(value)) return false;
    if (what === "HEAT") this.heat(value > 0);
    else if (what === "STIR") this.stir();
    else if (what === "OIL") this.add(value);
    else return false;
    return true;
  }
  heat(on: boolean): void {
    this.#heat = on;
  }
  stir(): void {
    this.#stirred = 20;
  }
  /** Cool oil in: it sinks into the core until it is stirred. */
  add(grams: number, celsius = this.room): void {
    if (!(grams > 0)) return;
    const half = this.massG / 2;
    this.#core = mixed([
      { massG: half, celsius: this.#core, capacity: CAPACITY.wax },
      { massG: grams, celsius, capacity: CAPACITY.oil },
    ]);
    this.#oilG += grams;
  }

  /** Goes on by so many seconds. */
  step(seconds: number): void {
    for (let left = seconds; left > 0; left -= 1) this.#second(Math.min(1, left));
  }

  #second(dt: number): void {
    const half = (this.massG / 2_000) * CAPACITY.wax * JOULES;
    const metal = 0.35 * 0.9 * JOULES;
    const area = 0.055 * Math.cbrt(this.massG / 1_000) ** 2;
    const excess = this.#metal - this.room;
    // Nusselt's number of a standing wall goes with the fourth root of the difference (McAdams, from memory); steel shines little.
    const lost =
      area * excess * (1.4 * Math.max(0.1, Math.abs(excess)) ** 0.25) +
      0.3 * STEFAN_BOLTZMANN * area * ((this.#metal + KELVIN) ** 4 - (this.room + KELVIN) ** 4);
    // A water bath brings so much, and less as the pitcher comes near to boiling water.
    const given = this.#heat ? Math.max(0, 9 * (101 - this.#metal)) : 0;
    const mixing = this.#stirred > 0 ? 120 : 6 + 2 * this.#random();
    const [toRim, toCore] = [14 * (this.#metal - this.#rim), mixing * (this.#rim - this.#core)];
    this.#metal += ((given - lost - toRim) * dt) / metal;
    this.#rim += ((toRim - toCore) * dt) / half;
    this.#core += (toCore * dt) / half;
    this.#stirred = Math.max(0, this.#stirred - dt);
  }
}

/** A probe in a pot: it lags, is noisy, drifts a little, and has a cable that is loose now and then. */
export class SimulatedProbe {
  readonly #random: () => number;
  #shows: number;
  #before: number;
  #drift = 0;
  #open = 0;

  constructor(
    readonly pot: SimulatedPot,
    seed = 7,
    /** How often a second the cable comes loose. */
    readonly loose = 1 / 900,
  ) {
    this.#random = randomFrom(seed);
    this.#shows = pot.atProbe;
    this.#before = this.#shows;
  }

  /** Goes on by so many seconds and says what it shows. */
  read(seconds: number): Message {
    this.#drift += (this.#random() - 0.5) * 0.004 * Math.sqrt(seconds);
    this.#before = this.#shows;
    // Three seconds until it has taken two thirds of a step.
    this.#shows += (this.pot.atProbe - this.#shows) * (1 - Math.exp(-seconds / 3));
    if (this.#open <= 0 && this.#random() < this.loose * seconds) this.#open = 2 + this.#random() * 4;
    this.#open -= seconds;
    if (this.#open > 0) return { is: "fault", of: "thermometer" };
    const noise = (this.#random() + this.#random() + this.#random() - 1.5) * 0.16;
    return {
      is: "temperature",
      celsius: Math.round((this.#shows + this.#drift + noise) * 100),
      settled: Math.abs(this.#shows - this.#before) < 0.08 * Math.max(1, seconds),
    };
  }
}

/** A scale: what lies on it less its tare, after it has settled; more than it can weigh is no weight. */
export class SimulatedScale {
  readonly #random: () => number;
  #load = 0;
  #shows = 0;
  #tare = 0;

  constructor(
    readonly capacityG = 5_000,
    readonly resolutionG = 0.1,
    seed = 11,
  ) {
    this.#random = randomFrom(seed);
  }

  /** Does what is said to it as a line: "PUT 127" (grams, also less than none), "Z" to be tared. False where it is nothing that can be done. */
  told(line: string): boolean {
    const [what, figure = "0"] = line.trim().split(" ");
    const grams = Number(figure);
    if (!Number.isFinite(grams)) return false;
    if (what === "PUT") this.put(grams);
    else if (what === "Z") this.tare();
    else return false;
    return true;
  }
  /** Puts grams on, or takes them off. */
  put(grams: number): void {
    this.#load = Math.max(0, this.#load + grams);
  }
  tare(): void {
    this.#tare = this.#load;
  }

  read(seconds: number): Message {
    this.#shows += (this.#load - this.#shows) * (1 - Math.exp(-seconds / 0.7));
    if (this.#load > this.capacityG) return { is: "fault", of: "scale" };
    const off = this.#load - this.#shows;
    const noise = (this.#random() - 0.5) * this.resolutionG * 0.6;
    const grams = Math.round((this.#shows - this.#tare + noise) / this.resolutionG) * this.resolutionG;
    return { is: "weight", mg: Math.round(grams * 1_000), settled: Math.abs(off) < this.resolutionG };
  }
}
