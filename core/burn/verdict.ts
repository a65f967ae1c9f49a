import { checkOf } from "./checks";
import { ADVICE_WORDS, type AdviceWhat, type Burned, type BurnJudged, burnRateOf, judgeBurn, type Measures, type Seen, type Session, type Span } from "./judge";
import { isLadder, type TestCandle, type TrialPlan, testCandlesOf, type Varied, variantsOf, variantWords, widthOf } from "./plan";
import type { TestCandleState, TrialState } from "./state";

/** Returns the sessions of a test candle as verdicts read them: minutes, grams, millimeters, °C. A session that still goes on has no length. */
export const sessionsOf = (state: TestCandleState): Session[] =>
  state.sessions.map((session) => {
    const lit = Date.parse(session.litAt);
    const minutes = session.out ? (Date.parse(session.out.at) - lit) / 60_000 : undefined;
    const looks = session.checks.map((look) => checkOf(look, (Date.parse(look.at) - lit) / 60_000));
    // That it went out by itself is seen whenever it is noticed, by no look of its own.
    if (session.out?.why === "by itself") looks.push({ minute: minutes ?? 0, flame: "out" });
    return {
      looks,
      grams_before: session.beforeMg === null ? undefined : session.beforeMg / 1_000,
      grams_after: session.afterMg === null ? undefined : session.afterMg / 1_000,
      minutes,
      air: session.air,
    };
  });

/** Returns a test candle and its burns. What the vessel weighs is what it weighed at first, less the wax that was poured into it. */
export function burnedOf(item: TestCandle, state: TestCandleState): Burned {
  const sessions = sessionsOf(state);
  const first = sessions.find((each) => each.grams_before !== undefined)?.grams_before;
  // Where the wax was burned before it was first weighed, the tare cannot be told from it.
  const weighedFirst = sessions[0]?.grams_before !== undefined;
  return {
    sessions,
    fill: item.fill,
    tare_g: first !== undefined && weighedFirst ? Math.max(0, first - item.fillMg / 1_000) : 0,
    widthAt: (left) => widthOf(item, left),
    pillar: item.container === "mold",
  };
}

export interface BurnVerdict extends BurnJudged {
  key: string;
  variant: string;
  /** Safe as far as it was burned, not safe, or nothing is known. */
  safe: boolean | null;
  sessions: number;
  /** Enough of it burned for a verdict to stand on. */
  enough: boolean;
  seen: Seen[];
}

/** Returns whether a test candle went out by itself while it had wax to burn. */
const goesOut = (state: TestCandleState | undefined): boolean =>
  state?.sessions.some((session) => session.out?.why === "by itself" || session.checks.some((look) => look.flame === "out")) ?? false;

const hasLooks = (state: TestCandleState) => state.sessions.some((session) => session.checks.length > 0);

/** Returns the verdict on a test candle from its burns: whether it was safe, how its melt pool did, and what to change. */
export function verdictOf(plan: TrialPlan, state: TrialState, key: string, measures?: Measures): BurnVerdict | null {
  const item = plan.testCandles.find((each) => each.key === key);
  const burned = state.testCandles[key];
  if (!item || !burned) return null;
  const judged = judgeBurn(burnedOf(item, burned), measures);
  // Put out for safety by hand counts, whatever the looks say.
  const byHand = burned.sessions.flatMap(({ out }, session) =>
    out?.why === "safety" && !judged.safety.reasons.some((reason) => reason.seen.some((seen) => seen.session === session))
      ? [{ words: `It was put out for safety: ${out.sign || "no reason was noted"} (session ${session + 1}).`, seen: [] }]
      : [],
  );
  const cracked =
    burned.stopped && burned.stopped.why !== "the wax is used up" && burned.stopped.why !== "no more is needed"
      ? [{ words: `Stopped: ${burned.stopped.why}.`, seen: [] }]
      : [];
  const reasons = [...judged.safety.reasons, ...byHand, ...cracked];
  const pass = reasons.length === 0;
  const known = hasLooks(burned);
  const advice =
    pass === judged.safety.pass
      ? judged.advice
      : cracked.length > 0 && byHand.length === 0
        ? { what: "keep" as const, why: "The vessel failed, which says nothing of the wick: burn another test candle." }
        : { what: "wick_down" as const, why: `It is not safe: ${reasons[0]?.words} One size down.` };
  const ended = burned.sessions.filter((each) => each.out).length;
  return {
    ...judged,
    safety: { pass, reasons },
    advice,
    key,
    variant: item.variant,
    safe: pass ? (known ? true : null) : false,
    sessions: ended,
    enough: ended >= plan.protocol.least,
    seen: [...judged.safety.reasons.flatMap((reason) => reason.seen), ...judged.pool.seen],
  };
}

export interface VariantVerdict {
  variant: string;
  words: string;
  safe: boolean | null;
  pool: BurnJudged["pool"]["verdict"] | "they differ";
  advice: { what: AdviceWhat; why: string } | null;
  grams_per_hour: Span | null;
  testCandles: BurnVerdict[];
  /** What stands between it and a pass; nothing where it passes. */
  open: string[];
}

/** The advice that weighs most where test candles of one variant differ: safety, then what changes most. */
const WEIGHT: Record<AdviceWhat, number> = { wick_down: 5, change_kind: 4, less_load_or_dye: 3, wick_up: 2, test_full: 1, keep: 0 };

/** Returns what all test candles of a variant say together. A half-fill result never counts as a full pass. */
export function variantVerdict(plan: TrialPlan, state: TrialState, variant: string, measures?: Measures): VariantVerdict {
  const mine = testCandlesOf(plan, variant);
  const testCandles = mine.flatMap((item) => verdictOf(plan, state, item.key, measures) ?? []);
  const burned = testCandles.filter((testCandle) => testCandle.sessions > 0 || testCandle.safe !== null);
  const safe = burned.some((verdict) => verdict.safe === false) ? false : burned.some((verdict) => verdict.safe === null) || burned.length === 0 ? null : true;
  const pools = new Set(burned.map((verdict) => verdict.pool.verdict).filter((item) => item !== "not_recorded"));
  const pool = pools.size > 1 ? ("they differ" as const) : ([...pools][0] ?? "not_recorded");
  const worst = [...burned].sort((a, b) => Number(a.safe !== false) - Number(b.safe !== false) || WEIGHT[b.advice.what] - WEIGHT[a.advice.what])[0];
  const few = testCandles.filter((testCandle) => !testCandle.enough).length;
  const halves = mine.some((item) => item.fill === "half");
  const open = [
    ...(burned.length === 0 ? ["none of it has burned yet"] : []),
    ...(safe === false ? ["it is not safe"] : safe === null && burned.length > 0 ? ["whether it is safe was not recorded"] : []),
    ...(pool === "they differ"
      ? ["its test candles differ: burn another"]
      : pool === "not_recorded" && burned.length > 0
        ? ["its pool was not recorded long enough"]
        : []),
    ...(pool === "small" || pool === "large" ? [`its pool is ${pool}`] : []),
    ...(burned.length > 0 && few > 0 ? [`${few} of ${testCandles.length} have fewer than ${plan.protocol.least} sessions`] : []),
    ...(worst && safe !== false && (worst.advice.what === "change_kind" || worst.advice.what === "less_load_or_dye")
      ? [ADVICE_WORDS[worst.advice.what].toLowerCase()]
      : []),
    ...(burned.some((verdict) => goesOut(state.testCandles[verdict.key])) ? ["it went out by itself"] : []),
    ...(halves ? ["half-filled: the full jar has to follow"] : []),
  ];
  return {
    variant,
    words: variantWords(plan, variant),
    safe,
    pool,
    advice: worst ? worst.advice : null,
    grams_per_hour: burnRateOf(testCandles.flatMap((testCandle) => testCandle.weighed)),
    testCandles,
    open,
  };
}
export const variantVerdicts = (plan: TrialPlan, state: TrialState, measures?: Measures): VariantVerdict[] =>
  variantsOf(plan).map((variant) => variantVerdict(plan, state, variant, measures));

/** One change for the trial after this one; null if there is nothing to change. */
export interface NextTrial {
  varies: Varied | null;
  what: AdviceWhat;
  variant: string;
  why: string;
}
/** A ladder asks for more or less of what it varies, and not for another wick. */
const variesNext = (plan: TrialPlan, what: AdviceWhat): Varied | null =>
  isLadder(plan.varies) && (what === "wick_up" || what === "wick_down" || what === "less_load_or_dye") ? plan.varies : VARIES[what];
const VARIES: Record<AdviceWhat, Varied | null> = {
  keep: null,
  test_full: null,
  wick_up: "wick size",
  wick_down: "wick size",
  change_kind: "wick kind",
  less_load_or_dye: "load",
};

/** Returns what to burn next: the full jar of what did well, else the change that the best of the variants asks for. */
export function nextTrial(plan: TrialPlan, state: TrialState): NextTrial | null {
  const verdicts = variantVerdicts(plan, state).filter((variantVerdict) => variantVerdict.advice);
  const of = (variantVerdict: VariantVerdict): NextTrial => ({
    varies: variesNext(plan, variantVerdict.advice?.what ?? "keep"),
    what: variantVerdict.advice?.what ?? "keep",
    variant: variantVerdict.variant,
    why: variantVerdict.advice?.why ?? "",
  });
  const full = verdicts.find((verdict) => verdict.advice?.what === "test_full" && verdict.safe === true);
  if (full) return of(full);
  if (verdicts.some((verdict) => verdict.open.length === 0)) return null;
  const change = verdicts.filter((verdict) => verdict.advice && verdict.advice.what !== "keep");
  // The one that is nearest to being right: safe before not safe, then what needs the least change.
  const [best] = change.sort(
    (a, b) => Number(b.safe === true) - Number(a.safe === true) || WEIGHT[a.advice?.what ?? "keep"] - WEIGHT[b.advice?.what ?? "keep"],
  );
  return best ? of(best) : null;
}
