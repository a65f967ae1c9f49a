/** A mark that a burn is held to: its value, whose it is, and whether that was from memory. */
export interface Mark {
  id: string;
  says: string;
  source: string;
  /** Known from memory: the standard itself was not at hand. */
  memory: boolean;
  /** Set by makers, not by a standard. */
  makers: boolean;
}

/** The highest flame of a container candle, in mm: ASTM F2417, 3 in (from memory). */
export const HIGHEST_FLAME_MM = 76.2;
/** Common practice, no source: a wall that no hand can hold; a pool so deep that it is too much heat, and one that spills. */
export const HOTTEST_WALL_C = 60;
export const DEEP_POOL_MM = 13;
export const UNSAFE_POOL_MM = 25;
/** A pool that comes so close to the wall is full. Common practice, no source: a glass cannot be read closer. */
export const NEAR_WALL_MM = 2;
/** The pool of a pillar stays so far from its edge. Common practice, no source, and uncertain: it may have been meant as the depth of the pool. */
export const PILLAR_EDGE_MM = 6;
/** Between these minutes a pool is full where the wick is right, by the third session. Common practice, no source. */
export const FULL_FROM = 120;
export const FULL_UNTIL = 240;
/** The bottom seen through the pool from then on is too hot. Common practice, no source. */
export const BOTTOM_FROM = 180;
/** A mushroom this early is bad; up to seven hours it is trimmed; then it is normal. Common practice, no source. */
export const EARLY_MUSHROOM = 120;
export const MIN_SESSIONS = 3;
/** Looks in the first hour mislead. Common practice, no source. */
export const MISLEADING_UNTIL = 60;
/** No session goes on for longer, in minutes. Common practice, no source. */
export const LONGEST_SESSION = 240;
/** So many checks are made in one session at most, and it lasts so many minutes. */
export const MAX_CHECKS = 24;
export const MAX_SESSION_MINUTES = 1_440;
/** Who burns says so often that somebody is there, in minutes. Common practice, no source: never an unattended flame. */
export const PRESENCE_EVERY = 30;
/** A wick is trimmed to about this, in mm. Common practice, no source; a supplier may say otherwise. */
export const TRIM_MM = { low: 3, high: 7 } as const;

/** What candles are tested for elsewhere, beside the makers' own marks. The program tests none of it for anybody: it helps to keep the record. */
export const MARKS: readonly Mark[] = [
  {
    id: "flame",
    says: "The flame of a container candle is at most 76.2 mm (3 in) high.",
    source: "ASTM F2417, Standard Specification for Fire Safety for Candles",
    memory: true,
    makers: false,
  },
  {
    id: "ignition",
    says: "Nothing but the wick burns: no secondary ignition, and no burning again after it went out.",
    source: "ASTM F2417; EN 15493 likewise",
    memory: true,
    makers: false,
  },
  {
    id: "end",
    says: "At the end of its life it goes out by itself, and nothing breaks.",
    source: "ASTM F2417; EN 15493 likewise",
    memory: true,
    makers: false,
  },
  { id: "stable", says: "It does not tip over on a slope of 10°.", source: "ASTM F2417; EN 15493 likewise", memory: true, makers: false },
  {
    id: "soot",
    says: "How much soot it gives is measured by an index, in a laboratory.",
    source: "EN 15426, Specification for sooting behaviour",
    memory: true,
    makers: false,
  },
  {
    id: "label",
    says: "The label always says: never leave a burning candle unattended; out of reach of children and pets; away from things that burn; space between burning candles.",
    source: "EN 15494, Product safety labels",
    memory: true,
    makers: false,
  },
  { id: "full", says: "By the third session the pool is full between two and four hours.", source: "common practice, no source", memory: false, makers: true },
  {
    id: "deep",
    says: `A pool deeper than ${DEEP_POOL_MM} mm within four hours is too much heat.`,
    source: "common practice, no source",
    memory: false,
    makers: true,
  },
  { id: "bottom", says: "The bottom seen through the pool after three hours is too hot.", source: "common practice, no source", memory: false, makers: true },
  {
    id: "wall",
    says: `The wall stays below ${HOTTEST_WALL_C} °C: above it too hot to hold.`,
    source: "common practice, no source",
    memory: false,
    makers: true,
  },
  {
    id: "mushroom",
    says: "A mushroom within two hours is bad, at three to four it is trimmed, at seven it is normal.",
    source: "common practice, no source",
    memory: false,
    makers: true,
  },
];

/** The caution shown beside every verdict. */
export const NO_CERTIFICATE = "Test data is not a safety certificate. Laboratories and your country's rules have the last word.";
