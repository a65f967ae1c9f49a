import { tQuantile } from "../statistics/tails";
import * as M from "./limits";

export const FLAMES = ["small", "steady", "large", "jumping", "dying", "out"] as const;
export type FlameSeen = (typeof FLAMES)[number];

/** One check of a burning candle. What was not checked is absent. Millimeters, °C, minutes since it was lit. */
export interface Look {
  minute: number;
  pool_mm?: number | undefined;
  pool_depth_mm?: number | undefined;
  flame?: FlameSeen | undefined;
  flame_mm?: number | undefined;
  mushroom?: boolean | undefined;
  soot?: boolean | undefined;
  wall_c?: number | undefined;
  /** The bottom is seen through the pool. */
  bottom?: boolean | undefined;
  /** Two flames have run into one. */
  joined?: boolean | undefined;
  /** Something but the wick burns: the pool, the label, what was embedded. */
  elsewhere?: boolean | undefined;
  /** The pool ends in a hard edge. */
  edge?: boolean | undefined;
}
export interface Session {
  looks: readonly Look[];
  grams_before?: number | undefined;
  grams_after?: number | undefined;
  minutes?: number | undefined;
  /** What moved the air: an open window, a fan. A session of which nobody said is taken for one in still air. */
  air?: readonly string[] | undefined;
}
/** The sessions of one candle, and what is known of it. */
export interface Burned {
  sessions: readonly Session[];
  fill: "full" | "half";
  /** What of the weights is neither wax nor wick. */
  tare_g: number;
  /** Inner diameter at the wax line in mm, at this share of the wax left (1: as it was first lit). */
  widthAt: (left: number) => number;
  /** A pillar has no wall: its pool has to stay inside. */
  pillar?: boolean;
}

/** Where in the record something was seen: both from 0. */
export interface Seen {
  session: number;
  look: number;
}
export interface Reason {
  words: string;
  /** The looks it rests on. */
  seen: Seen[];
  id?: Sign["id"];
}
export interface Span {
  value: number;
  low: number;
  high: number;
}
export const ADVICE = ["keep", "wick_up", "wick_down", "change_kind", "less_load_or_dye", "test_full"] as const;
export type AdviceWhat = (typeof ADVICE)[number];
export const ADVICE_WORDS: Record<AdviceWhat, string> = {
  keep: "Keep this wick",
  wick_up: "One size up",
  wick_down: "One size down",
  change_kind: "Another kind of wick",
  less_load_or_dye: "Less load or dye",
  test_full: "Test the full jar next",
};
export interface BurnJudged {
  safety: { pass: boolean; reasons: Reason[] };
  pool: { verdict: "small" | "right" | "large" | "not_recorded"; full_at_minute: number | null; session: number | null; seen: Seen[] };
  grams_per_hour: Span | null;
  /** The sessions that were weighed and timed. */
  weighed: WeighedSession[];
  hours_left: Span | null;
  /** From the first light to the end of the wax. */
  hours_whole: Span | null;
  advice: { what: AdviceWhat; why: string };
  /** What the record cannot tell. */
  unknown: string[];
}

const round = (value: number) => Math.round(value * 100) / 100;
const rounded = ({ value, low, high }: Span): Span => ({ value: round(value), low: round(low), high: round(high) });

/** Returns which wax is left when a session begins, as a share of the first: by its weight, where it was weighed; else null. */
function leftAt({ sessions, tare_g }: Burned, at: number): number | null {
  const [first, now] = [sessions[0]?.grams_before, sessions[at]?.grams_before];
  if (first === undefined || now === undefined || first <= tare_g) return at === 0 ? 1 : null;
  return Math.min(1, Math.max(0, (now - tare_g) / (first - tare_g)));
}

/** Signs that end a session at once, each with what was seen and what to do. */
export interface Sign {
  id: "flame" | "unsteady" | "soot" | "wall" | "deep" | "bottom" | "joined" | "elsewhere";
  says: string;
  step: string;
}
const SMOTHER = "Put it out now: cover it with a lid or a plate that does not burn. Never water. Let it set before you move it.";

/** How lengths and temperatures are written: micrometers, hundredths of °C. */
export interface Measures {
  len(um: number): string;
  t(centi: number): string;
}
/** Writes lengths and temperatures in millimeters and °C, as the calculation interface does. */
export const SI: Measures = { len: (um) => `${um / 1_000} mm`, t: (centi) => `${centi / 100} °C` };

/** Returns what in one look ends the session. */
export function signsOf(look: Look, { len, t }: Measures = SI): Sign[] {
  const mm = (value = 0) => len(Math.round(value * 1_000));
  // Nothing of it was seen: most looks are such.
  const quiet =
    look.elsewhere !== true && look.joined !== true && look.soot !== true && look.bottom !== true && look.flame !== "large" && look.flame !== "jumping";
  if (quiet && !((look.flame_mm ?? 0) > M.HIGHEST_FLAME_MM || (look.wall_c ?? 0) > M.HOTTEST_WALL_C || (look.pool_depth_mm ?? 0) > M.UNSAFE_POOL_MM)) return [];
  const signs: (Sign | false)[] = [
    look.elsewhere === true && {
      id: "elsewhere",
      says: "Something but the wick burns",
      step: `${SMOTHER} Stay away from it, and keep an extinguisher for grease fires at hand.`,
    },
    (look.flame_mm ?? 0) > M.HIGHEST_FLAME_MM && {
      id: "flame",
      says: `The flame was ${mm(look.flame_mm)} high; ${mm(M.HIGHEST_FLAME_MM)} is the most (ASTM F2417, from memory)`,
      step: `${SMOTHER} Trim before it is lit again; check for drafts.`,
    },
    (look.flame === "large" || look.flame === "jumping") && {
      id: "unsteady",
      says: `The flame was ${look.flame}`,
      step: `${SMOTHER} Trim before it is lit again; check for drafts.`,
    },
    look.joined === true && { id: "joined", says: "Two flames ran into one", step: `${SMOTHER} Its wicks stand too close, or are too large.` },
    look.soot === true && { id: "soot", says: "It sooted", step: `${SMOTHER} Trim before it is lit again; check for drafts.` },
    (look.wall_c ?? 0) > M.HOTTEST_WALL_C && {
      id: "wall",
      says: `The wall was ${t(Math.round((look.wall_c ?? 0) * 100))} hot; above ${t(M.HOTTEST_WALL_C * 100)} too hot to hold`,
      step: `${SMOTHER} Do not touch the vessel.`,
    },
    (look.pool_depth_mm ?? 0) > M.UNSAFE_POOL_MM && {
      id: "deep",
      says: `The pool was ${mm(look.pool_depth_mm)} deep`,
      step: `${SMOTHER} Hot wax spills easily.`,
    },
    look.bottom === true &&
      look.minute >= M.BOTTOM_FROM && {
        id: "bottom",
        says: "The bottom was seen through the pool",
        step: `${SMOTHER} The whole vessel is hot.`,
      },
  ];
  return signs.filter((sign): sign is Sign => sign !== false);
}

function safetyOf({ sessions }: Burned, measures: Measures): BurnJudged["safety"] {
  const by = new Map<Sign["id"], Reason>();
  for (const [session, { looks }] of sessions.entries())
    for (const [index, look] of looks.entries())
      for (const sign of signsOf(look, measures)) {
        const there = by.get(sign.id);
        if (there) there.seen.push({ session, look: index });
        else
          by.set(sign.id, {
            id: sign.id,
            words: `${sign.says} (session ${session + 1}, minute ${Math.round(look.minute)}).`,
            seen: [{ session, look: index }],
          });
      }
  return { pass: by.size === 0, reasons: [...by.values()] };
}

function poolOf(burned: Burned): BurnJudged["pool"] {
  const { sessions } = burned;
  const deep = sessions.flatMap(({ looks }, session) =>
    looks.flatMap((item, look) => ((item.pool_depth_mm ?? 0) > M.DEEP_POOL_MM && item.minute <= M.FULL_UNTIL ? [{ session, look }] : [])),
  );
  // The third session tells; of fewer, the last. Where that one was not looked at long enough, the newest that was.
  const measured = sessions.flatMap(({ looks }, session) => {
    const pools: { minute: number; pool_mm: number; look: number }[] = [];
    for (const [look, item] of looks.entries()) if (item.pool_mm !== undefined) pools.push({ minute: item.minute, pool_mm: item.pool_mm, look });
    return pools.length > 0 ? [{ session, pools: pools.sort((a, b) => a.minute - b.minute) }] : [];
  });
  const near = burned.pillar ? M.PILLAR_EDGE_MM : M.NEAR_WALL_MM;
  const fullIn = (item: (typeof measured)[number]) => {
    const wide = burned.widthAt(leftAt(burned, item.session) ?? 1) - 2 * near;
    return item.pools.find((pool) => pool.pool_mm >= wide);
  };
  const third = measured.find((item) => item.session >= M.MIN_SESSIONS - 1) ?? measured.at(-1);
  const long = (item: (typeof measured)[number]) => fullIn(item) !== undefined || (item.pools.at(-1)?.minute ?? 0) >= M.FULL_UNTIL;
  const told = third && !long(third) ? (measured.findLast(long) ?? third) : third;
  if (!told) return { verdict: deep.length > 0 ? "large" : "not_recorded", full_at_minute: null, session: null, seen: deep };
  const full = fullIn(told);
  const seen = told.pools.map(({ look }) => ({ session: told.session, look }));
  const at = full?.minute ?? null;
  const session = told.session + 1;
  // A pillar's pool is to end before the edge; how much before, nobody has written down.
  if (burned.pillar) {
    if (deep.length > 0 || at !== null) return { verdict: "large", full_at_minute: at, session, seen: deep.length > 0 ? deep : seen };
    return { verdict: (told.pools.at(-1)?.minute ?? 0) >= M.FULL_UNTIL ? "right" : "not_recorded", full_at_minute: null, session, seen };
  }
  if (deep.length > 0 || (at !== null && at < M.FULL_FROM))
    return { verdict: "large", full_at_minute: at, session, seen: at !== null && at < M.FULL_FROM ? seen : deep };
  if (at !== null) return { verdict: at <= M.FULL_UNTIL ? "right" : "small", full_at_minute: at, session, seen };
  // Not full by the last look: too small only where it was looked at long enough.
  return { verdict: (told.pools.at(-1)?.minute ?? 0) >= M.FULL_UNTIL ? "small" : "not_recorded", full_at_minute: null, session, seen };
}

/** What one session burned, in grams, and how long it took. */
export interface WeighedSession {
  grams: number;
  hours: number;
}

/** Returns the sessions that were weighed and timed. */
export const weighedSessionsOf = (sessions: readonly Session[]): WeighedSession[] =>
  sessions.flatMap(({ grams_before: before, grams_after: after, minutes }) =>
    before === undefined || after === undefined || !minutes ? [] : [{ grams: before - after, hours: minutes / 60 }],
  );

/**
 * Returns grams an hour: all grams by all hours, with a 95 % interval from how the sessions lie around it, each weighing as much as it was long
 * (weighted least squares, Student's t); of one session alone a quarter either way (common practice, no source). Null if there is none.
 */
export function burnRateOf(sessions: readonly WeighedSession[]): Span | null {
  const hours = sessions.reduce((sum, session) => sum + session.hours, 0);
  if (!(hours > 0)) return null;
  const rate = sessions.reduce((sum, session) => sum + session.grams, 0) / hours;
  const n = sessions.length;
  if (n === 1) return rounded({ value: rate, low: rate * 0.75, high: rate * 1.25 });
  const variance = sessions.reduce((sum, session) => sum + session.hours * (session.grams / session.hours - rate) ** 2, 0) / (n - 1) / hours;
  const half = tQuantile(0.975, n - 1) * Math.sqrt(variance);
  return rounded({ value: rate, low: Math.max(0, rate - half), high: rate + half });
}

/** So many grams at such a rate, in hours; the longest is said no longer than at a tenth of the rate. */
const hoursOf = (grams: number, rate: Span): Span =>
  rounded({ value: grams / rate.value, low: grams / rate.high, high: grams / Math.max(rate.low, rate.value / 10) });

/** Signs that a draft alone can give. Common practice, no source. */
const DRAFTY: ReadonlySet<string> = new Set<Sign["id"]>(["unsteady", "flame", "soot"]);

function adviceOf(burned: Burned, safety: BurnJudged["safety"], pool: BurnJudged["pool"]): BurnJudged["advice"] {
  const seen = (says: (look: Look) => boolean) => burned.sessions.some((session) => session.looks.some(says));
  const starves = seen((look) => look.flame === "dying" || look.flame === "out");
  const early = burned.sessions.filter((session) => session.looks.some((each) => each.mushroom === true && each.minute <= M.EARLY_MUSHROOM)).length;
  const hardEdge = seen((look) => look.edge === true);
  if (
    !safety.pass &&
    safety.reasons.every((reason) => DRAFTY.has(reason.id ?? "") && reason.seen.every((at) => (burned.sessions[at.session]?.air ?? []).length > 0))
  ) {
    const air = [...new Set(safety.reasons.flatMap((reason) => reason.seen.flatMap((at) => burned.sessions[at.session]?.air ?? [])))].join(", ");
    return {
      what: "keep",
      why: `${safety.reasons[0]?.words} The air moved (${air}): a draft alone makes a good flame jump. Burn this session again in still air before any size is changed.`,
    };
  }
  if (!safety.pass) {
    return pool.verdict === "small"
      ? { what: "change_kind", why: "It is not safe, and yet its pool stays small: no size of this kind will do. Change the kind before the size." }
      : { what: "wick_down", why: `It is not safe: ${safety.reasons[0]?.words} One size down.` };
  }
  if (starves) {
    return pool.verdict === "small" || pool.verdict === "not_recorded"
      ? { what: "wick_up", why: "The flame starves in its pool: one size up." }
      : { what: "change_kind", why: "The flame starves though its pool is wide: it is clogged. Another kind, or less oil." };
  }
  // One early mushroom is noise; the same one in several sessions counts.
  if (early >= 2) {
    return pool.verdict === "small"
      ? { what: "change_kind", why: "It mushrooms early and its pool stays small: change the kind." }
      : pool.verdict === "large"
        ? { what: "wick_down", why: "It mushrooms early and its pool is large: one size down." }
        : { what: "less_load_or_dye", why: "It mushrooms within two hours, session after session, with a pool that is right: less load or dye." };
  }
  if (pool.verdict === "small")
    return {
      what: "wick_up",
      why: `The pool is not full within four hours: one size up.${hardEdge ? " It ends in a hard edge: a harder wax would show that too." : ""}`,
    };
  if (pool.verdict === "large")
    return {
      what: "wick_down",
      why: burned.pillar
        ? "The pool comes too near the edge: one size down, or a harder wax."
        : pool.full_at_minute !== null && pool.full_at_minute < M.FULL_FROM
          ? `The pool is full before two hours (session ${pool.session}, minute ${Math.round(pool.full_at_minute)}): one size down.`
          : "The pool is deep: one size down, or a harder blend.",
    };
  const unsure = pool.verdict === "not_recorded" ? " The pool was not recorded long enough to judge it: look at two, three and four hours." : "";
  if (burned.fill === "half" && !unsure)
    return { what: "test_full", why: "The lower half burns as it should. A half-fill result never counts as a full pass: test the full jar next." };
  const n = burned.sessions.length;
  const few = n < M.MIN_SESSIONS ? ` ${n} of at least ${M.MIN_SESSIONS} sessions: keep testing before you rely on it.` : "";
  return { what: "keep", why: `No problem seen so far.${unsure}${few} Test data is not a safety certificate.` };
}

/** What was measured at least once, and what is not known where it never was. */
const WANTED: readonly [keyof Look, string][] = [
  ["pool_mm", "How wide the pool grew was never measured."],
  ["pool_depth_mm", "How deep the pool grew was never measured."],
  ["flame", "How the flame stood was never noted."],
  ["flame_mm", "The flame was never measured, so nothing is known of its height."],
  ["soot", "Whether it sooted was never noted."],
  ["wall_c", "How hot the wall grew was never measured."],
];

/** Returns what a record of burns does not say, though a verdict would want it. */
function unknownOf({ sessions }: Burned, timesWeighed: number): string[] {
  const weighed = timesWeighed > 0 ? [] : ["It was not weighed before and after, so nothing is known of how fast it burns."];
  if (!sessions.some((session) => session.looks.length > 0)) return ["It was never looked at while it burned.", ...weighed];
  const never = WANTED.filter(([key]) => !sessions.some((session) => session.looks.some((look) => look[key] !== undefined)));
  return [...never.map(([, says]) => says), ...weighed];
}

/** Returns what burn sessions of one candle say: safe or not, its pool, how fast it burns, how long it will, and one change. Safety first, then what the flame does, then the pool. Common practice, no source, where no standard is named. */
export function judgeBurn(burned: Burned, measures: Measures = SI): BurnJudged {
  const safety = safetyOf(burned, measures);
  const pool = poolOf(burned);
  const weighed = weighedSessionsOf(burned.sessions);
  const rate = burnRateOf(weighed);
  const last = burned.sessions.findLast((session) => session.grams_after !== undefined)?.grams_after;
  const first = burned.sessions.find((session) => session.grams_before !== undefined)?.grams_before;
  const known = rate && rate.value > 0 ? rate : null;
  return {
    safety,
    pool,
    grams_per_hour: rate,
    weighed,
    hours_left: known && last !== undefined ? hoursOf(last - burned.tare_g, known) : null,
    hours_whole: known && first !== undefined ? hoursOf(first - burned.tare_g, known) : null,
    advice: adviceOf(burned, safety, pool),
    unknown: unknownOf(burned, weighed.length),
  };
}
