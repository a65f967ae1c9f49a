import {
  type BurnSession,
  type CheckSeen,
  checkOf,
  type Measures,
  minutesFrom,
  type Sign,
  signsOf,
  type TestCandle,
  type TestCandleNow,
  type TestCandleState,
  type TrialPlan,
  type TrialState,
  testCandleNow,
  variantWords,
  widthOf,
} from "@hearth/core";
import type { TestCandleBatch } from "@/server/burn/trials";

/** A test candle with what its card shows. */
export interface Card {
  testCandle: TestCandle;
  state: TestCandleState;
  now: TestCandleNow;
  /** What stands in the way of lighting it, and what has to be said before it is. */
  blocked: string;
  /** Its least cure is not over: from when it would be. */
  early: string | null;
  words: string;
}

const NONE: TestCandleState = { sessions: [], stopped: null };
const RANK: Record<TestCandleNow["state"], number> = { burning: 0, ready: 1, resting: 2, done: 3, stopped: 4 };

/** Returns all test candles, what needs attention soonest first. */
export function cardsOf(plan: TrialPlan, state: TrialState, batches: readonly TestCandleBatch[], now: string): Card[] {
  const cards = plan.testCandles.map((testCandle): Card => {
    const mine = state.testCandles[testCandle.key] ?? NONE;
    const batch = batches.find((batch) => batch.id === testCandle.batch?.id);
    const poured = !testCandle.batch || batch === undefined || (batch.pouredAt !== null && Date.parse(batch.pouredAt) <= Date.parse(now));
    const early = batch?.testFrom && Date.parse(batch.testFrom) > Date.parse(now) ? batch.testFrom : null;
    return {
      testCandle,
      state: mine,
      now: testCandleNow(plan.protocol, mine, now),
      blocked: poured ? "" : `batch ${testCandle.batch?.number} is not poured yet`,
      early,
      words: variantWords(plan, testCandle.variant),
    };
  });
  const due = (card: Card) => Date.parse(card.now.next?.at ?? now);
  return cards.sort((a, b) => RANK[a.now.state] - RANK[b.now.state] || due(a) - due(b) || (a.testCandle.key < b.testCandle.key ? -1 : 1));
}

/** Returns whether a call is due: a look or putting out whose time has come. */
export const isDue = (now: TestCandleNow, clock: string): boolean =>
  now.state === "burning" && now.next !== null && Date.parse(now.next.at) <= Date.parse(clock);

/** A check that is being entered. */
export type Hand = Omit<CheckSeen, "id" | "at" | "note">;

/** Returns what of a look ends the session at once. */
export const signsIn = (hand: Hand, session: BurnSession, now: string, measures: Measures): Sign[] =>
  signsOf(checkOf({ id: "", at: now, ...hand }, minutesFrom(session.litAt, now)), measures);

/** Returns a tap on the round seen from above, as the diameter of the pool: whole millimeters, never wider than the jar. `out` in the unit of `radius`. */
export function tappedPool(out: number, radius: number, widthUm: number): number {
  const um = Math.min(1, Math.max(0, out / radius)) * widthUm;
  return um > widthUm * 0.97 ? widthUm : Math.round(um / 1_000) * 1_000;
}

/** Returns how much of its wax a test candle has left by a weight of it, as a share of what went in; all of it where either weight is not known. */
const leftAt = (item: TestCandle, state: TestCandleState, mg: number | null): number => {
  const first = state.sessions[0]?.beforeMg ?? null;
  return first === null || mg === null ? 1 : Math.max(0, 1 - (first - mg) / item.fillMg);
};

/** The same as it was weighed last. */
export const leftOf = (item: TestCandle, state: TestCandleState): number =>
  leftAt(item, state, state.sessions.findLast((each) => each.afterMg !== null)?.afterMg ?? state.sessions.at(-1)?.beforeMg ?? null);

/** The inner width where the wax stands now, in micrometers. */
export const widthNow = (item: TestCandle, state: TestCandleState): number => Math.round(widthOf(item, leftOf(item, state)) * 1_000);

/** A session that is out and was not weighed since. */
export const toWeigh = (state: TestCandleState): number | null => {
  const last = state.sessions.at(-1);
  return last?.out && last.beforeMg !== null && last.afterMg === null ? state.sessions.length : null;
};

export interface Line {
  key: string;
  variant: string;
  words: string;
  /** Session by session: [minute, value]. */
  sessions: { session: number; points: [number, number][] }[];
}
export type Measured = "pool" | "depth";

/** Pool or depth against time, test candle by test candle, in micrometers. */
export function linesOf(plan: TrialPlan, state: TrialState, what: Measured): Line[] {
  return plan.testCandles.map(({ key, variant }) => ({
    key,
    variant,
    words: variantWords(plan, variant),
    sessions: (state.testCandles[key]?.sessions ?? []).flatMap((session, index) => {
      const points = session.checks.flatMap((look): [number, number][] => {
        const value = what === "pool" ? look.poolUm : look.depthUm;
        return value === undefined ? [] : [[minutesFrom(session.litAt, look.at), value]];
      });
      return points.length > 0 ? [{ session: index + 1, points: points.sort((a, b) => a[0] - b[0]) }] : [];
    }),
  }));
}

/** From top to bottom: the widest pool of each session as a share of the jar where the wax stood by then. */
export function trendOf(item: TestCandle, state: TestCandleState): { session: number; share: number; widthUm: number }[] {
  return state.sessions.flatMap((session, index) => {
    const pools = session.checks.flatMap((look) => look.poolUm ?? []);
    if (pools.length === 0) return [];
    const widthUm = widthOf(item, leftAt(item, state, session.beforeMg)) * 1_000;
    return [{ session: index + 1, share: Math.max(...pools) / widthUm, widthUm: Math.round(widthUm) }];
  });
}
