import { z } from "zod";
import { tQuantile } from "../quantity/quantity";

export const FLAMES = ["small", "steady", "large", "jumping", "dying", "out"] as const;
const mm = (most: number) => z.number().min(0).max(most);

const look = z.object({
  minute: z.number().min(0).max(10_000).describe("since it was lit"),
  pool_mm: mm(2_000).optional().describe("diameter of the melt pool"),
  pool_depth_mm: mm(500).optional(),
  flame: z.enum(FLAMES).optional(),
  flame_mm: mm(1_000).optional().describe("height"),
  mushroom: z.boolean().optional(),
  soot: z.boolean().optional(),
  wall_c: z.number().min(-50).max(400).optional(),
});
const session = z.object({
  looks: z.array(look).max(500).default([]),
  grams_before: z.number().positive().max(100_000).optional(),
  grams_after: z.number().min(0).max(100_000).optional(),
  minutes: z.number().positive().max(10_000).optional().describe("how long it burned"),
});
export const burnRequest = z
  .object({
    vessel: z.object({ inner_top_mm: mm(2_000).positive(), inner_bottom_mm: mm(2_000).positive(), height_mm: mm(2_000).positive() }),
    wax_family: z.string().max(60).optional(),
    sessions: z.array(session).min(1, "At least one session.").max(200),
    fill: z.enum(["full", "half"]).default("full"),
    tare_g: z.number().min(0).max(100_000).default(0).describe("what of the weights is neither wax nor wick"),
  })
  .superRefine(({ sessions, tare_g }, context) => {
    for (const [at, one] of sessions.entries()) {
      if (one.grams_before !== undefined && one.grams_after !== undefined && one.grams_after > one.grams_before)
        context.addIssue({ code: "custom", path: ["sessions", at, "grams_after"], message: "It cannot weigh more after burning than before." });
      if (one.grams_after !== undefined && one.grams_after < tare_g)
        context.addIssue({ code: "custom", path: ["sessions", at, "grams_after"], message: "It cannot weigh less than its vessel: look at the tare." });
    }
  });
export type BurnRequest = z.output<typeof burnRequest>;

const span = z.object({ value: z.number(), low: z.number(), high: z.number() });
export const ADVICE = ["keep", "wick_up", "wick_down", "change_kind", "less_load_or_dye", "test_full"] as const;
export const burnAnswer = z.object({
  safety: z.object({ pass: z.boolean(), reasons: z.array(z.string()) }),
  pool: z.object({ verdict: z.enum(["small", "right", "large", "not_recorded"]), full_at_minute: z.number().nullable() }),
  grams_per_hour: span.nullable().describe("with its 95 % interval; null where nothing was weighed"),
  hours_left: span.nullable().describe("to the end of the wax"),
  advice: z.object({ what: z.enum(ADVICE), why: z.string() }),
});
export type BurnAnswer = z.output<typeof burnAnswer>;
type Look = BurnRequest["sessions"][number]["looks"][number];

/** The highest flame of a container candle: ASTM F2417, 3 in (from memory). */
const HIGHEST_FLAME_MM = 76.2;
/** Common practice, no source: a wall that no hand can hold; a pool so deep that it is too much heat, and one that spills. */
const [HOTTEST_WALL_C, DEEP_POOL_MM, UNSAFE_POOL_MM] = [60, 13, 25];
/** A pool that comes so close to the wall is full. Common practice, no source: a glass cannot be read closer. */
const NEAR_WALL_MM = 2;
/** Between these minutes a pool is full where the wick is right. Common practice, no source. */
const [FULL_FROM, FULL_UNTIL] = [120, 240];
/** A mushroom this early is bad; later it is trimmed. */
const EARLY_MUSHROOM = 120;
const LEAST_SESSIONS = 3;

const round = (value: number) => Math.round(value * 100) / 100;

/** How high the wax stands in a session, as a share of the full vessel: by what is left of it, where it was weighed. */
function levelOf(request: BurnRequest, at: number): number {
  const start = request.fill === "half" ? 0.5 : 1;
  const [first, now] = [request.sessions[0]?.grams_before, request.sessions[at]?.grams_before];
  if (first === undefined || now === undefined || first <= request.tare_g) return start;
  return start * Math.min(1, Math.max(0, (now - request.tare_g) / (first - request.tare_g)));
}
/** Inner diameter at the wax line: a tapered jar narrows as it burns down. */
const diameterAt = ({ vessel }: BurnRequest, level: number): number => vessel.inner_bottom_mm + (vessel.inner_top_mm - vessel.inner_bottom_mm) * level;

function safetyOf(request: BurnRequest): BurnAnswer["safety"] {
  const reasons: string[] = [];
  const first = (says: (one: Look) => boolean): { session: number; look: Look } | null => {
    for (const [at, { looks }] of request.sessions.entries()) {
      const found = looks.find(says);
      if (found) return { session: at + 1, look: found };
    }
    return null;
  };
  const add = (seen: ReturnType<typeof first>, words: (one: Look) => string) => {
    if (seen) reasons.push(`${words(seen.look)} (session ${seen.session}, minute ${seen.look.minute}).`);
  };
  add(
    first((one) => (one.flame_mm ?? 0) > HIGHEST_FLAME_MM),
    (one) => `The flame was ${one.flame_mm} mm high; ${HIGHEST_FLAME_MM} mm is the most (ASTM F2417, from memory)`,
  );
  add(
    first((one) => one.flame === "large" || one.flame === "jumping"),
    (one) => `The flame was ${one.flame}`,
  );
  add(
    first((one) => one.soot === true),
    () => "It sooted",
  );
  add(
    first((one) => (one.wall_c ?? 0) > HOTTEST_WALL_C),
    (one) => `The wall was ${one.wall_c} °C hot; above ${HOTTEST_WALL_C} °C no hand holds it`,
  );
  add(
    first((one) => (one.pool_depth_mm ?? 0) > UNSAFE_POOL_MM),
    (one) => `The pool was ${one.pool_depth_mm} mm deep`,
  );
  return { pass: reasons.length === 0, reasons };
}

function poolOf(request: BurnRequest): BurnAnswer["pool"] {
  // The third session tells; of fewer, the last.
  const seen = request.sessions
    .map((one, at) => ({ at, looks: one.looks.filter((each) => each.pool_mm !== undefined).sort((a, b) => a.minute - b.minute) }))
    .filter((one) => one.looks.length > 0);
  const told = seen.find((one) => one.at >= LEAST_SESSIONS - 1) ?? seen.at(-1);
  const deep = request.sessions.some((one) => one.looks.some((each) => (each.pool_depth_mm ?? 0) > DEEP_POOL_MM && each.minute <= FULL_UNTIL));
  if (!told) return { verdict: deep ? "large" : "not_recorded", full_at_minute: null };
  const wide = diameterAt(request, levelOf(request, told.at)) - 2 * NEAR_WALL_MM;
  const full = told.looks.find((one) => (one.pool_mm ?? 0) >= wide)?.minute ?? null;
  if (deep || (full !== null && full < FULL_FROM)) return { verdict: "large", full_at_minute: full };
  if (full !== null) return { verdict: full <= FULL_UNTIL ? "right" : "small", full_at_minute: full };
  // Not full by the last look: too small only where it was looked at long enough.
  return { verdict: (told.looks.at(-1)?.minute ?? 0) >= FULL_UNTIL ? "small" : "not_recorded", full_at_minute: null };
}

/** Consumption with its 95 % interval: Student's t over the sessions; of one session alone a quarter either way (common practice, no source). */
function rateOf({ sessions }: BurnRequest): BurnAnswer["grams_per_hour"] {
  const weighed = sessions.flatMap(({ grams_before: before, grams_after: after, minutes }) =>
    before === undefined || after === undefined || minutes === undefined ? [] : [{ grams: before - after, hours: minutes / 60 }],
  );
  if (weighed.length === 0) return null;
  const rates = weighed.map((one) => one.grams / one.hours);
  const mean = rates.reduce((a, b) => a + b, 0) / rates.length;
  if (rates.length === 1) return { value: round(mean), low: round(mean * 0.75), high: round(mean * 1.25) };
  const sd = Math.sqrt(rates.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (rates.length - 1));
  const half = (tQuantile(0.975, rates.length - 1) * sd) / Math.sqrt(rates.length);
  return { value: round(mean), low: round(Math.max(0, mean - half)), high: round(mean + half) };
}

function leftOf(request: BurnRequest, rate: BurnAnswer["grams_per_hour"]): BurnAnswer["hours_left"] {
  const last = request.sessions.findLast((one) => one.grams_after !== undefined)?.grams_after;
  if (!rate || last === undefined || !(rate.value > 0)) return null;
  const wax = last - request.tare_g;
  return { value: round(wax / rate.value), low: round(wax / rate.high), high: round(wax / Math.max(rate.low, rate.value / 10)) };
}

/** One change, from safety first, then what the flame does, then the pool. Common practice, no source. */
function adviceOf(request: BurnRequest, safety: BurnAnswer["safety"], pool: BurnAnswer["pool"]): BurnAnswer["advice"] {
  const looks = request.sessions.flatMap((one) => one.looks);
  const starves = looks.some((one) => one.flame === "dying" || one.flame === "out");
  const early = request.sessions.filter((one) => one.looks.some((each) => each.mushroom === true && each.minute <= EARLY_MUSHROOM)).length;
  if (!safety.pass) {
    return pool.verdict === "small"
      ? { what: "change_kind", why: "It is not safe, and yet its pool stays small: no size of this kind will do. Change the kind before the size." }
      : { what: "wick_down", why: `It is not safe: ${safety.reasons[0]} One size down.` };
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
  if (pool.verdict === "small") return { what: "wick_up", why: "The pool is not full within four hours: one size up." };
  if (pool.verdict === "large")
    return {
      what: "wick_down",
      why:
        pool.full_at_minute !== null && pool.full_at_minute < FULL_FROM
          ? "The pool is full before two hours: one size down."
          : "The pool is deep: one size down, or a harder blend.",
    };
  const unsure = pool.verdict === "not_recorded" ? " The pool was not recorded long enough to judge it: look at two, three and four hours." : "";
  if (request.fill === "half" && !unsure)
    return { what: "test_full", why: "The lower half burns as it should. A half-fill result never counts as a full pass: test the full jar next." };
  const few =
    request.sessions.length < LEAST_SESSIONS ? ` ${request.sessions.length} of at least ${LEAST_SESSIONS} sessions: go on before you rely on it.` : "";
  return { what: "keep", why: `Nothing speaks against it so far.${unsure}${few} Test data is not a safety certificate.` };
}

/** What burn sessions of one candle say: safe or not, its pool, how fast it burns, how long it will, and one change. */
export function answerBurn(request: BurnRequest): BurnAnswer {
  const safety = safetyOf(request);
  const pool = poolOf(request);
  const rate = rateOf(request);
  return { safety, pool, grams_per_hour: rate, hours_left: leftOf(request, rate), advice: adviceOf(request, safety, pool) };
}
