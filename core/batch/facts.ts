import type { Flaw, SeenFlaw } from "../defects/defects";
import type { Draw, EventOf } from "../log/log";
import type { CentiCelsius } from "../units/temperature";
import type { JarFate } from "./jars";
import type { BatchPlan } from "./plan";

/** A reading as it is kept for pictures: seconds after the start, hundredths of °C, the place of its act and of its instrument in their lists (−1: none). */
export type CurvePoint = [after: number, celsius: number, act: number, tool: number];

/** What follows from the entries of a batch, whatever the clock says. Bounded in size: a day of readings a second keeps the shape of its curve. */
export interface BatchFacts {
  format: number;
  /** How many entries count. */
  standing: number;
  startedAt: string;
  /** When the newest counting entry happened. */
  lastAt: string;
  /** By "pot:component": what was weighed, together. */
  weighed: Record<string, { mg: number; at: string; n: number }>;
  counted: Record<string, { n: number; at: string }>;
  /** Targets that were set anew after something was weighed too much, by "pot:component". */
  targets: Record<string, number>;
  /** The newest reading for each act; under "" those for none. */
  reads: Record<string, { celsius: CentiCelsius; at: string; instrumentId: string | null; n: number }>;
  curve: { acts: string[]; tools: string[]; points: CurvePoint[]; every: number; skipped: number };
  /** Time spent above the ceiling: since when, how long before, how often, how hot. */
  over: { since: string | null; seconds: number; times: number; peak: CentiCelsius | null };
  /** Acts that were marked done, and when. */
  did: Record<string, { at: string; seconds?: number; note?: string; hard?: boolean }>;
  /** Put back on the heat, and not yet read inside a range since. */
  onHeat: string | null;
  pours: Record<string, Poured>;
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
  /** Jars as they were looked at, and how often a look-over was finished. */
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
  /** Where the jars stand now, and whether they ever stood in the sun or in a draught. */
  stands: { at: string; shelf: string } | null;
  stood: { sun: boolean; draught: boolean } | null;
  rooms: { at: string; mean: CentiCelsius; low: CentiCelsius; high: CentiCelsius; readings: number }[];
  smells: { eventId: string; at: string; personId: string | null; score: number; room: string }[];
  fates: {
    eventId: string;
    at: string;
    product: string;
    jars: number;
    from: JarFate;
    to: JarFate;
    whom: string;
    early?: string | undefined;
    /** The pack run that they went into. */
    packing?: string;
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
/** What became of the wicks at the pour. */
export const WICKS_WERE = ["left alone", "poured onto", "pulled aside"] as const;
export type WicksWere = (typeof WICKS_WERE)[number];
export const WARMED = ["no", "yes", "oven", "water", "heat gun", "microwave", "warm room"] as const;
export type Warmed = (typeof WARMED)[number];

/** Raised where the folding changes: kept facts of an older format are worked out anew. */
export const FACTS_FORMAT = 7;

export const firstFacts = (_plan: BatchPlan, start: EventOf): BatchFacts => ({
  format: FACTS_FORMAT,
  standing: 1,
  startedAt: start.happenedAt,
  lastAt: start.happenedAt,
  weighed: {},
  counted: {},
  targets: {},
  reads: {},
  curve: { acts: [], tools: [], points: [], every: 1, skipped: 0 },
  over: { since: null, seconds: 0, times: 0, peak: null },
  did: {},
  onHeat: null,
  pours: {},
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
  fates: [],
  released: null,
  closed: null,
  abandoned: null,
  drawn: {},
});

export const partKey = (pot: number, componentId: string): string => `${pot}:${componentId}`;
export const targetOf = (facts: Pick<BatchFacts, "targets">, pot: number, part: { id: string; mg: number }): number =>
  facts.targets[partKey(pot, part.id)] ?? part.mg;

/** The most points a curve keeps; beyond it every other one goes, and from then on every other one is kept. */
const MOST_POINTS = 200;

/** Puts a reading on the curve. The first, the newest and those above the ceiling's last peak stay; others thin out as they grow many. */
export function putOnCurve(facts: BatchFacts, at: string, celsius: CentiCelsius, act: string | null, tool: string | null): void {
  const { curve } = facts;
  const place = (list: string[], name: string | null) => {
    if (name === null) return -1;
    const found = list.indexOf(name);
    return found >= 0 ? found : list.push(name) - 1;
  };
  const point: CurvePoint = [Math.round((Date.parse(at) - Date.parse(facts.startedAt)) / 1_000), celsius, place(curve.acts, act), place(curve.tools, tool)];
  // Between two that are kept, the newest stands in, so that the curve always ends where the pot is.
  if (curve.skipped > 0) curve.points.pop();
  curve.points.push(point);
  curve.skipped = (curve.skipped + 1) % curve.every;
  if (curve.points.length > MOST_POINTS) {
    const newest = curve.points.length - 1;
    curve.points = curve.points.filter((one, index) => index % 2 === 0 || index === newest || one[2] !== curve.points[index - 1]?.[2]);
    curve.every *= 2;
    curve.skipped = 0;
  }
}

export interface CurveReading {
  at: string;
  celsius: CentiCelsius;
  act: string | null;
  instrumentId: string | null;
}
/** The curve as readings, in order of time. */
export function readingsOf(facts: Pick<BatchFacts, "curve" | "startedAt">): CurveReading[] {
  const { acts, tools, points } = facts.curve;
  const from = Date.parse(facts.startedAt);
  return points
    .map(([after, celsius, act, tool]) => ({
      at: new Date(from + after * 1_000).toISOString(),
      celsius,
      act: acts[act] ?? null,
      instrumentId: tools[tool] ?? null,
    }))
    .sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
}

/** What a pour takes from the shelf beside the wax: bodies and wicks of what was not filled before. */
export type PourDraw = Draw;
