import { PROTOCOLS, protocol, type TrialBody, type TrialPlan, VARIED } from "@hearth/core";
import { v7 } from "uuid";
import { describe, expect, it } from "vitest";
import type { Design } from "@/server/burn/trial-design";
import { aTestCandle, atMinute as at, trialFrom } from "@/testing/test-candles";
import { askedBy, bestWick, designWarnings, draftsFor, nameFor } from "./design-model";
import { cardsOf, isDue, leftOf, linesOf, signsIn, tappedPool, toWeigh, trendOf, widthNow } from "./model";

const SI = { len: (um: number) => `${um / 1_000} mm`, t: (c: number) => `${c / 100} °C` };
const plan: TrialPlan = {
  format: 2,
  name: "t",
  varies: "wick size",
  protocol: protocol.parse(PROTOCOLS[0]),
  testCandles: [aTestCandle("A1"), aTestCandle("A2"), aTestCandle("B1")],
};
const trial = (...entries: [minute: number, container: TrialBody][]) => trialFrom([[0, { kind: "started", payload: { plan } }], ...entries]).state;
const lit = (key: string): TrialBody => ({ kind: "lit", payload: { testCandle: key, trimUm: 5_000, air: [], early: "" } });
const out = (key: string): TrialBody => ({ kind: "extinguished", payload: { testCandle: key, why: "protocol", sign: "" } });
const weighed = (key: string, session: number, when: "before" | "after", mg: number): TrialBody => ({
  kind: "weighed",
  payload: { testCandle: key, session, when, mg },
});
const batch = (over: object = {}) => [{ id: "0190c0de-0000-7000-8000-00000000c001", number: 7, pouredAt: at(-30_000), testFrom: at(-5), cracked: [], ...over }];

describe("the cards of a trial", () => {
  it("stand by what wants hands soonest: burning by its next look, then ready, then at rest", () => {
    const state = trial([1, lit("B1")], [30, lit("A2")], [200, out("B1")]);
    const keys = (minute: number) => cardsOf(plan, state, batch(), at(minute)).map((card) => `${card.testCandle.key} ${card.now.state}`);
    expect(keys(40)).toEqual(["A2 burning", "A1 ready", "B1 resting"]);
    const both = trial([1, lit("B1")], [30, lit("A2")]);
    expect(cardsOf(plan, both, batch(), at(40)).map((card) => card.testCandle.key)).toEqual(["B1", "A2", "A1"]);
    const [first] = cardsOf(plan, both, batch(), at(77));
    expect(first && isDue(first.now, at(77))).toBe(true);
    expect(first && isDue(first.now, at(75))).toBe(false);
  });

  it("say what stands in the way: not poured, or not cured", () => {
    const state = trial();
    expect(cardsOf(plan, state, batch({ pouredAt: null, testFrom: null }), at(1))[0]).toMatchObject({ blocked: "batch 7 is not poured yet", early: null });
    expect(cardsOf(plan, state, batch({ testFrom: at(9_000) }), at(1))[0]).toMatchObject({ blocked: "", early: at(9_000) });
    expect(cardsOf(plan, state, batch(), at(1))[0]).toMatchObject({ blocked: "", early: null });
  });

  it("ask for the weight after, and know how much wax is left and how wide the jar is there", () => {
    const state = trial([0, lit("A1")], [0, weighed("A1", 1, "before", 560_000)], [240, out("A1")]);
    expect(state.testCandles.A1 && toWeigh(state.testCandles.A1)).toBe(1);
    const after = trial([0, lit("A1")], [0, weighed("A1", 1, "before", 560_000)], [240, out("A1")], [300, weighed("A1", 1, "after", 380_000)]);
    const item = after.testCandles.A1;
    if (!item) throw new Error("no test candle");
    expect(toWeigh(item)).toBeNull();
    expect(leftOf(aTestCandle("A1"), item)).toBeCloseTo(0.5, 6);
    expect(widthNow(aTestCandle("A1"), item)).toBeLessThan(widthNow(aTestCandle("A1"), { sessions: [], stopped: null }));
  });
});

describe("a look in the hand", () => {
  const session = trial([0, lit("A1")]).testCandles.A1?.sessions[0];
  it("says at once what ends the session, the bottom only after three hours", () => {
    if (!session) throw new Error("no session");
    const ids = (hand: Parameters<typeof signsIn>[0], minute: number) => signsIn(hand, session, at(minute), SI).map((sign) => sign.id);
    expect(ids({ flame: "steady", soot: "none" }, 60)).toEqual([]);
    expect(ids({ flame: "jumping" }, 60)).toEqual(["unsteady"]);
    expect(ids({ bottom: true }, 120)).toEqual([]);
    expect(ids({ bottom: true }, 181)).toEqual(["bottom"]);
    expect(ids({ wall: 6_500, soot: "black", joined: true }, 60)).toEqual(["joined", "soot", "wall"]);
    for (const sign of signsIn({ elsewhere: true }, session, at(9), SI)) expect(sign.step).toMatch(/Never water/);
  });

  it("takes a tap on the round as the width of the pool, whole millimeters, the wall itself near the edge", () => {
    expect(tappedPool(36, 72, 80_000)).toBe(40_000);
    expect(tappedPool(71.5, 72, 80_000)).toBe(80_000);
    expect(tappedPool(200, 72, 76_500)).toBe(76_500);
    expect(tappedPool(0, 72, 80_000)).toBe(0);
  });
});

describe("the pictures", () => {
  const look = (key: string, poolUm: number, depthUm?: number): TrialBody => ({
    kind: "checked",
    payload: { testCandle: key, poolUm, ...(depthUm === undefined ? {} : { depthUm }) },
  });
  it("draw every session of every test candle that was measured, by its minutes", () => {
    const state = trial([0, lit("A1")], [75, look("A1", 50_000, 4_000)], [120, look("A1", 60_000)], [240, out("A1")]);
    const lines = linesOf(plan, state, "pool");
    expect(lines.map((line) => [line.key, line.sessions.length])).toEqual([
      ["A1", 1],
      ["A2", 0],
      ["B1", 0],
    ]);
    expect(lines[0]?.sessions[0]?.points).toEqual([
      [75, 50_000],
      [120, 60_000],
    ]);
    expect(linesOf(plan, state, "depth")[0]?.sessions[0]?.points).toEqual([[75, 4_000]]);
  });

  it("hold a pool against the jar where the wax stood by then", () => {
    const state = trial(
      [0, lit("A1")],
      [0, weighed("A1", 1, "before", 560_000)],
      [120, look("A1", 80_000)],
      [240, out("A1")],
      [300, weighed("A1", 1, "after", 290_000)],
      [1_000, lit("A1")],
      [1_000, weighed("A1", 2, "before", 290_000)],
      [1_120, look("A1", 77_000)],
    );
    const trend = trendOf(aTestCandle("A1"), state.testCandles.A1 ?? { sessions: [], stopped: null });
    expect(trend.map((item) => item.session)).toEqual([1, 2]);
    expect(trend[0]?.share).toBeCloseTo(80 / 82.32, 3);
    // A quarter of the wax left stands far lower, where the jar is narrower.
    expect(trend[1]?.widthUm).toBeLessThan(79_000);
    expect(trend[1]?.share).toBeGreaterThan(trend[0]?.share ?? 1);
  });
});

const WICKS = ["4", "6", "8"].map((size, n) => ({
  id: `0190c0de-0000-7000-8000-00000000b00${n}`,
  name: `flat-braid cotton ${size}`,
  kind: "flat-braid cotton",
  size,
  fromUm: 50_000 + n * 12_000,
  toUm: 62_000 + n * 12_000,
  families: ["soy"],
}));
const design = (over: Partial<Design> = {}): Design => ({
  product: { id: v7(), name: "Rain jar", wickId: WICKS[1]?.id ?? null, wicks: 1 },
  products: [],
  formulas: [],
  formula: {
    id: v7(),
    name: "Rain",
    versionId: v7(),
    loadPpm: 80_000,
    waxId: "w1",
    fragranceId: "f1",
    family: "soy",
    maxLoadPpm: 90_000,
    dyed: false,
    added: false,
    isEssential: false,
    isOnePot: true,
  },
  containers: [
    {
      id: "v1",
      container: "vessel",
      name: "jar",
      fillMg: 180_000,
      innerTopUm: 72_000,
      innerBottomUm: 71_000,
      heightUm: 70_000,
      shape: "straight",
      wicks: 1,
      testJars: 0,
    },
  ],
  containerId: "v1",
  wicks: WICKS,
  waxes: [
    { id: "w1", name: "container soy", family: "soy", maxLoadPpm: 90_000 },
    { id: "w2", name: "coconut blend", family: "coconut", maxLoadPpm: null },
  ],
  fragrances: [{ id: "f1", name: "rain", kind: "fragrance" }],
  additives: [{ id: "a1", name: "hardener" }],
  dyes: [{ id: "d1", name: "blue" }],
  passed: [],
  tried: [],
  rack: [],
  batchId: null,
  before: null,
  ...over,
});
const BODY = design().containers[0] as Design["containers"][number];

describe("a trial that is designed", () => {
  it("has a wick for everything it varies, as many as the vessel is made for", () => {
    for (const varies of VARIED)
      for (const wicks of [1, 2, 3]) {
        const container = { ...BODY, wicks };
        const drafts = draftsFor(
          design({ product: null, containers: [container], wicks: WICKS.map((wick) => ({ ...wick, fromUm: 10_000, toUm: 200_000 })) }),
          container,
          varies,
          null,
          { steps: [2, 4], of: { id: "w2", name: "coconut blend" } },
        ).filter((draft) => draft.chosen);
        expect(drafts.length, varies).toBeGreaterThan(0);
        for (const draft of drafts) expect(draft.wick?.count, `${varies} ${wicks}`).toBe(wicks);
      }
    // Where nothing on the shelf suits, the wick that is chosen counts.
    const bare = design({ product: null, wicks: [{ ...(WICKS[0] as (typeof WICKS)[number]), fromUm: null, toUm: null }] });
    expect(bestWick(bare, BODY)).toBeNull();
    expect(draftsFor(bare, BODY, "load", { id: "mine", count: 1 }).every((draft) => draft.wick?.id === "mine")).toBe(true);
  });

  it("offers for each thing that varies what it has now and what is worth trying, and changes nothing else", () => {
    const loads = draftsFor(design(), BODY, "load", null, { steps: [6, 8, 10], of: null });
    // What is above what the wax is said to hold is not chosen.
    expect(loads.map((load) => [load.says, load.chosen])).toEqual([
      ["load 6 %", true],
      ["load 8 %", true],
      ["load 10 %", false],
    ]);
    const blend = draftsFor(design(), BODY, "blend", null, { steps: [10, 20], of: { id: "w2", name: "coconut blend" } });
    expect(blend.map((draft) => draft.change.ladder)).toEqual([10, 20].map((amount) => ({ kind: "blend", id: "w2", amount })));
    expect(draftsFor(design(), BODY, "dye", null, { steps: [1, 2], of: { id: "d1", name: "blue" } }).map((draft) => draft.says)).toEqual([
      "1 drop of blue per lb",
      "2 drops of blue per lb",
    ]);
    expect(new Set(loads.map((load) => JSON.stringify([load.wick, load.container.id]))).size).toBe(1);
    expect(loads.find((load) => load.says === "load 8 %")?.change).toEqual({ loadPpm: 80_000 });
    expect(draftsFor(design(), BODY, "wax").map((draft) => draft.change)).toEqual([{}, { waxId: "w2" }]);
    const sizes = draftsFor(design(), BODY, "wick size");
    expect(sizes.filter((size) => size.chosen).map((size) => size.says)).toContain("flat-braid cotton 6");
    expect(sizes.every((size) => Object.keys(size.change).length === 0)).toBe(true);
    expect(draftsFor(design({ formula: null }), BODY, "load")).toEqual([]);
    expect(draftsFor(design(), BODY, null)).toMatchObject([{ says: "flat-braid cotton 6", chosen: true }]);
  });

  it("warns of dye in a test of the load, of one alone, and of kinds mixed with sizes", () => {
    const drafts = draftsFor(design(), BODY, "load", null, { steps: [6, 8], of: null });
    const dyed = design({ formula: { ...(design().formula as NonNullable<Design["formula"]>), dyed: true } });
    expect(designWarnings(design(), "load", drafts, 2, false)).toEqual([]);
    expect(designWarnings(dyed, "load", drafts, 2, false)[0]).toMatch(/No dye/);
    expect(designWarnings(design(), "load", drafts, 1, false)[0]).toMatch(/two of each/);
    expect(designWarnings(design(), "load", drafts, 2, true)[0]).toMatch(/half-fill/);
    expect(designWarnings(design(), "load", drafts.slice(0, 1), 2, false)[0]).toMatch(/at least two/);
  });

  it("follows a trial: the full jar after a half that did well, one size up after a small pool", () => {
    const half = { ...plan, varies: null, testCandles: [aTestCandle("A1", { fill: "half", fillMg: 180_000 })] };
    const entries: [number, TrialBody][] = [0, 1_440, 2_880].flatMap((from): [number, TrialBody][] => [
      [from, lit("A1")],
      [from + 120, { kind: "checked", payload: { testCandle: "A1", poolUm: 60_000, flame: "steady" } }],
      [from + 200, { kind: "checked", payload: { testCandle: "A1", poolUm: 80_000, flame: "steady" } }],
      [from + 240, out("A1")],
    ]);
    const { state } = trialFrom([[0, { kind: "started", payload: { plan: half } }], ...entries]);
    const before = { id: v7(), number: 3, name: "halves", protocol: half.protocol, plan: half, state, variant: "A" };
    expect(askedBy(design({ before }))?.what).toBe("test_full");
    expect(nameFor(design({ before }), BODY, null)).toBe("Full jars of Rain jar");
    expect(nameFor(design(), BODY, "load")).toBe("Which load for Rain jar");
    expect(askedBy(design())).toBeNull();
  });
});
