import { describe, expect, it } from "vitest";
import { costOfProduct, marginOf } from "./cost";
import { dueReasons, type TestedState, testedOf } from "./tested";
import { suitedWicks } from "./wicks";

const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, "0")}`;
const tested: TestedState = {
  waxes: [{ id: id(1), share: 1 }],
  fragrances: [
    { id: id(2), share: 3 },
    { id: id(3), share: 1 },
  ],
  loadPpm: 80_000,
  containerId: id(4),
  wickId: id(5),
  wicks: 1,
};

describe("when a wick is to be tested again: common practice, no source", () => {
  it("is after a change of scent, or of load by more than one point of the wax", () => {
    expect(dueReasons(tested, tested)).toEqual([]);
    expect(dueReasons(tested, { ...tested, loadPpm: 90_000 })).toEqual([]);
    expect(dueReasons(tested, { ...tested, loadPpm: 90_001 })).toEqual(["load"]);
    expect(dueReasons(tested, { ...tested, loadPpm: 60_000, fragrances: [{ id: id(2), share: 1 }] })).toEqual(["scent", "load"]);
    // The same shares in other figures, or in another order, are the same scent.
    expect(
      dueReasons(tested, {
        ...tested,
        fragrances: [
          { id: id(3), share: 25 },
          { id: id(2), share: 75 },
        ],
      }),
    ).toEqual([]);
  });

  it("is after another wick, wax or vessel; a load is compared on one basis", () => {
    expect(dueReasons(tested, { ...tested, wicks: 2 })).toEqual(["wick"]);
    expect(dueReasons(tested, { ...tested, wickId: null, wicks: 0, containerId: id(9), waxes: [{ id: id(8), share: 1 }] })).toEqual(["wax", "vessel", "wick"]);
    // 8 % of the total is 8.70 % of the wax: less than a point above 8 %.
    expect(dueReasons(tested, testedOf({ ...tested, basis: "total", loadPpm: 80_000 }, tested))).toEqual([]);
    expect(dueReasons(tested, testedOf({ ...tested, basis: "total", loadPpm: 90_000 }, tested))).toEqual(["load"]);
  });
});

describe("what a product costs", () => {
  const rates = { handsCost: 1_800, heatCost: 60 };
  const product = { containerId: id(4), wickId: id(5), pack: 6, packCost: 45, handsSeconds: 120, heatSeconds: 600 };
  const left: Record<string, { lotId: string; amount: number; cost: number | null }[]> = {
    [id(1)]: [{ lotId: "a", amount: 1_000_000, cost: 900 }],
    [id(4)]: [{ lotId: "b", amount: 10, cost: 250 }],
    [id(5)]: [{ lotId: "c", amount: 100, cost: null }],
  };

  it("is its share of the pot, its vessel and wicks, a sixth of its pack, and hands and heat by the hour", () => {
    const draw = new Map([
      [id(1), 14_000],
      [id(4), 1],
      [id(5), 1],
    ]);
    const out = costOfProduct(product, draw, (of) => left[of] ?? [], rates);
    // 14 g at 0.9 ¢ a gram, 25 ¢, 45 ÷ 6 ¢, 2 min at €18 an hour, 10 min at 60 ¢ an hour.
    expect(Object.fromEntries(out.lines.map((line) => [line.what, line.cost]))).toEqual({
      "wax, oil and what is in the pot": expect.closeTo(12.6, 6),
      vessel: 25,
      pack: 7.5,
      hands: 60,
      heat: 10,
    });
    expect(out.cost).toBeCloseTo(115.1, 6);
    expect(out.unpriced).toEqual([id(5)]);
    expect(costOfProduct({ ...product, handsSeconds: null }, draw, (of) => left[of] ?? [], { handsCost: null, heatCost: null }).cost).toBeCloseTo(45.1, 6);
  });

  it("leaves of the price of a pack what its pieces do not cost", () => {
    expect(marginOf(780, 6, 115)).toEqual({ left: 90, share: expect.closeTo(90 / 780, 9) });
    expect(marginOf(500, 6, 115)?.left).toBe(-190);
    expect(marginOf(null, 6, 115)).toBeNull();
  });

  it("proposes the wick of the narrowest span that holds the diameter and suits the wax", () => {
    const wick = (name: string, fromUm: number | null, toUm: number | null, families: string[] | null) => ({ name, fromUm, toUm, families });
    const all = [
      wick("wide", 50_000, 90_000, null),
      wick("narrow", 70_000, 80_000, ["soy"]),
      wick("other wax", 70_000, 78_000, ["paraffin"]),
      wick("unknown", null, null, null),
    ];
    expect(suitedWicks(all, 75_000, "soy").map((suitedWick) => suitedWick.name)).toEqual(["narrow", "wide"]);
    expect(suitedWicks(all, 60_000, "soy").map((suitedWick) => suitedWick.name)).toEqual(["wide"]);
  });
});
