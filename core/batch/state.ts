import type { Flaw, SeenFlaw } from "../defects/schema";
import type { EventOf, StockDraw } from "../log/log";
import type { CentiCelsius } from "../units/temperature";
import type { Cue } from "./cues";
import type { JarStatus } from "./jar-status";
import type { MeltMethod } from "./melt-method";
import type { BatchPlan } from "./plan";

/** A reading as it is kept for pictures: seconds after the start, hundredths of °C, the place of its step and of its instrument in their lists (−1: none). */
export type CurvePoint = [after: number, celsius: number, step: number, tool: number];

/**
 * The state that follows from the entries of a batch, independent of the clock. Its size is bounded: readings taken each second for a day
 * are thinned to the shape of their curve.
 */
export interface BatchState {
  format: number;
  /** How many entries count. */
  effectiveEvents: number;
  startedAt: string;
  /** When the newest counting entry happened. */
  lastAt: string;
  /** By "pot:component": what was weighed, together. */
  weighed: Record<string, { mg: number; at: string; n: number }>;
  counted: Record<string, { n: number; at: string }>;
  /** Targets that were set anew after something was weighed too much, by "pot:component". */
  targets: Record<string, number>;
  /** The newest reading for each step; under "" those for none. */
  reads: Record<string, { celsius: CentiCelsius; at: string; instrumentId: string | null; n: number }>;
  curve: { steps: string[]; tools: string[]; points: CurvePoint[]; every: number; skipped: number };
  /** Time spent above the ceiling: since when, how long before, how often, how hot. */
  over: { since: string | null; seconds: number; times: number; peak: CentiCelsius | null };
  /** Steps with a range that were judged without a thermometer, and by what. */
  observed: Record<string, { at: string; cues: readonly Cue[] }>;
  /** How the wax of each pot was melted, by the place of the pot; `water` says whether water got in, null where nobody looked. */
  melted: Record<number, { at: string; how: MeltMethod; water: boolean | null }>;
  /** Rests of pots that were taken as pots of their own, by step; `mg` is what the rest came to. */
  splits: Record<string, { at: string; pot: number; mg: number; isWeighed: boolean }>;
  /** Steps that were marked done, and when. */
  did: Record<string, { at: string; seconds?: number; note?: string; hard?: boolean }>;
  /** Put back on the heat, and not yet read inside a range since. */
  onHeat: string | null;
  pours: Record<string, Poured>;
  /** Vessels that were swapped for others before they were filled. */
  swaps: { eventId: string; at: string; product: string; jars: number; reason: string }[];
  /** What was looked at before pouring. */
  prepared: { at: string; checks: readonly string[] } | null;
  /** Wax that went elsewhere than into the jars, or came from another pot. */
  moved: {
    eventId: string;
    at: string;
    pot: number;
    how: string;
    mg: number | null;
    other: number | null;
    again?: string | undefined;
    backMg?: number | undefined;
  }[];
  /** What was lost of a component before the pot was poured, by "pot:component": milligrams, or drops and pieces of what is counted. Not in `weighed` any more. */
  lost: Record<string, number>;
  flaws: { eventId: string; at: string; flaw: Flaw }[];
  /** Jars as they were looked at, and how often an inspection was finished. */
  seen: { eventId: string; at: string; product: string; jars: number; flaws: readonly SeenFlaw[]; round: number }[];
  rounds: number;
  lookedAt: string | null;
  repairs: {
    eventId: string;
    at: string;
    product: string;
    defect: string;
    jars: number;
    how: string;
    mg: number | null;
    /** On how many it held, at a second look. */
    held: number | null;
    checkedAt: string | null;
  }[];
  /** Where the jars stand now, and whether they ever stood in the sun or in a draft. */
  stands: { at: string; shelf: string } | null;
  stood: { sun: boolean; draft: boolean } | null;
  rooms: { at: string; mean: CentiCelsius; low: CentiCelsius; high: CentiCelsius; readings: number }[];
  smells: { eventId: string; at: string; personId: string | null; score: number; room: string }[];
  jarStatuses: {
    eventId: string;
    at: string;
    product: string;
    jars: number;
    from: JarStatus;
    to: JarStatus;
    whom: string;
    early?: string | undefined;
    /** The pack run that they went into. */
    packRun?: string;
  }[];
  /** The note says why it was released though no burn test of it was recorded. */
  released: { at: string; eventId: string; note?: string } | null;
  closed: { at: string; missing: string[]; eventId: string } | null;
  abandoned: { at: string; why: string; wax: "kept" | "thrown away"; mg: number | null; eventId: string } | null;
  drawn: Record<string, { amount: number; at: string }>;
}

export interface Poured {
  at: string;
  personId: string | null;
  filled: { product: string; count: number; weightsMg?: number[] | undefined }[];
  leftMg: number | null;
  roomCelsius: CentiCelsius | null;
  warmed: Warmed | null;
  /** How it was poured, so far as somebody said. */
  pace?: Pace | undefined;
  tapped?: boolean | undefined;
  wicksWere?: WicksWere | undefined;
}
export const PACES = ["slowly", "evenly", "fast"] as const;
export type Pace = (typeof PACES)[number];
/** What was done with the wicks at the pour. */
export const WICKS_WERE = ["left alone", "poured onto", "pulled aside"] as const;
export type WicksWere = (typeof WICKS_WERE)[number];
export const WARMED = ["no", "yes", "oven", "water", "heat gun", "microwave", "warm room"] as const;
export type Warmed = (typeof WARMED)[number];
export const WARMED_WORDS: Record<Warmed, string> = {
  no: "not warmed",
  yes: "warmed, not said how",
  oven: "in the oven",
  water: "in warm water",
  "heat gun": "with a heat gun",
  microwave: "in a microwave",
  "warm room": "in a warm room",
};

/** Version of the stored state. Raise it when the state changes: older states are recalculated when the program starts. */
export const STATE_VERSION = 12;

export const initialState = (_plan: BatchPlan, start: EventOf): BatchState => ({
  format: STATE_VERSION,
  effectiveEvents: 1,
  startedAt: start.happenedAt,
  lastAt: start.happenedAt,
  weighed: {},
  counted: {},
  targets: {},
  reads: {},
  curve: { steps: [], tools: [], points: [], every: 1, skipped: 0 },
  over: { since: null, seconds: 0, times: 0, peak: null },
  observed: {},
  melted: {},
  splits: {},
  did: {},
  onHeat: null,
  pours: {},
  swaps: [],
  prepared: null,
  moved: [],
  lost: {},
  flaws: [],
  seen: [],
  rounds: 0,
  lookedAt: null,
  repairs: [],
  stands: null,
  stood: null,
  rooms: [],
  smells: [],
  jarStatuses: [],
  released: null,
  closed: null,
  abandoned: null,
  drawn: {},
});

export const partKey = (pot: number, componentId: string): string => `${pot}:${componentId}`;
export const targetOf = (state: Pick<BatchState, "targets">, pot: number, part: { id: string; mg: number; count?: unknown }): number =>
  part.count ? part.mg : (state.targets[partKey(pot, part.id)] ?? part.mg);

/** Returns how many drops or pieces of a dye are to be counted, with the rest of the pot set anew where that was done. */
export const countedTarget = (state: Pick<BatchState, "targets">, pot: number, part: { id: string; count?: { n: number } | undefined }): number =>
  state.targets[partKey(pot, part.id)] ?? part.count?.n ?? 0;

/** The most points a curve keeps; beyond it every other one goes, and from then on every other one is kept. */
const MAX_POINTS = 200;

/** Puts a reading on the curve. The first, the newest and those above the ceiling's last peak stay; others thin out as they grow many. */
export function putOnCurve(state: BatchState, at: string, celsius: CentiCelsius, step: string | null, tool: string | null): void {
  const { curve } = state;
  const place = (list: string[], name: string | null) => {
    if (name === null) return -1;
    const found = list.indexOf(name);
    return found >= 0 ? found : list.push(name) - 1;
  };
  const point: CurvePoint = [Math.round((Date.parse(at) - Date.parse(state.startedAt)) / 1_000), celsius, place(curve.steps, step), place(curve.tools, tool)];
  // Between two that are kept, the newest stands in, so that the curve always ends where the pot is.
  if (curve.skipped > 0) curve.points.pop();
  curve.points.push(point);
  curve.skipped = (curve.skipped + 1) % curve.every;
  if (curve.points.length > MAX_POINTS) {
    const newest = curve.points.length - 1;
    curve.points = curve.points.filter((point, index) => index % 2 === 0 || index === newest || point[2] !== curve.points[index - 1]?.[2]);
    curve.every *= 2;
    curve.skipped = 0;
  }
}

export interface CurveReading {
  at: string;
  celsius: CentiCelsius;
  step: string | null;
  instrumentId: string | null;
}
/** Returns the curve as readings, in order of time. */
export function readingsOf(state: Pick<BatchState, "curve" | "startedAt">): CurveReading[] {
  const { steps, tools, points } = state.curve;
  const from = Date.parse(state.startedAt);
  return points
    .map(([after, celsius, step, tool]) => ({
      at: new Date(from + after * 1_000).toISOString(),
      celsius,
      step: steps[step] ?? null,
      instrumentId: tools[tool] ?? null,
    }))
    .sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
}

/** Returns what a pour draws from stock beside the wax: containers and wicks of pieces that were not filled by an earlier pour. */
export type PourDraw = StockDraw;
