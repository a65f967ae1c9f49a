import { describe, expect, it } from "vitest";
import { type ATrial, aTestCandle, aTrial, aTrialPlan, burnOnce } from "../testing/trial";
import { lookWords } from "./events/checked";
import { MARKS } from "./limits";
import { nextTrial, variantVerdict, variantVerdicts, verdictOf } from "./verdict";

const DAY = 1_440;
type Seen = Parameters<typeof burnOnce>[4];
const GOOD: Seen = {
  120: { poolUm: 66_000, depthUm: 6_000, flame: "steady", soot: "none", mushroom: "none" },
  180: { poolUm: 80_000, flame: "steady" },
  240: { poolUm: 81_000, flame: "steady" },
};
const NARROW: Seen = { 120: { poolUm: 40_000, flame: "small" }, 240: { poolUm: 58_000, flame: "small" } };
const sessions = (trial: ATrial, key: string, all: Seen[], grams?: number[]) => {
  for (const [index, seen] of all.entries())
    burnOnce(trial, key, index * DAY, 240, seen, grams ? [grams[index] as number, grams[index + 1] as number] : undefined);
};
const verdict = (all: Seen[], over: Parameters<typeof aTestCandle>[1] = {}) => {
  const trial = aTrial(aTrialPlan([aTestCandle("A1", over)]));
  sessions(trial, "A1", all);
  const { plan, state } = trial.now();
  const out = verdictOf(plan, state, "A1");
  if (!out) throw new Error("no verdict");
  return out;
};

// The trade's own sentences on reading a burn, line by line. Common practice, no source, where no standard is named.
describe("reading a burn (trade rules, section on burn tests, line by line)", () => {
  it("a pool that is full between 2 and 4 h by the third session is good", () => {
    expect(verdict([GOOD, GOOD, GOOD])).toMatchObject({ safe: true, pool: { verdict: "right", full_at_minute: 180 }, advice: { what: "keep" }, enough: true });
    // What counts is the third session: a slow first one is not compared with it.
    expect(verdict([NARROW, NARROW, GOOD]).pool.verdict).toBe("right");
    expect(verdict([GOOD]).enough).toBe(false);
    // A third session that ends at three hours leaves it to the newest that was looked at for four.
    expect(verdict([NARROW, GOOD, { 180: { poolUm: 60_000 } }]).pool).toMatchObject({
      verdict: "right",
      seen: [{ session: 1 }, { session: 1 }, { session: 1 }],
    });
    expect(verdict([NARROW, NARROW, { 180: { poolUm: 60_000 } }]).pool.verdict).toBe("small");
  });
  it("the bottom seen through the pool after 3 h is too hot", () => {
    expect(verdict([{ ...GOOD, 180: { bottom: true } }])).toMatchObject({ safe: false, advice: { what: "wick_down" } });
    expect(verdict([{ ...GOOD, 120: { bottom: true } }]).safe).toBe(true);
  });
  it("a hard edge between liquid and solid means a harder wax", () => {
    expect(verdict([{ 240: { poolUm: 50_000, edge: true } }]).advice.why).toMatch(/hard edge.*harder wax/);
  });
  it("mushroom within 1–2 h is bad, at 3–4 h trim, at 7 h normal; an occasional early one is noise", () => {
    const early: Seen = { 90: { mushroom: "large" }, ...GOOD };
    delete early[120];
    const bad = { ...early };
    expect(verdict([bad, bad, bad]).advice.what).toBe("less_load_or_dye");
    expect(verdict([bad, GOOD, GOOD]).advice.what).toBe("keep");
    const late: Seen = { ...GOOD, 230: { mushroom: "small" } };
    expect(verdict([late, late, late]).advice.what).toBe("keep");
  });
  it("a small steady flame is good, a large unstable one is out", () => {
    expect(verdict([{ 200: { flame: "small" } }]).safe).toBe(true);
    for (const flame of ["large", "jumping"] as const) expect(verdict([{ 200: { flame } }])).toMatchObject({ safe: false, advice: { what: "wick_down" } });
  });
  it("too hot: wick down or a harder blend; tunnelling: up; mushroom or soot: less load or dye, or another kind", () => {
    expect(verdict([{ 90: { poolUm: 81_000 }, 240: { poolUm: 82_000 } }]).advice).toMatchObject({ what: "wick_down" });
    expect(verdict([{ ...GOOD, 180: { poolUm: 80_000, depthUm: 15_000 } }]).advice).toMatchObject({
      what: "wick_down",
      why: expect.stringContaining("harder blend"),
    });
    expect(verdict([NARROW]).advice.what).toBe("wick_up");
    expect(verdict([{ 240: { poolUm: 50_000, soot: "black" } }]).advice.what).toBe("change_kind");
  });
  it("where no size works, the kind changes before the size", () => {
    const both: Seen = { 100: { mushroom: "large" }, 240: { poolUm: 50_000 } };
    expect(verdict([both, both]).advice.what).toBe("change_kind");
  });
  it("drowning: the flame shrinks or dies", () => {
    expect(verdict([{ 240: { poolUm: 50_000, flame: "dying" } }]).advice.what).toBe("wick_up");
    expect(verdict([{ ...GOOD, 239: { flame: "out" } }]).advice.what).toBe("change_kind");
    const trial = aTrial(aTrialPlan([aTestCandle("A1")]));
    trial.add(0, { kind: "lit", payload: { testCandle: "A1", trimUm: null, air: [], early: "" } });
    trial.add(100, { kind: "checked", payload: { testCandle: "A1", poolUm: 40_000, flame: "small" } });
    trial.add(150, { kind: "extinguished", payload: { testCandle: "A1", why: "by itself", sign: "" } });
    const { plan, state } = trial.now();
    expect(verdictOf(plan, state, "A1")?.advice.what).toBe("wick_up");
  });
  it("two flames joined, or anything but the wick burning, is out", () => {
    expect(verdict([{ 60: { joined: true } }]).safe).toBe(false);
    expect(verdict([{ 60: { elsewhere: true } }]).safety.reasons[0]?.words).toMatch(/but the wick burns/);
  });
  it("a half-filled jar gives an early look; a full one must follow", () => {
    const half = { fill: "half" as const, fillMg: 180_000 };
    const trial = aTrial(aTrialPlan([aTestCandle("A1", half), aTestCandle("A2", half)]));
    for (const key of ["A1", "A2"]) sessions(trial, key, [GOOD, GOOD, GOOD]);
    const { plan, state } = trial.now();
    expect(variantVerdict(plan, state, "A")).toMatchObject({ safe: true, advice: { what: "test_full" }, open: ["half-filled: the full jar has to follow"] });
    expect(nextTrial(plan, state)).toMatchObject({ what: "test_full", variant: "A" });
  });
  it("a pillar's pool stays inside, about 6 mm from the edge (uncertain)", () => {
    const pillar = { container: "mold" as const, innerTopUm: 70_000, innerBottomUm: 70_000 };
    expect(verdict([{ 240: { poolUm: 55_000 } }], pillar).pool.verdict).toBe("right");
    expect(verdict([{ 240: { poolUm: 60_000 } }], pillar)).toMatchObject({ pool: { verdict: "large" }, advice: { what: "wick_down" } });
  });
  it("safety is judged first, by marks that are named", () => {
    const bad = verdict([{ ...GOOD, 200: { flameUm: 80_000 } }]);
    expect(bad.safety.reasons).toEqual([
      {
        id: "flame",
        words: "The flame was 80 mm high; 76.2 mm is the most (ASTM F2417, from memory) (session 1, minute 200).",
        seen: [{ session: 0, look: 2 }],
      },
    ]);
    for (const mark of MARKS) expect(mark.source === "common practice, no source" || mark.memory, mark.id).toBe(true);
    expect(MARKS.map((mark) => mark.source).join()).toMatch(/ASTM F2417.*EN 15493.*EN 15426.*EN 15494/);
  });
});

describe("where lengths are inches and heat is °F", () => {
  const US = { len: (um: number) => `${Math.round((um / 25_400) * 16) / 16} in`, t: (centi: number) => `${Math.round((centi / 100) * 1.8 + 32)} °F` };
  it("says no number in the other system: neither what was seen, nor the mark that it passed", () => {
    const hot = { flameUm: 88_900, wall: 7_000, depthUm: 28_575 };
    const trial = aTrial(aTrialPlan([aTestCandle("A1")]));
    sessions(trial, "A1", [{ 200: hot }]);
    const { plan, state } = trial.now();
    const reasons = verdictOf(plan, state, "A1", US)?.safety.reasons.map((reason) => reason.words) ?? [];
    expect(reasons).toEqual([
      "The flame was 3.5 in high; 3 in is the most (ASTM F2417, from memory) (session 1, minute 200).",
      "The wall was 158 °F hot; above 140 °F too hot to hold (session 1, minute 200).",
      "The pool was 1.125 in deep (session 1, minute 200).",
    ]);
    const shown = lookWords(hot, US);
    expect(shown).toBe("1.125 in deep, 3.5 in high, wall 158 °F");
    for (const text of [...reasons, shown]) expect(text).not.toMatch(/\d (mm|°C)/);
    // The advice repeats the first reason in the same words.
    expect(variantVerdict(plan, state, "A", US).advice?.why).toContain("3.5 in high");
  });
});

describe("a verdict", () => {
  it("counts a session that was put out for safety though no look says why, and a glass that cracked", () => {
    const trial = aTrial(aTrialPlan([aTestCandle("A1"), aTestCandle("A2")]));
    trial.add(0, { kind: "lit", payload: { testCandle: "A1", trimUm: null, air: [], early: "" } });
    trial.add(100, { kind: "checked", payload: { testCandle: "A1", flame: "steady" } });
    trial.add(140, { kind: "extinguished", payload: { testCandle: "A1", why: "safety", sign: "smoke" } });
    trial.add(150, { kind: "stopped", payload: { testCandle: "A2", why: "the glass is cracked" } });
    const { plan, state } = trial.now();
    expect(verdictOf(plan, state, "A1")).toMatchObject({
      safe: false,
      advice: { what: "wick_down" },
      safety: { reasons: [{ words: expect.stringContaining("smoke") }] },
    });
    expect(verdictOf(plan, state, "A2")).toMatchObject({ safe: false, advice: { what: "keep", why: expect.stringContaining("nothing of the wick") } });
  });

  it("rests on looks that can be opened, and says what the record cannot tell", () => {
    const item = verdict([GOOD, GOOD, { 180: { poolUm: 81_000 } }]);
    expect(item.pool.seen).toEqual([{ session: 2, look: 0 }]);
    expect(item.unknown).toEqual([
      "The flame was never measured, so nothing is known of its height.",
      "How hot the wall grew was never measured.",
      "It was not weighed before and after, so nothing is known of how fast it burns.",
    ]);
    expect(verdict([{}]).safe).toBeNull();
  });

  it("says how fast it burns, how long it will and the whole would, from what was weighed", () => {
    const trial = aTrial(aTrialPlan([aTestCandle("A1")]));
    sessions(trial, "A1", [GOOD, GOOD, GOOD], [560, 543.7, 526.5, 510.5]);
    const { plan, state } = trial.now();
    const { grams_per_hour: rate, hours_left: left, hours_whole: whole } = verdictOf(plan, state, "A1") ?? {};
    // Rates 4.075, 4.3, 4.0 (scipy 1.10: mean 4.125, 95 % 3.737 to 4.513); 360 g of wax, 49.5 g gone.
    expect(rate?.value).toBeCloseTo(4.13, 2);
    expect(rate?.low).toBeCloseTo(3.74, 2);
    expect(left?.value).toBeCloseTo(310.5 / 4.125, 0);
    expect(whole?.value).toBeCloseTo(360 / 4.125, 0);
    expect((left?.low ?? 0) < (left?.value ?? 0) && (left?.value ?? 0) < (left?.high ?? 0)).toBe(true);
  });

  it("holds a variant to all its test candles, and proposes one change made from the best of them", () => {
    const trial = aTrial(aTrialPlan(["A1", "A2", "B1", "B2", "C1"].map((key) => aTestCandle(key))));
    sessions(trial, "A1", [NARROW, NARROW, NARROW]);
    sessions(trial, "A2", [NARROW, NARROW, NARROW]);
    sessions(trial, "B1", [GOOD, GOOD, GOOD]);
    sessions(trial, "B2", [GOOD, GOOD, { 180: { soot: "black", poolUm: 80_000 } }]);
    const { plan, state } = trial.now();
    const [a, b, c] = variantVerdicts(plan, state);
    expect(a).toMatchObject({ safe: true, pool: "small", advice: { what: "wick_up" }, open: ["its pool is small"] });
    // One test candle that sooted outweighs one that did not.
    expect(b).toMatchObject({ safe: false, advice: { what: "wick_down" }, open: expect.arrayContaining(["it is not safe"]) });
    expect(c).toMatchObject({ safe: null, advice: null, open: ["none of it has burned yet"] });
    expect(nextTrial(plan, state)).toMatchObject({ what: "wick_up", varies: "wick size", variant: "A" });
  });

  it("needs no further trial where one variant passed", () => {
    const trial = aTrial(aTrialPlan([aTestCandle("A1"), aTestCandle("A2")]));
    for (const key of ["A1", "A2"]) sessions(trial, key, [GOOD, GOOD, GOOD]);
    const { plan, state } = trial.now();
    expect(variantVerdict(plan, state, "A").open).toEqual([]);
    expect(nextTrial(plan, state)).toBeNull();
  });
});
