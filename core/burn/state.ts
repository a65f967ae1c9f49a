import type { EventOf, LogState } from "../log/log";
import type { FlameSeen } from "./judge";
import type { TrialPlan } from "./plan";

export const AIR = ["window open", "fan", "air conditioning"] as const;
export type Air = (typeof AIR)[number];
export const MUSHROOMS = ["none", "small", "large"] as const;
export const SOOT = ["none", "black", "gray", "whitish"] as const;
export const SOOT_AT = ["rim", "wall", "smoke"] as const;
export const LEFT_ON_WALL = ["none", "thin", "thick"] as const;
export const OUT_WHY = ["protocol", "safety", "by itself", "stopped early"] as const;

/** A look as it is kept: only what was seen. Micrometers, hundredths of °C. */
export interface CheckSeen {
  id: string;
  at: string;
  poolUm?: number | undefined;
  /** How much of the wall the pool touches, in percent. */
  reached?: number | undefined;
  depthUm?: number | undefined;
  flame?: FlameSeen | undefined;
  flameUm?: number | undefined;
  mushroom?: (typeof MUSHROOMS)[number] | undefined;
  soot?: (typeof SOOT)[number] | undefined;
  sootAt?: (typeof SOOT_AT)[number] | undefined;
  wall?: number | undefined;
  onWall?: (typeof LEFT_ON_WALL)[number] | undefined;
  bottom?: boolean | undefined;
  joined?: boolean | undefined;
  elsewhere?: boolean | undefined;
  edge?: boolean | undefined;
  /** The flame of each wick of a candle with several, in their order. */
  flames?: FlameSeen[] | undefined;
  /** The workshop's own marks, from 0 to 10. */
  marks?: Record<string, number> | undefined;
  note?: string | undefined;
}
export interface BurnSession {
  id: string;
  litAt: string;
  out: { at: string; why: (typeof OUT_WHY)[number]; sign: string } | null;
  trimUm: number | null;
  air: readonly Air[];
  /** Why it was lit though it had not cured, where somebody said. */
  early: string;
  beforeMg: number | null;
  afterMg: number | null;
  checks: CheckSeen[];
}
export interface TestCandleState {
  sessions: BurnSession[];
  /** It is not burned any more, and why. */
  stopped: { at: string; why: string; id: string } | null;
}
export const THROWS = ["cold", "hot"] as const;
export interface Rating {
  id: string;
  at: string;
  scorer: string | null;
  testCandle: string;
  throw: (typeof THROWS)[number];
  room: string;
  score: number;
  /** How far it reached, and whether a window was open. */
  reachUm?: number | undefined;
  window?: boolean | undefined;
  blind: boolean;
}
export const DECISIONS = ["passed", "failed", "open"] as const;
export type Decision = (typeof DECISIONS)[number];

/** What follows from the entries of a trial. */
export interface TrialState extends LogState {
  testCandles: Record<string, TestCandleState>;
  presentAt: string | null;
  ratings: Rating[];
  /** Codes stand for the variants until then. */
  codesRevealedAt: string | null;
  /** What passed or failed; a variant that is left open is not there. */
  decided: Record<string, { at: string; verdict: Exclude<Decision, "open">; why: string; id: string }>;
  closed: { at: string; id: string } | null;
}

export const TRIAL_STATE_VERSION = 3;

export const initialTrialState = (plan: TrialPlan, start: EventOf): TrialState => ({
  format: TRIAL_STATE_VERSION,
  effectiveEvents: 1,
  startedAt: start.happenedAt,
  lastAt: start.happenedAt,
  drawn: {},
  testCandles: Object.fromEntries(plan.testCandles.map((testCandle) => [testCandle.key, { sessions: [], stopped: null }])),
  presentAt: null,
  ratings: [],
  codesRevealedAt: null,
  decided: {},
  closed: null,
});

/** Returns the session in which a test candle burns now; null if it does not. */
export const burningIn = (state: TestCandleState | undefined): BurnSession | null => {
  const last = state?.sessions.at(-1);
  return last && last.out === null ? last : null;
};

/** Returns the session in which a test candle burned at a moment; null if it did not. */
export const burningAt = (state: TestCandleState | undefined, at: string): BurnSession | null =>
  state?.sessions.findLast((each) => Date.parse(each.litAt) <= Date.parse(at) && (each.out === null || Date.parse(at) <= Date.parse(each.out.at))) ?? null;
