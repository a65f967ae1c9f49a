import type { FlameSeen, Look } from "./judge";
import { LONGEST_SESSION, PRESENCE_EVERY } from "./limits";
import { sessionOf } from "./protocol";
import type { Protocol } from "./schema";
import type { BurnSession, CheckSeen, TestCandleState } from "./state";

export const minutesFrom = (from: string, to: string): number => (Date.parse(to) - Date.parse(from)) / 60_000;

/** Returns a look as verdicts read it: millimeters, °C, minutes. Written out plainly: a thousand test candles are judged at once. */
export function checkOf(checkSeen: CheckSeen, minute: number): Look {
  const check: Look = { minute: Math.round(minute * 10) / 10 };
  if (checkSeen.poolUm !== undefined) check.pool_mm = checkSeen.poolUm / 1_000;
  if (checkSeen.depthUm !== undefined) check.pool_depth_mm = checkSeen.depthUm / 1_000;
  const flame = checkSeen.flame ?? worstFlame(checkSeen.flames);
  if (flame !== undefined) check.flame = flame;
  if (checkSeen.flameUm !== undefined) check.flame_mm = checkSeen.flameUm / 1_000;
  if (checkSeen.mushroom !== undefined) check.mushroom = checkSeen.mushroom !== "none";
  if (checkSeen.soot !== undefined) check.soot = checkSeen.soot !== "none";
  if (checkSeen.wall !== undefined) check.wall_c = checkSeen.wall / 100;
  if (checkSeen.bottom !== undefined) check.bottom = checkSeen.bottom;
  if (checkSeen.joined !== undefined) check.joined = checkSeen.joined;
  if (checkSeen.elsewhere !== undefined) check.elsewhere = checkSeen.elsewhere;
  if (checkSeen.edge !== undefined) check.edge = checkSeen.edge;
  return check;
}

/** From the mildest flame to what has to be acted on first. */
const GRAVITY: readonly FlameSeen[] = ["steady", "small", "dying", "out", "large", "jumping"];
/** Returns what several flames of one candle come to: the gravest of them; a candle with one flame out still burns, so that it is dying. */
function worstFlame(flames: readonly FlameSeen[] | undefined): FlameSeen | undefined {
  const worst = [...(flames ?? [])].sort((a, b) => GRAVITY.indexOf(b) - GRAVITY.indexOf(a))[0];
  return worst === "out" && flames?.some((flame) => flame !== "out") ? "dying" : worst;
}

/** A look may come so many minutes before its time and still be the one that was asked for; later than that after it, it is late. */
export const LOOK_TOLERANCE = 10;

export interface DueCheck {
  /** Minutes after lighting. */
  due: number;
  state: "seen" | "late" | "missed" | "next" | "to come";
  check: CheckSeen | null;
  /** When it was really looked at. */
  minute: number | null;
}

/**
 * Returns the looks that a protocol asks of a session, and what became of each: seen, late with its real time, missed because the
 * next was due or it went out before anybody looked, or still to come. A look counts for the newest that was due.
 */
export function dueChecks(dues: readonly number[], session: BurnSession, now: string): DueCheck[] {
  const at = (check: CheckSeen) => minutesFrom(session.litAt, check.at);
  const ended = session.out ? minutesFrom(session.litAt, session.out.at) : null;
  const passed = ended ?? minutesFrom(session.litAt, now);
  // Where looks stand close together each counts for the one that is nearest.
  const early = (index: number) => Math.min(LOOK_TOLERANCE, index > 0 ? ((dues[index] as number) - (dues[index - 1] as number)) / 2 : LOOK_TOLERANCE);
  const taken = new Map<number, CheckSeen>();
  for (const check of [...session.checks].sort((a, b) => Date.parse(a.at) - Date.parse(b.at))) {
    const position = dues.findLastIndex((due, n) => at(check) >= due - early(n));
    if (position >= 0 && !taken.has(position)) taken.set(position, check);
  }
  let nextSaid = false;
  return dues.map((due, index): DueCheck => {
    const check = taken.get(index) ?? null;
    if (check) {
      const minute = Math.round(at(check));
      return { due, check: check, minute, state: minute > due + LOOK_TOLERANCE ? "late" : "seen" };
    }
    const following = dues[index + 1];
    const isPast = ended !== null || (following !== undefined && passed >= following - early(index + 1));
    if (isPast) return { due, check: null, minute: null, state: "missed" };
    if (nextSaid) return { due, check: null, minute: null, state: "to come" };
    nextSaid = true;
    return { due, check: null, minute: null, state: "next" };
  });
}

export interface TestCandleNow {
  state: "stopped" | "burning" | "resting" | "ready" | "done";
  /** Which session it is in, or comes next; from 1. */
  session: number;
  /** Minutes since it was lit. */
  minute: number;
  checks: DueCheck[];
  /** What is due next, and when: a look, putting it out, or lighting it again. */
  next: { what: "look" | "put out" | "light"; at: string } | null;
  /** It burns for longer than any candle should. */
  tooLong: boolean;
}

/** Returns where a test candle stands by the clock. */
export function testCandleNow(protocol: Protocol, state: TestCandleState, now: string): TestCandleNow {
  const done = state.sessions.length;
  const last = state.sessions.at(-1);
  const after = (from: string, minutes: number) => new Date(Date.parse(from) + minutes * 60_000).toISOString();
  const asked = sessionOf(protocol, Math.max(0, done - 1));
  const checks = last && asked ? dueChecks(asked.checks, last, now) : [];
  if (state.stopped) return { state: "stopped", session: done, minute: 0, checks: checks, next: null, tooLong: false };
  if (last && !last.out) {
    const minute = minutesFrom(last.litAt, now);
    const due = checks.find((check) => check.state === "next");
    const outAt = asked ? after(last.litAt, asked.minutes) : null;
    return {
      state: "burning",
      session: done,
      minute,
      checks: checks,
      next: due ? { what: "look", at: after(last.litAt, due.due) } : outAt ? { what: "put out", at: outAt } : null,
      tooLong: minute > Math.max(LONGEST_SESSION, asked?.minutes ?? 0),
    };
  }
  if (!sessionOf(protocol, done)) return { state: "done", session: done, minute: 0, checks: checks, next: null, tooLong: false };
  const from = last?.out ? after(last.out.at, protocol.restHours * 60) : null;
  const resting = from !== null && Date.parse(now) < Date.parse(from);
  return {
    state: resting ? "resting" : "ready",
    session: done + 1,
    minute: 0,
    checks: checks,
    next: from ? { what: "light", at: from } : null,
    tooLong: false,
  };
}

/** Returns whether somebody has to say that they are still with the flames. */
export const presenceDue = (presentAt: string | null, now: string): boolean => presentAt === null || minutesFrom(presentAt, now) >= PRESENCE_EVERY;
