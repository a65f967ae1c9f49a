import fc from "fast-check";
import { bignumber } from "mathjs";
import { describe, expect, it } from "vitest";
import { type BatchEvent, batchOf, refusal } from "../batch/batch";
import { progress } from "../batch/phase";
import { planBatch } from "../batch/planning";
import type { Process } from "../process/schema";
import { anId, at, GRAMS, presetProcess } from "../testing/batch";
import { METRIC } from "../units/measured-text";
import { amountsFor as amountsOf, type PotOrder } from "../weigh-out/amounts";
import { splitIntoPitchers } from "../weigh-out/pitchers";
import { portionsFor } from "../weigh-out/portions";
import { difference } from "./difference";
import { disagreements } from "./disagreements";
import { limitsOf, loadOfTotal, loadOfWax, type Materials, mixOf } from "./materials";
import type { FormulaSpec } from "./schema";
import { formulaSpec } from "./schema";

const id = { soy: anId(), hard: anId(), house: anId(), x: anId(), y: anId(), acid: anId(), rose: anId(), dust: anId(), jar: anId() };
const shelf: Materials = {
  waxes: [
    { id: id.soy, name: "soft soy", family: "soy", maxLoadPpm: 100_000, melt: 4_900, pourRange: { low: 6_600, high: 7_100 }, leastCureSeconds: 432_000 },
    { id: id.hard, name: "hard paraffin", family: "paraffin", maxLoadPpm: 120_000, ceiling: 9_000 },
    {
      id: id.house,
      name: "house blend",
      family: "blend",
      maxLoadPpm: null,
      blend: [
        { id: id.soy, share: 3 },
        { id: id.hard, share: 1 },
      ],
    },
  ],
  fragrances: [
    { id: id.x, name: "fern", kind: "fragrance", maxLoadPpm: null, flashPoint: 9_500 },
    { id: id.y, name: "mint oil", kind: "essential oil", maxLoadPpm: 40_000, flashPoint: 5_600, families: ["paraffin"] },
  ],
  additives: [{ id: id.acid, name: "stearic acid", maxPpm: 30_000 }],
  dyes: [
    { id: id.rose, name: "rose", kind: "liquid", eachMg: 30 },
    { id: id.dust, name: "rust powder", kind: "powder" },
  ],
};
const process = presetProcess("soy-bind-hot");
/** The process with other ranges and times, by the id of the step. */
const worked = (over: Record<string, object>, ceiling = process.ceiling): Process => ({
  ...process,
  ceiling,
  steps: process.steps.map((step) => ({ ...step, ...over[step.id] }) as Process["steps"][number]),
});
const range = (low: number, high: number) => ({ range: { low, high } });
const spec = (over: Partial<FormulaSpec> = {}): FormulaSpec => ({
  waxes: [
    { id: id.soy, share: 75 },
    { id: id.hard, share: 25 },
  ],
  fragrances: [{ id: id.x, share: 12 }],
  basis: "wax",
  loadPpm: 80_000,
  process,
  notes: "",
  ...over,
});
const jar = {
  id: id.jar,
  name: "jar",
  statedFillMg: 200_000,
  workingFillMg: 200_000,
  soldByWeight: false,
  innerTopUm: 80_000,
  innerBottomUm: 76_000,
  heightUm: 90_000,
};
const fills = (count: number, fillMg = 200_000) => [{ name: "jar", fillMg, count }];
const order = (over: Partial<PotOrder> = {}): PotOrder => ({ fills: fills(4), sparePpm: 0, scales: GRAMS, ...over });
const amountsFor = (recipe: FormulaSpec, on: Materials, given: PotOrder) => amountsOf(recipe, on, given);
const grams = (list: readonly { name: string; mg: number }[]) => Object.fromEntries(list.map((item) => [item.name, item.mg / 1_000]));
const codes = (over: Partial<FormulaSpec>, unit: "C" | "F" = "C") => disagreements(spec(over), shelf, unit).map((disagreement) => disagreement.code);
const said = (over: Partial<FormulaSpec>, code: string) => disagreements(spec(over), shelf, "C").find((disagreement) => disagreement.code === code)?.message;

describe("the amounts of a formula of many parts", () => {
  const full = spec({
    fragrances: [
      { id: id.x, share: 12 },
      { id: id.y, share: 10 },
    ],
    additives: [{ id: id.acid, ppm: 20_000 }],
    dyes: [
      { id: id.rose, by: "drops", amount: 6 },
      { id: id.dust, by: "percent", amount: 0.2 },
    ],
  });

  it("weighs every part, sums to the total exactly, and names the error each rounding brings (big numbers of mathjs)", () => {
    const out = amountsFor(full, shelf, order());
    // 800 g ÷ (1 + 0.08 + 0.02 + 0.002) = 725.95 g of wax.
    const wax = bignumber(800).div("1.102");
    expect(out.exact.waxMg / 1_000).toBeCloseTo(wax.toNumber(), 9);
    expect(grams(out.components)).toEqual({ "soft soy": 545, "hard paraffin": 181, "stearic acid": 15, fern: 32, "mint oil": 26, rose: 0, "rust powder": 1 });
    expect(out.components.find((component) => component.name === "rose")?.count).toEqual({ n: 10, of: "drops", eachMg: 30 });
    expect(out.components.find((component) => component.name === "soft soy")?.exactMg).toBeCloseTo(wax.mul(750).toNumber(), 3);
    expect(out.components.reduce((sum, component) => sum + component.mg, 0)).toBe(out.totalMg);
  });

  it("opens a blend of the shelf to its waxes and adds up the same wax from two places", () => {
    const out = amountsFor(
      spec({
        waxes: [
          { id: id.house, share: 1 },
          { id: id.soy, share: 1 },
        ],
        fragrances: [],
        loadPpm: 0,
      }),
      shelf,
      order(),
    );
    expect(grams(out.components)).toEqual({ "soft soy": 700, "hard paraffin": 100 });
  });

  it("never lets rounding carry one oil over its own limit while another has room", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40 }), fc.integer({ min: 1, max: 40 }), fc.integer({ min: 5_000, max: 400_000 }), (a, b, fill) => {
        const fragrances = [
          { id: id.x, share: a },
          { id: id.y, share: b },
        ];
        const limit = limitsOf(spec({ fragrances }), shelf)[0]?.ppm ?? 0;
        const loadPpm = Math.min(limit, 100_000);
        const out = amountsFor(spec({ fragrances, loadPpm }), shelf, order({ fills: fills(1, fill) }));
        const mint = out.components.find((component) => component.name === "mint oil")?.mg ?? 0;
        expect(mint).toBeLessThanOrEqual(0.04 * out.waxMg + 1e-6);
        expect(out.components.reduce((sum, component) => sum + component.mg, 0)).toBe(out.totalMg);
      }),
      { numRuns: 300 },
    );
  });

  it("begins from a wax weight and shares it over the jars: 204 g at 8 %; 393 + 32 over three half jars (common practice, no source)", () => {
    const item = spec({ waxes: [{ id: id.soy, share: 1 }] });
    expect(
      grams(
        amountsFor(
          item,
          shelf,
          order({ start: { waxMg: 204_000 }, scales: { wax: { ...GRAMS.wax, resolutionUg: 100_000 }, oil: { ...GRAMS.oil, resolutionUg: 100_000 } } }),
        ).components,
      ),
    ).toEqual({ "soft soy": 204, fern: 16.3 });
    const shared = amountsFor({ ...item, loadPpm: 81_400 }, shelf, order({ start: { waxMg: 393_000 } }));
    expect(shared).toMatchObject({ totalMg: 425_000, fragranceMg: 32_000 });
    const half = planBatch(
      {
        process,
        pots: [{ name: "Fern", number: 1, spec: { ...item, loadPpm: 81_400 } }],
        products: [{ ...jar, count: 3, part: { kind: "half" } }],
        start: { waxMg: 393_000 },
        sparePpm: 0,
        scales: GRAMS,
      },
      shelf,
    );
    expect(half.products[0]).toMatchObject({ fillMg: 141_666, count: 3 });
    expect(half.pots[0]?.sparePpm).toBe(0);
  });

  it("adds what is left in the pitchers to the gram, and shows it in the working", () => {
    const out = amountsFor(full, shelf, order({ sparePpm: 50_000, spareMg: 24_000 }));
    expect(out.totalMg).toBe(864_000);
    expect(out.working.find((step) => step.gives.name === "fills and extra")).toMatchObject({
      by: "add",
      from: [{ value: 840 }, { name: "left in pitchers", value: 24 }],
    });
    expect(out.components.reduce((sum, component) => sum + component.mg, 0)).toBe(864_000);
  });

  it("splits over pitchers of one load, dye drops and all", () => {
    const out = amountsFor(full, shelf, order({ fills: fills(11) }));
    const pitchers = splitIntoPitchers(out.components, 900_000, 1_000_000, out.maxLoadPpm);
    expect(pitchers).toHaveLength(3);
    out.components.forEach((part, at_) => {
      expect(pitchers.reduce((sum, pitcher) => sum + (pitcher.components[at_]?.mg ?? 0), 0)).toBe(part.mg);
      if (part.count) expect(pitchers.reduce((sum, pitcher) => sum + (pitcher.components[at_]?.count?.n ?? 0), 0)).toBe(part.count.n);
    });
  });

  it("is frozen into a plan whose dye is counted, not weighed", () => {
    const plan = planBatch(
      { process, pots: [{ name: "Fern", number: 1, spec: full }], products: [{ ...jar, count: 4 }], sparePpm: 0, pitcherMg: 500_000, scales: GRAMS },
      shelf,
    );
    expect(plan.pots[0]?.pitchers).toHaveLength(2);
    const started = {
      id: anId(),
      kind: "started",
      happenedAt: at(0),
      arrivedAt: at(0),
      personId: null,
      instrumentId: null,
      corrects: null,
      payload: { plan },
    } as BatchEvent;
    const state = batchOf([started]);
    expect(
      progress(plan, state.state)
        .prompts.slice(0, 7)
        .map((prompt) => prompt.name),
    ).toEqual(["weigh soft soy", "weigh hard paraffin", "weigh stearic acid", "weigh fern", "weigh mint oil", "count rose", "weigh rust powder"]);
    const counted = { ...started, id: anId(), kind: "counted", payload: { pot: 0, componentId: id.rose, n: 7 } } as BatchEvent;
    expect(refusal(state, counted)).toBeNull();
    expect(refusal(state, { ...counted, kind: "weighed", payload: { pot: 0, componentId: id.rose, mg: 5 } })?.message).toBe(
      "rose is counted in drops, not weighed.",
    );
    expect(refusal(state, { ...counted, payload: { pot: 0, componentId: id.soy, n: 5 } })?.message).toBe("soft soy is weighed, not counted.");
    const done = (...more: BatchEvent[]) => progress(plan, batchOf([started, ...more]).state).prompts[5]?.done;
    expect(done(counted)).toBe(false);
    expect(done(counted, { ...counted, id: anId(), payload: { pot: 0, componentId: id.rose, n: 3 } } as BatchEvent)).toBe(true);
  });

  it("refuses a dye above a tenth of the wax", () => {
    expect(formulaSpec.safeParse(spec({ dyes: [{ id: id.dust, by: "percent", amount: 12 }] })).success).toBe(false);
  });
});

describe("parts for a small scale", () => {
  it("fit beside their container, fall on the marks, and sum to the weight", () => {
    // 853 g on a scale that takes 500 g, with a jug of 150 g: three parts.
    expect(portionsFor(853_000, 500_000, 150_000, 1_000_000)).toEqual([285_000, 285_000, 283_000]);
    expect(portionsFor(300_000, 500_000, 150_000, 1_000_000)).toEqual([300_000]);
    expect(() => portionsFor(300_000, 500_000, 499_500, 1_000_000)).toThrow(/container alone/);
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9_000_000 }),
        fc.integer({ min: 2_000, max: 900_000 }),
        fc.constantFrom(1_000, 100_000, 1_000_000),
        (mg, room, step) => {
          const parts = portionsFor(mg, room, 0, step);
          expect(parts.reduce((sum, value) => sum + value, 0)).toBe(mg);
          for (const part of parts) expect(part > 0 && part <= room).toBe(true);
        },
      ),
    );
  });
});

describe("where formula, process and shelf disagree", () => {
  it("finds nothing in a formula that keeps to its sheets", () => {
    const sheet = worked({ cool: range(6_600, 7_100), cure: { least: 432_000, recommended: 1_209_600 } }, 9_000);
    expect(codes({ process: sheet })).toEqual([]);
  });

  it("names load, ranges, ceiling, melt and cure, with the number and the reason", () => {
    expect(said({ loadPpm: 110_000 }, "load-above-wax")).toMatch(
      /11 % of the wax is above the 10\.5 % that the blend takes \(75 % soft soy at 10 % \+ 25 % hard paraffin at 12 %\)/,
    );
    expect(said({}, "pour-off-sheet")).toMatch(/pour range of the process is 57–63 °C; the supplier of soft soy says 66–71 °C/);
    expect(said({}, "ceiling-off-sheet")).toMatch(/ceiling of the process is 93\.3 °C; hard paraffin should stay below 90 °C/);
    expect(said({}, "cure-short")).toMatch(/minimum cure is 4 days; soft soy needs 5 days/);
    const alone = { waxes: [{ id: id.soy, share: 1 }] };
    expect(said({ ...alone, process: worked({ add: range(4_500, 4_700) }) }, "add-below-melt")).toMatch(/4 °C below the 49 °C at which soft soy melts/);
    expect(said({ process: worked({ cool: range(9_000, 9_600) }) }, "pour-above-ceiling")).toMatch(/2\.7 °C above the maximum temperature of 93\.3 °C/);
    // 93.36 °C against 93.33 °C: two figures that print alike are no difference.
    expect(said({ process: worked({ cool: range(9_000, 9_336) }) }, "pour-above-ceiling")).toBeUndefined();
    expect(codes({ process: worked({ cool: range(9_000, 9_200) }) })).toContain("pour-above-add");
    expect(codes({ process: worked({ heat: range(7_000, 7_200) }) })).toContain("add-above-heat");
  });

  it("does not take the melt of one part for that of a blend", () => {
    expect(codes({ process: worked({ add: range(4_500, 4_700) }) })).not.toContain("add-below-melt");
  });

  it("holds pour ranges against the melting point, that of a blend by the shares of its waxes", () => {
    const pour = (low: number, waxes: FormulaSpec["waxes"], hard?: number) =>
      disagreements(
        spec({ waxes, process: worked({ cool: range(low, low + 200) }) }),
        { ...shelf, waxes: shelf.waxes.map((wax) => (wax.id === id.hard ? { ...wax, melt: hard ?? null } : wax)) },
        "C",
      ).find((disagreement) => disagreement.code === "pour-below-melt");
    const soy = [{ id: id.soy, share: 1 }];
    // Soy is poured as it begins to set by some.
    expect(pour(4_300, soy)).toMatchObject({ weight: "inform", message: expect.stringContaining("6 °C below the 49 °C at which soft soy melts") });
    expect(pour(5_000, soy)).toBeUndefined();
    const blend = [
      { id: id.soy, share: 3 },
      { id: id.hard, share: 1 },
    ];
    // (3 × 49 + 61) ÷ 4 = 52.
    expect(pour(5_000, blend, 6_100)).toMatchObject({ weight: "warn", message: expect.stringContaining("2 °C below the 52 °C at which the blend melts") });
    expect(pour(5_200, blend, 6_100)).toBeUndefined();
    expect(pour(4_000, blend)).toBeUndefined();
  });

  it("states the load alike with an additive, on either basis", () => {
    const with2 = spec({ additives: [{ id: id.acid, ppm: 20_000 }], basis: "total", loadPpm: 90_000 });
    const mix = mixOf(with2, shelf);
    expect(loadOfTotal(with2, mix)).toBeCloseTo(90_000, 6);
    const same = { ...with2, basis: "wax" as const, loadPpm: Math.round(loadOfWax(with2, mix)) };
    expect(loadOfTotal(same, mix)).toBeCloseTo(90_000, 0);
  });

  it("knows an oil's own limit by its share of the blend, and essential oils added hot", () => {
    const blend = [
      { id: id.x, share: 1 },
      { id: id.y, share: 1 },
    ];
    expect(said({ fragrances: blend, loadPpm: 90_000 }, "load-above-fragrance")).toMatch(/4\.5 % of the wax is mint oil, above the 4 %/);
    expect(codes({ fragrances: blend, loadPpm: 80_000 })).not.toContain("load-above-fragrance");
    expect(said({ fragrances: blend }, "essential-oil-hot")).toMatch(/near 54 °C/);
    expect(said({ fragrances: blend }, "above-flash-point")).toMatch(/56 °C.*shipping figure/);
    expect(said({ fragrances: blend }, "family-unsuited")).toMatch(/suit paraffin, not soy/);
  });

  it("holds a blend of the shelf without a limit of its own to its parts, by their shares", () => {
    expect(limitsOf(spec({ waxes: [{ id: id.house, share: 1 }] }), shelf)[0]).toMatchObject({
      name: "the blend",
      parts: [{ name: "soft soy" }, { name: "hard paraffin" }],
    });
  });

  it("warns of additives over their sheet, much dye, and an unknown limit by the habit of the family", () => {
    expect(said({ additives: [{ id: id.acid, ppm: 40_000 }] }, "additive-above-limit")).toMatch(/4 % of stearic acid is above the 3 %/);
    expect(said({ dyes: [{ id: id.rose, by: "drops", amount: 12 }] }, "much-dye")).toMatch(/12 drops per lb} is more than the about {22\|10}/);
    const bare = { ...shelf, waxes: shelf.waxes.map((wax) => ({ ...wax, maxLoadPpm: null })) };
    const item = { waxes: [{ id: id.soy, share: 1 }] };
    expect(disagreements(spec({ ...item, loadPpm: 130_000 }), bare, "C").find((found) => found.code === "limit-unknown")).toMatchObject({
      weight: "warn",
      message: expect.stringContaining("Makers load soy with 6 % to 10 %, at most 12 %"),
    });
  });
});

describe("the difference between two versions", () => {
  it("tells dye, additives and blends apart", () => {
    const names = (text: string) =>
      [...shelf.waxes, ...shelf.fragrances, ...(shelf.additives ?? []), ...(shelf.dyes ?? [])].find((row) => row.id === text)?.name ?? "";
    const before = spec({ dyes: [{ id: id.rose, by: "drops", amount: 6 }] });
    const after = spec({
      waxes: [
        { id: id.soy, share: 66 },
        { id: id.hard, share: 34 },
      ],
      loadPpm: 100_000,
      additives: [{ id: id.acid, ppm: 15_000 }],
    });
    expect(difference(before, after, names, METRIC).map((change) => `${change.what} ${change.from} → ${change.to}`)).toEqual([
      "wax 75 soft soy + 25 hard paraffin → 66 soft soy + 34 hard paraffin",
      "additives none → 1.5 % stearic acid",
      "dye 13.228 drops per kg of rose → none",
      "load 8 % of wax → 10 % of wax",
    ]);
  });
});
