import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { anId, at, GRAMS, presetProcess } from "../testing/batch";
import { type BatchEvent, batchOf, type EventBody } from "./batch";
import { contentsOf, passCostsOn, plannedParts } from "./contents";
import { looseOfAll } from "./jars";
import { leftInPot } from "./loss";
import { progress, weighedLoad } from "./phase";
import type { BatchPlan } from "./plan";
import { totalOf } from "./plan";
import { planBatch } from "./planning";

const [SOY, BEES, OIL, BLUE, GLASS, CUP] = Array.from({ length: 6 }, anId) as [string, string, string, string, string, string];
const shelf = {
  waxes: [
    { id: SOY, name: "soy", family: "soy", maxLoadPpm: 120_000 },
    { id: BEES, name: "beeswax", family: "beeswax", maxLoadPpm: 120_000 },
  ],
  fragrances: [{ id: OIL, name: "rain", maxLoadPpm: null, flashPoint: null }],
  dyes: [{ id: BLUE, name: "blue", kind: "liquid", eachMg: 30 }],
};
const FINE = { id: null, name: "fine scale", resolutionUg: 10_000 };
const SCALES = { wax: FINE, oil: FINE };
interface Recipe {
  name: string;
  loadPpm?: number;
  bees?: number;
  drops?: number;
}
const potOf = ({ name, loadPpm = 0, bees = 0, drops = 0 }: Recipe) => ({
  name,
  formulaId: anId(),
  number: 1,
  spec: {
    waxes: [{ id: SOY, share: 100 - bees }, ...(bees > 0 ? [{ id: BEES, share: bees }] : [])],
    fragrances: loadPpm > 0 ? [{ id: OIL, share: 1 }] : [],
    dyes: drops > 0 ? [{ id: BLUE, by: "drops" as const, amount: drops }] : [],
    basis: "wax" as const,
    loadPpm,
    notes: "",
  },
});
const jar = (id: string, name: string, mg: number, count: number, container: "vessel" | "mold" = "vessel") => ({
  ...{ id, name, container, statedFillMg: mg, workingFillMg: mg, soldByWeight: false, innerTopUm: 70_000, innerBottomUm: 70_000, heightUm: 90_000, count },
});
const plan = (process: string, recipes: Recipe[], products = recipes.map((recipe) => jar(GLASS, recipe.name, 100_000, 2)), scales = SCALES) =>
  planBatch(
    {
      process: presetProcess(process),
      pots: recipes.map(potOf),
      products: products.map((product, pot) => ({ ...product, pot: recipes.length > 1 ? pot : 0 })),
      sparePpm: 0,
      scales,
    },
    shelf,
  );

/** A batch of a plan, to which entries are added a minute apart. */
function batchFrom(of: BatchPlan) {
  const events: BatchEvent[] = [];
  const add = (body: EventBody) => {
    const when = at(events.length);
    events.push({ id: anId(), happenedAt: when, arrivedAt: when, personId: null, instrumentId: null, corrects: null, ...body } as BatchEvent);
    return batchOf(events);
  };
  add({ kind: "started", payload: { plan: of } });
  const weighAll = (pot: number) => {
    for (const part of of.pots[pot]?.components ?? [])
      add(
        part.count
          ? { kind: "counted", payload: { pot, componentId: part.id, n: part.count.n } }
          : { kind: "weighed", payload: { pot, componentId: part.id, mg: part.mg } },
      );
  };
  const pour = (step: string, filled: { product: string; count: number }[]) =>
    add({ kind: "poured", payload: { step, filled, leftMg: null, roomCelsius: null, warmed: null } });
  return { events, add, weighAll, pour, now: () => batchOf(events) };
}
const mgOf = (parts: readonly { id?: string; name: string; mg: number }[], name: string) => parts.find((part) => part.name === name)?.mg ?? 0;

describe("a pot that is the rest of another", () => {
  it("needs for a clear and a blue jar one melt of both, and for the blue one the dye alone", () => {
    const clear = plan("split-pot", [{ name: "clear" }, { name: "blue", drops: 4 }]);
    // Two jars of 100 g each: 400 g of soy are melted, and 200 g of it get 4 drops a pound: 200 / 453.592 × 4 = 1.76, so two drops.
    expect(clear.pots[0]?.components.map((part) => [part.name, part.mg])).toEqual([["soy", 400_000]]);
    expect(clear.pots[1]).toMatchObject({ restOf: 0, baseMg: 200_000, components: [{ name: "blue", count: { n: 2 } }] });
    expect(totalOf(clear)).toBe(400_000);
  });

  it("is loaded further from 6 % to 8 % and 10 % of the wax, by what is missing", () => {
    const ladder = plan("split-in-three", [
      { name: "six", loadPpm: 60_000 },
      { name: "eight", loadPpm: 80_000 },
      { name: "ten", loadPpm: 100_000 },
    ]);
    // 600 g in all. The last 200 g at 10 %: wax 181.82, oil 18.18; at 8 % there were 14.55 of oil on it, so 3.64 are added.
    expect(mgOf(ladder.pots[2]?.components ?? [], "rain")).toBe(3_640);
    // 400 g less that at 8 %: 396.36 / 1.08 = 367.00 of wax; from 6 to 8 % it takes 2 % of that.
    expect(mgOf(ladder.pots[1]?.components ?? [], "rain")).toBe(7_340);
    expect(ladder.pots.map((pot) => pot.restOf)).toEqual([undefined, 0, 1]);
    for (const [pot, percent] of [6, 8, 10].entries()) {
      const parts = contentsOf(ladder, pot);
      expect((mgOf(parts, "rain") / mgOf(parts, "soy")) * 100).toBeCloseTo(percent, 1);
    }
  });

  it("is a blend ladder of 20, 30 and 40 % beeswax from one melt", () => {
    const ladder = plan("split-in-three", [
      { name: "a", bees: 20 },
      { name: "b", bees: 30 },
      { name: "c", bees: 40 },
    ]);
    // The last 200 g: 120 of soy, which are 80 % … of 171.43 g at 70 : 30; 28.57 g of beeswax are added.
    expect(mgOf(ladder.pots[2]?.components ?? [], "beeswax")).toBe(28_570);
    expect(ladder.pots[2]?.components.map((part) => part.name)).toEqual(["beeswax"]);
    for (const [pot, share] of [20, 30, 40].entries()) {
      const parts = contentsOf(ladder, pot);
      expect((mgOf(parts, "beeswax") / 200_000) * 100 * (200_000 / parts.reduce((sum, part) => sum + part.mg, 0))).toBeCloseTo(share, 1);
    }
  });

  it("holds what its own formula says, whatever is added to which base", () => {
    const recipe = fc.record({
      loadPpm: fc.integer({ min: 0, max: 8 }).map((n) => n * 10_000),
      bees: fc.integer({ min: 0, max: 4 }).map((n) => n * 10),
      drops: fc.integer({ min: 0, max: 8 }),
    });
    fc.assert(
      fc.property(recipe, recipe, fc.integer({ min: 1, max: 6 }), (base, more, count) => {
        const own = { loadPpm: Math.min(110_000, base.loadPpm + more.loadPpm), bees: base.bees + more.bees, drops: base.drops + more.drops };
        fc.pre(more.loadPpm + more.bees > 0 && (own.bees === base.bees || base.bees === 0 || own.bees > base.bees));
        // A second wax thins what is there: it must be in the rest in the same proportion or more.
        fc.pre(own.loadPpm * (100 - own.bees) >= base.loadPpm * (100 - own.bees));
        const of = plan(
          "split-pot",
          [
            { name: "base", ...base },
            { name: "own", ...own },
          ],
          [jar(GLASS, "base", 150_000, count), jar(GLASS, "own", 150_000, count)],
        );
        const parts = contentsOf(of, 1);
        const wax = mgOf(parts, "soy") + mgOf(parts, "beeswax");
        expect(mgOf(parts, "rain") / wax).toBeCloseTo(own.loadPpm / 1e6, 3);
        expect(mgOf(parts, "beeswax") / wax).toBeCloseTo(own.bees / 100, 3);
        // Both pots together are weighed once.
        expect(of.pots.flatMap((pot) => pot.components).reduce((sum, part) => sum + part.mg, 0)).toBeCloseTo(totalOf(of), -2);
        expect(plannedParts(of, 1).length).toBeGreaterThan(0);
      }),
      { numRuns: 120 },
    );
  });

  it("is refused where the rest has something in it that the next formula has not, or gets nothing more", () => {
    expect(() =>
      plan("split-pot", [
        { name: "scented", loadPpm: 60_000 },
        { name: "plain", drops: 3 },
      ]),
    ).toThrow(/rain/);
    expect(() => plan("split-pot", [{ name: "plain" }, { name: "the same" }])).toThrow(/adds nothing/);
  });

  it("is dosed for what is left: by the scale, or by what was poured", () => {
    const of = plan("split-pot", [
      { name: "six", loadPpm: 60_000 },
      { name: "ten", loadPpm: 100_000 },
    ]);
    const asked = mgOf(of.pots[1]?.components ?? [], "rain");
    const oil = (batch: ReturnType<typeof batchOf>) => progress(batch.plan, batch.state).prompts.find((prompt) => prompt.key === `weigh:1:${OIL}`)?.asked;
    const started = batchFrom(of);
    started.weighAll(0);
    const [first] = of.products;
    // One of two jars is poured, so 100 g more stay in the pot than planned.
    started.pour("pour", [{ product: first?.key ?? "", count: 1 }]);
    const { plan: planned, state } = started.now();
    const left = leftInPot(planned, state, 0);
    expect(left / 1_000).toBeCloseTo((of.pots[1]?.baseMg ?? 0) / 1_000 + 100, 0);
    const after = started.add({ kind: "split", payload: { step: "split-2", mg: null } });
    expect((oil(after) ?? 0) / asked).toBeCloseTo(left / (of.pots[1]?.baseMg ?? 1), 2);
    // Weighed, it is what the scale says; the load then is what was asked.
    const weighed = batchFrom(of);
    weighed.weighAll(0);
    weighed.pour("pour", [{ product: first?.key ?? "", count: 2 }]);
    const split = weighed.add({ kind: "split", payload: { step: "split-2", mg: 150_000 } });
    expect((oil(split) ?? 0) / 1_000).toBeCloseTo((150 / ((of.pots[1]?.baseMg ?? 0) / 1_000)) * (asked / 1_000), 1);
    const dosed = weighed.add({ kind: "weighed", payload: { pot: 1, componentId: OIL, mg: oil(split) ?? 0 } });
    expect(weighedLoad(dosed.plan, dosed.state, 1)).toBeCloseTo(10, 1);
    expect(weighedLoad(dosed.plan, dosed.state, 0)).toBeCloseTo(6, 1);
    expect(leftInPot(dosed.plan, dosed.state, 1)).toBe(150_000 + (oil(split) ?? 0));
  });

  it("bears its share of what the first pot cost, and no cost is lost", () => {
    const ladder = plan("split-in-three", [
      { name: "a", bees: 20 },
      { name: "b", bees: 30 },
      { name: "c", bees: 40 },
    ]);
    fc.assert(
      fc.property(fc.tuple(fc.nat(10_000), fc.nat(10_000), fc.nat(10_000)), (costs) => {
        const passed = passCostsOn(ladder, costs);
        expect(passed.reduce((sum, cost) => sum + cost, 0)).toBeCloseTo(
          costs.reduce((sum, cost) => sum + cost, 0),
          6,
        );
        for (const cost of passed) expect(cost).toBeGreaterThanOrEqual(-1e-9);
      }),
    );
    // Three equal fills of one melt that gets nothing dear: a third each.
    const [a = 0, b = 0, c = 0] = passCostsOn(ladder, [900, 0, 0]);
    expect(a).toBeGreaterThan(b);
    expect(b).toBeGreaterThan(c);
  });

  it("gives jars to the product of their own formula", () => {
    const of = plan("split-pot", [{ name: "clear" }, { name: "blue", drops: 4 }]);
    const batch = batchFrom(of);
    batch.weighAll(0);
    for (const [index, step] of ["pour", "pour-2"].entries()) batch.pour(step, [{ product: of.products[index]?.key ?? "", count: 2 }]);
    const { plan: planned, state } = batch.add({ kind: "released", payload: { note: "" } });
    expect(looseOfAll(planned, state).map(({ formulaId, left }) => [formulaId, left])).toEqual([
      [undefined, 2],
      [of.pots[1]?.formulaId, 2],
    ]);
  });
});

describe("a glass and six silicone cups from one pot", () => {
  const of = plan("jars-and-molds", [{ name: "soy", loadPpm: 80_000 }], [jar(GLASS, "glass", 200_000, 1), jar(CUP, "cup", 40_000, 6, "mold")], GRAMS);
  const names = (process: BatchPlan) => progress(process, batchFrom(process).now().state).prompts.map((prompt) => prompt.name);

  it("weighs 440 g, and asks for the steps of the molds only where there are molds", () => {
    // 440 / 1.08 = 407.4: 407 g of wax and 33 g of oil.
    expect(of.pots[0]?.components.map((part) => part.mg)).toEqual([407_000, 33_000]);
    expect(names(of)).toEqual(expect.arrayContaining(["prepare the molds", "make the wick hole", "unmold", "insert the wick"]));
    const jarsOnly = plan("jars-and-molds", [{ name: "soy", loadPpm: 80_000 }], [jar(GLASS, "glass", 200_000, 1)], GRAMS);
    expect(names(jarsOnly)).not.toEqual(expect.arrayContaining(["unmold"]));
  });

  it("goes on for jars and molds beside each other, each by its own clock", () => {
    const started = plan("jars-and-molds", [{ name: "soy" }], [jar(GLASS, "glass", 200_000, 1), jar(CUP, "cup", 40_000, 6, "mold")], GRAMS);
    started.process.steps.push({ id: "look", kind: "finish", how: "smooth the top", only: "vessels" });
    const batch = batchFrom(started);
    batch.weighAll(0);
    for (const step of ["heat", "add", "cool"]) batch.add({ kind: "observed", payload: { step, cues: ["touch"] } });
    batch.add({ kind: "stirred", payload: { step: "stir", seconds: 120 } });
    batch.add({ kind: "stepDone", payload: { step: "prepare-mold" } });
    const poured = batch.pour("pour", []);
    expect(progress(poured.plan, poured.state).open.map((prompt) => prompt.step)).toEqual(["wait-hole", "look"]);
    const looked = batch.add({ kind: "stepDone", payload: { step: "look" } });
    // What is done to the jars passes over nothing of the molds.
    expect(progress(looked.plan, looked.state).open.map((prompt) => prompt.step)).toEqual(["wait-hole"]);
    const held = batch.add({ kind: "stepDone", payload: { step: "wait-hole" } });
    expect(progress(held.plan, held.state).next?.step).toBe("wick-hole");
  });
});
