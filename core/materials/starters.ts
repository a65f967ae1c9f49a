import { SECONDS } from "../units/duration";

/**
 * A wax to begin with, of each family, with the figures that are usual for it: to be compared with the supplier's sheet.
 * Loads are millionths of the wax. Families, loads and cures: common practice, no source.
 */
export interface Starter {
  family: "soy" | "coconut" | "paraffin" | "paraffin–soy" | "beeswax" | "palm" | "gel";
  name: string;
  /** Why somebody would begin with it. */
  because: string;
  maxLoadPpm: number;
  /** What to begin with. */
  loadPpm: number;
  leastCureSeconds: number;
  cureSeconds: number;
}

export const STARTERS: readonly Starter[] = [
  {
    family: "soy",
    name: "container soy",
    because: "Forgiving, and found everywhere. Tops can frost, which does no harm.",
    maxLoadPpm: 100_000,
    loadPpm: 80_000,
    leastCureSeconds: 4 * SECONDS.d,
    cureSeconds: 14 * SECONDS.d,
  },
  {
    family: "coconut",
    name: "coconut blend",
    because: "Soft and creamy, keeps rich colors. Cut it like butter.",
    maxLoadPpm: 120_000,
    loadPpm: 90_000,
    leastCureSeconds: 2 * SECONDS.d,
    cureSeconds: 14 * SECONDS.d,
  },
  {
    family: "paraffin",
    name: "jar paraffin",
    because: "Throws scent most, and cures in two days.",
    maxLoadPpm: 100_000,
    loadPpm: 80_000,
    leastCureSeconds: 24 * SECONDS.h,
    cureSeconds: 2 * SECONDS.d,
  },
  {
    family: "paraffin–soy",
    name: "paraffin–soy blend",
    because: "Between the two: smooth tops, good throw.",
    maxLoadPpm: 100_000,
    loadPpm: 80_000,
    leastCureSeconds: 3 * SECONDS.d,
    cureSeconds: 7 * SECONDS.d,
  },
  {
    family: "beeswax",
    name: "beeswax",
    because: "Smells of itself; often left without scent.",
    maxLoadPpm: 60_000,
    loadPpm: 30_000,
    leastCureSeconds: 4 * SECONDS.d,
    cureSeconds: 14 * SECONDS.d,
  },
  {
    family: "palm",
    name: "palm",
    because: "Crystals in the wax; poured hot and cooled slowly.",
    maxLoadPpm: 60_000,
    loadPpm: 50_000,
    leastCureSeconds: 3 * SECONDS.d,
    cureSeconds: 7 * SECONDS.d,
  },
  {
    family: "gel",
    name: "candle gel",
    because: "Clear. Takes little oil, and only oils of a high flash point: not the easiest to begin with.",
    maxLoadPpm: 30_000,
    loadPpm: 20_000,
    leastCureSeconds: 1 * SECONDS.d,
    cureSeconds: 2 * SECONDS.d,
  },
];

/** What to begin with of an essential oil, whatever the wax: near 4 %, and up with tests. Common practice, no source. */
export const ESSENTIAL_START_PPM = 40_000;

export const starterOf = (family: string): Starter | undefined => STARTERS.find((starter) => starter.family === family);
