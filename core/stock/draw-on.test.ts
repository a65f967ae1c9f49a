import { describe, expect, it } from "vitest";
import { batchOf } from "../batch/batch";
import { planBatch } from "../batch/planning";
import { billOf, gathered } from "../product/bill";
import { aBatch, anId, presetProcess } from "../testing/batch";
import { amountsFor } from "../weigh-out/amounts";
import { drawOfPiece } from "./draw-on";
import { costOf, ledger, wouldTake } from "./ledger";
import { mostAlone } from "./leftovers";

const id = { soy: anId(), hard: anId(), x: anId(), rose: anId(), jar: anId() };
const shelf = {
  waxes: [
    { id: id.soy, name: "soy", family: "soy", maxLoadPpm: 120_000 },
    { id: id.hard, name: "hard", family: "paraffin", maxLoadPpm: 120_000 },
  ],
  fragrances: [{ id: id.x, name: "fern", maxLoadPpm: null, flashPoint: null }],
  dyes: [{ id: id.rose, name: "rose", kind: "liquid", eachMg: 30 }],
};
const spec = {
  basis: "wax" as const,
  loadPpm: 80_000,
  waxes: [
    { id: id.soy, share: 3 },
    { id: id.hard, share: 1 },
  ],
  fragrances: [{ id: id.x, share: 1 }],
  dyes: [{ id: id.rose, by: "drops" as const, amount: 6 }],
  notes: "",
  process: presetProcess("soy-bind-hot"),
};
const FINE = { id: null, name: "fine", resolutionUg: 1_000 };
const scales = { wax: FINE, oil: FINE };
const fills = (count: number) => [{ name: "jar", fillMg: 176_000, count }];
const jar = {
  id: id.jar,
  name: "jar",
  statedFillMg: 176_000,
  workingFillMg: 176_000,
  soldByWeight: false,
  innerTopUm: 78_000,
  innerBottomUm: 72_000,
  heightUm: 60_000,
};

describe("what one jar draws", () => {
  it("is its share of a batch, spare and all, never less than that, with its vessel", () => {
    const draw = drawOfPiece({ spec, vessel: jar, sparePpm: 50_000 }, shelf);
    const batch = amountsFor(spec, shelf, { fills: fills(60), sparePpm: 50_000, scales });
    for (const part of batch.components) {
      const mg = part.count ? part.count.n * (part.count.eachMg ?? 0) : part.mg;
      expect(draw.get(part.id) ?? 0).toBeGreaterThanOrEqual(Math.floor(mg / 60));
      expect((draw.get(part.id) ?? 0) * 60 - mg).toBeLessThan(180);
    }
    expect(draw.get(id.jar)).toBe(1);
    // 176 g × 1.05 = 184.8 g, and 8 ÷ 108 of it is fragrance.
    expect(draw.get(id.x)).toBe(Math.ceil((184_800 * 8) / 108));
  });

  it("says how many there is enough for, and a batch of that many is covered by the lots", () => {
    const draw = drawOfPiece({ spec, vessel: jar, sparePpm: 50_000 }, shelf);
    const have = new Map([
      [id.soy, 2_000_000],
      [id.hard, 900_000],
      [id.x, 150_000],
      [id.rose, 60_000],
      [id.jar, 40],
    ]);
    const ids = [...draw.keys()];
    const most = mostAlone(
      ids.map((id) => draw.get(id) ?? 0),
      ids.map((id) => have.get(id) ?? 0),
    );
    expect(ids[most?.limitedBy ?? -1]).toBe(id.x);
    const batch = amountsFor(spec, shelf, { fills: fills(most?.n ?? 0), sparePpm: 50_000, scales });
    const lot = { id: "l", receivedAt: "2026-01-01", amount: 150_000, cost: 1_500 };
    const taken = wouldTake(ledger([lot], [], []).left, batch.fragranceMg);
    expect(costOf(taken)).toEqual({ cost: expect.closeTo(batch.fragranceMg / 100, 6), unknown: 0 });
  });
});

describe("what a batch has drawn", () => {
  it("follows its standing entries, and its jars only once they are poured", () => {
    const batch = aBatch();
    const wrong = batch.weigh(batch.wax, 721_000);
    batch.add({ kind: "weighed", payload: { pot: 0, componentId: batch.wax, mg: 127_000 } }, { corrects: wrong.id });
    batch.weigh(batch.oil, 6_000);
    batch.weigh(batch.oil, 7_000);
    const uses = () => Object.fromEntries(Object.entries(batchOf(batch.events).state.drawn).map(([material, item]) => [material, item.amount]));
    expect(uses()).toEqual({ [batch.wax]: 127_000, [batch.oil]: 13_000 });
    batch.pour();
    expect(uses()).toEqual({ [batch.wax]: 127_000, [batch.oil]: 13_000, [batch.vessel]: 10 });
  });
});

describe("the bill of a batch", () => {
  const wick = { wickId: anId(), name: "flat-braid cotton 6", kind: "flat-braid cotton", size: "6", count: 2 };
  const plan = planBatch(
    {
      process: spec.process,
      pots: [{ name: "Fern", number: 1, spec }],
      products: [
        { ...jar, count: 6, chosenWicks: wick },
        { ...jar, id: anId(), container: "mold", name: "mold", count: 4, chosenWicks: null },
      ],
      sparePpm: 0,
      scales,
    },
    shelf,
  );

  it("holds every part, wicks by count, and no mold, since that is used again", () => {
    const lines = gathered(billOf(plan));
    expect(lines.find((line) => line.materialId === wick.wickId)).toMatchObject({ amount: 12, counted: true, kind: "wick" });
    expect(lines.find((line) => line.materialId === id.jar)).toMatchObject({ amount: 6, kind: "vessel" });
    expect(lines.filter((line) => line.kind === "vessel")).toHaveLength(1);
    const weighed = lines.filter((line) => !line.counted && line.kind !== "dye").reduce((sum, item) => sum + item.amount, 0);
    expect(weighed).toBe(plan.pots[0]?.totalMg);
  });
});
