import { describe, expect, it } from "vitest";
import { answerBurn, burnRequest } from "./burn";

const JAR = { inner_top_mm: 83, inner_bottom_mm: 76, height_mm: 90 };
const session = (pools: [number, number][], more: object = {}) => ({
  looks: pools.map(([minute, pool_mm]) => ({ minute, pool_mm, flame: "steady" })),
  ...more,
});
const burn = (sessions: object[], more: object = {}) => answerBurn(burnRequest.parse({ vessel: JAR, wax_family: "soy", sessions, ...more }));
const good = session([
  [75, 52],
  [120, 66],
  [180, 80],
  [240, 82],
]);

describe("what burn sessions say (common practice, no source, where no standard is named)", () => {
  it("keeps a wick whose pool is full between two and four hours by the third session", () => {
    expect(burn([good, good, good])).toMatchObject({
      safety: { pass: true, reasons: [] },
      pool: { verdict: "right", full_at_minute: 180 },
      advice: { what: "keep" },
    });
    expect(burn([good]).advice.why).toContain("1 of at least 3 sessions");
    // A half-filled jar gives an early look; it never counts as a full pass.
    expect(burn([good, good, good], { fill: "half" }).advice.what).toBe("test_full");
  });

  it("goes up where the pool does not reach the wall, and down where it does so too soon or too deep", () => {
    expect(burn([session([[240, 60]])])).toMatchObject({ pool: { verdict: "small", full_at_minute: null }, advice: { what: "wick_up" } });
    expect(burn([session([[75, 82]])])).toMatchObject({ pool: { verdict: "large", full_at_minute: 75 }, advice: { what: "wick_down" } });
    expect(burn([{ looks: [{ minute: 180, pool_mm: 80, pool_depth_mm: 16 }] }]).pool.verdict).toBe("large");
    // Looked at for three hours only, nobody knows.
    expect(burn([session([[180, 60]])])).toMatchObject({
      pool: { verdict: "not_recorded" },
      advice: { what: "keep", why: expect.stringContaining("not recorded long enough") },
    });
    expect(burn([{ looks: [] }]).pool).toEqual({ verdict: "not_recorded", full_at_minute: null });
  });

  it("says of which session the minute is, and weighs what moved the air before any size is changed", () => {
    expect(burn([good, good, good])).toMatchObject({ pool: { full_at_minute: 180 }, pool_session: 3 });
    const jumps = {
      looks: [
        { minute: 60, flame: "jumping" },
        { minute: 90, soot: true },
      ],
    };
    expect(burn([{ ...jumps, air: ["window open"] }])).toMatchObject({
      safety: { pass: false },
      advice: { what: "keep", why: expect.stringContaining("in still air before any size is changed") },
    });
    // In still air, or where something was seen that no draft gives, the wick goes down.
    expect(burn([jumps]).advice.what).toBe("wick_down");
    expect(burn([{ ...jumps, air: ["fan"] }, jumps]).advice.what).toBe("wick_down");
    expect(burn([{ looks: [...jumps.looks, { minute: 100, wall_c: 90 }], air: ["fan"] }]).advice.what).toBe("wick_down");
  });

  it("measures the pool of a tapered jar against its width where the wax stands by then", () => {
    // Full: 83 − 4 mm at the top; with three quarters burned away 77.75 − 4.
    const low = {
      looks: [
        { minute: 150, pool_mm: 75 },
        { minute: 240, pool_mm: 75 },
      ],
    };
    expect(burn([{ ...low, grams_before: 300 }], { tare_g: 100 }).pool.verdict).toBe("small");
    expect(
      burn(
        [
          { looks: [], grams_before: 300, grams_after: 150 },
          { ...low, grams_before: 150 },
        ],
        { tare_g: 100 },
      ).pool,
    ).toEqual({ verdict: "right", full_at_minute: 150 });
  });

  it.each([
    ["a flame above 76.2 mm (ASTM F2417, from memory)", { flame_mm: 77 }, /77 mm high; 76.2 mm/],
    ["a jumping flame", { flame: "jumping" }, /was jumping/],
    ["soot", { soot: true }, /sooted/],
    ["a hot wall", { wall_c: 66 }, /66 °C/],
    ["a pool that spills", { pool_depth_mm: 30 }, /30 mm deep/],
  ])("is not safe with %s, and says when it was seen", (_what, seen, reason) => {
    const answer = burn([good, { looks: [{ minute: 100, ...seen }] }]);
    expect(answer.safety.pass).toBe(false);
    expect(answer.safety.reasons[0]).toMatch(reason);
    expect(answer.safety.reasons[0]).toContain("session 2, minute 100");
    expect(answer.advice.what).toBe("wick_down");
  });

  it("changes the kind where no size would do, and asks for less oil where mushrooms come with a pool that is right", () => {
    expect(burn([{ looks: [{ minute: 240, pool_mm: 50, soot: true }] }]).advice.what).toBe("change_kind");
    const early = (pool: [number, number][]) => ({ looks: [{ minute: 90, mushroom: true }, ...session(pool).looks] });
    expect(burn([early([[180, 80]]), early([[180, 80]])]).advice.what).toBe("less_load_or_dye");
    expect(burn([early([[240, 50]]), early([[240, 50]])]).advice.what).toBe("change_kind");
    // One alone is noise; late ones are trimmed.
    expect(burn([early([[180, 80]]), good, good]).advice.what).toBe("keep");
    expect(burn([good, { looks: [...good.looks, { minute: 230, mushroom: true }] }, good]).advice.what).toBe("keep");
    expect(burn([{ looks: [{ minute: 200, flame: "dying" }] }]).advice.what).toBe("wick_up");
    expect(burn([{ looks: [...good.looks, { minute: 241, flame: "out" }] }]).advice.what).toBe("change_kind");
  });

  it("burns so much an hour, with the interval of Student's t, and so long still", () => {
    const weighed = [
      { grams_before: 212.4, grams_after: 196.1, minutes: 240 },
      { grams_before: 196.1, grams_after: 178.9, minutes: 240 },
      { grams_before: 178.9, grams_after: 162.9, minutes: 240 },
    ].map((item) => ({ looks: [], ...item }));
    const answer = burn(weighed, { tare_g: 12.9 });
    // Rates 4.075, 4.3, 4.0; scipy 1.10: mean 4.125, 95 % 3.737 to 4.513.
    expect(answer.grams_per_hour?.value).toBeCloseTo(4.13, 2);
    expect(answer.grams_per_hour?.low).toBeCloseTo(3.74, 2);
    expect(answer.grams_per_hour?.high).toBeCloseTo(4.51, 2);
    expect(answer.hours_left?.value).toBeCloseTo(150 / 4.13, 1);
    expect(answer.hours_left?.low).toBeLessThan(answer.hours_left?.value ?? 0);
    expect(burn(weighed.slice(0, 1)).grams_per_hour).toEqual({ value: 4.08, low: 3.06, high: 5.09 });
    expect(burn([good])).toMatchObject({ grams_per_hour: null, hours_left: null });
  });

  it("burns all its grams in all its hours: a session weighs as much as it was long", () => {
    const rate = (...list: [grams: number, minutes: number][]) => {
      let left = 500;
      return burn(
        list.map(([grams, minutes]) => {
          left -= grams;
          return { looks: [], grams_before: left + grams, grams_after: left, minutes };
        }),
        { tare_g: 0 },
      ).grams_per_hour;
    };
    // 1 g in five minutes and 16 g in four hours: 17 g in 245 min, where the mean of the two rates would be 8.
    expect(rate([1, 5], [16, 240])?.value).toBeCloseTo(4.16, 2);
    expect(rate([1, 30], [48, 480])?.value).toBeCloseTo(5.76, 2);
    // statsmodels 0.13.5, WLS of the rates on a constant with the hours as weights: 4.30769, 95 % 3.95920 to 4.65618.
    const uneven = rate([8, 120], [17, 240], [4, 60], [23, 300], [4, 60]);
    expect([uneven?.value, uneven?.low, uneven?.high]).toEqual([4.31, 3.96, 4.66]);
  });

  it("refuses a candle that grows, or weighs less than its vessel", () => {
    const read = (item: object, more: object = {}) => burnRequest.safeParse({ vessel: JAR, sessions: [{ looks: [], ...item }], ...more }).success;
    expect(read({ grams_before: 100, grams_after: 101 })).toBe(false);
    expect(read({ grams_before: 100, grams_after: 90 }, { tare_g: 95 })).toBe(false);
    expect(read({ grams_before: 100, grams_after: 90 }, { fill: "quarter" })).toBe(false);
    expect(burnRequest.safeParse({ vessel: JAR, sessions: [] }).success).toBe(false);
  });
});
