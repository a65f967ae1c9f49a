import { notToBeFilled, PRESET_PROCESSES, processFrom } from "@hearth/core";
import { describe, expect, it } from "vitest";
import type { Shelf, Stocks } from "@/server/inventory/shelf";
import type { Product } from "@/server/products/products";
import { drawsFrom, firstLines } from "./fill-model";
import { containersOf, costsOf, linesOf, shortagesOf, suitedWick, workPlan } from "./model";

const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, "0")}`;
const base = { workshopId: id(0), version: 1, low: null, remarks: "", archived: false };
const vessel = (n: number, over: object = {}) => ({
  ...base,
  id: id(n),
  name: `jar ${n}`,
  material: "heat-safe glass",
  state: "for sale",
  shape: "straight",
  statedFillMg: 100_000,
  workingFillMg: 100_000,
  soldByWeight: false,
  innerTopUm: 70_000,
  innerBottomUm: 68_000,
  heightUm: 80_000,
  headspaceUm: 10_000,
  waterMg: null,
  waterTo: "line",
  wicks: 1,
  ...over,
});
const shelf = {
  waxes: [{ ...base, id: id(1), name: "soy", family: "soy", maxLoadPpm: 100_000, blend: null }],
  fragrances: [{ ...base, id: id(2), name: "fern", kind: "fragrance", maxLoadPpm: null, flashPoint: null, density: null, families: null }],
  additives: [],
  dyes: [],
  wicks: [
    { ...base, id: id(3), name: "braid 4", kind: "flat-braid cotton", size: "4", fromUm: 60_000, toUm: 75_000, families: ["soy"] },
    { ...base, id: id(4), name: "old braid", kind: "flat-braid cotton", size: "4", fromUm: 67_000, toUm: 69_000, families: null, archived: true },
  ],
  vessels: [
    vessel(10),
    vessel(11, { state: "test jar" }),
    vessel(12, { archived: true }),
    vessel(13, { state: "cracked" }),
    vessel(14, { workingFillMg: 50_000, statedFillMg: 50_000 }),
  ],
  molds: [
    { ...base, id: id(20), name: "tray", kind: "melt tray", cavities: 6, fillMg: 12_500, innerTopUm: 30_000, innerBottomUm: 26_000, heightUm: 26_000 },
    {
      ...base,
      id: id(21),
      name: "old tray",
      kind: "melt tray",
      cavities: 6,
      fillMg: 12_500,
      innerTopUm: 30_000,
      innerBottomUm: 26_000,
      heightUm: 26_000,
      archived: true,
    },
  ],
  instruments: [],
  people: [],
} as unknown as Shelf;
const spec = {
  waxes: [{ id: id(1), share: 1 }],
  fragrances: [{ id: id(2), share: 1 }],
  basis: "wax" as const,
  loadPpm: 80_000,
  notes: "",
  process: processFrom(PRESET_PROCESSES[0] as (typeof PRESET_PROCESSES)[number]),
};
const product = (n: number, over: Partial<Product> = {}): Product => ({
  id: id(n),
  name: `product ${n}`,
  version: 1,
  archived: false,
  formulaId: id(30),
  formulaName: "Fern",
  container: "vessel",
  containerId: id(10),
  wickId: id(3),
  embeds: null,
  packaging: null,
  labelContainer: null,
  fillsRooms: null,
  wicks: 1,
  price: 1_200,
  soldBy: "piece",
  pack: 1,
  packCost: 50,
  handsSeconds: 360,
  heatSeconds: null,
  wickTest: "test due",
  testedAs: null,
  remarks: "",
  ...over,
});
const containers = containersOf(shelf, notToBeFilled);
const stocks: Stocks = {
  [id(1)]: { onHand: 150_000, left: [{ lotId: "a", amount: 150_000, cost: 150 }] },
  [id(10)]: { onHand: 5, left: [{ lotId: "b", amount: 5, cost: 500 }] },
  [id(14)]: { onHand: 40, left: [] },
};

describe("what a plan can be made of", () => {
  it("offers neither cracked vessels nor what was put away, test candles after what is for sale, then molds", () => {
    expect(containers.map((container) => container.name)).toEqual(["jar 10", "jar 14", "jar 11", "tray"]);
  });

  it("shows the formula's products first, then a few containers, and what was looked for", () => {
    const lines = linesOf(containers, [product(40), product(41, { containerId: id(99) })], [], 1);
    // A product whose vessel is gone is no line; a container that is a product's is not shown twice.
    expect(lines.map((line) => line.key)).toEqual([id(40), id(14)]);
    expect(linesOf(containers, [product(40)], [id(20)], 1).map((line) => line.container.name)).toEqual(["jar 10", "jar 14", "tray"]);
    expect(linesOf(containers, [], [], 10)).toHaveLength(4);
  });

  it("proposes no wick for melts, and none that was put away", () => {
    const [jar, tray] = [containers[0], containers.at(-1)];
    expect(jar && suitedWick(jar, "soy", shelf.wicks)?.name).toBe("braid 4");
    expect(jar && suitedWick(jar, "paraffin", shelf.wicks)).toBeNull();
    expect(tray && suitedWick(tray, "soy", shelf.wicks)).toBeNull();
  });
});

describe("what a plan costs and lacks", () => {
  const scale = { id: id(50), name: "scale", resolutionUg: 100_000, capacityMg: null };
  const worked = workPlan(
    {
      process: spec.process,
      pots: [{ id: id(30), name: "Fern", versionId: id(31), number: 1, spec }],
      products: [{ ...(containers[0] as (typeof containers)[number]), count: 2, part: null, chosenWicks: null }],
      sparePpm: 0,
      staysMg: null,
      pitcherMg: null,
      scales: [scale],
      waxScale: "",
      oilScale: "",
    },
    shelf,
  );

  it("reckons pack and hands in where the line is a product, and says what its price leaves", () => {
    if (!worked.ok) throw new Error(worked.message);
    const rates = { handsCost: 1_000, heatCost: null };
    const [bare] = costsOf(worked.plan, stocks, [{ key: id(10) }], [product(40)], rates);
    const [sold] = costsOf(worked.plan, stocks, [{ key: id(40) }], [product(40)], rates);
    expect(bare?.margin).toBeNull();
    // 50 ¢ of pack and 6 min at €10 an hour, beside what both are made of.
    expect((sold?.cost ?? 0) - (bare?.cost ?? 0)).toBeCloseTo(150, 6);
    expect(sold?.margin?.left).toBeCloseTo(1_200 - (sold?.cost ?? 0), 6);
  });

  it("says what there is not enough of", () => {
    if (!worked.ok) throw new Error(worked.message);
    expect(shortagesOf(worked.plan, stocks).map((shortage) => [shortage.name, shortage.there])).toEqual([["soy", 150_000]]);
    expect(shortagesOf(worked.plan, { [id(1)]: { onHand: -5, left: [] } })[0]?.there).toBe(0);
  });

  it("asks for a scale where there is none", () => {
    expect(
      workPlan({ process: spec.process, pots: [], products: [], sparePpm: 0, staysMg: null, pitcherMg: null, scales: [], waxScale: "", oilScale: "" }, shelf),
    ).toMatchObject({
      ok: false,
      field: "scale",
    });
  });
});

describe("what can be filled", () => {
  it("begins with the products; without any with the vessels of which there is most", () => {
    expect(firstLines([product(40)], [], shelf, stocks).map((firstLine) => [firstLine.formula, firstLine.container])).toEqual([[id(30), id(10)]]);
    const lines = firstLines([], [{ id: id(30) }, { id: id(32) }], shelf, stocks);
    // Forty small jars hold more than five large ones.
    expect(lines.map((line) => line.container)).toEqual([id(14), id(10), id(14), id(10)]);
    expect(new Set(lines.map((line) => line.key)).size).toBe(4);
  });

  it("draws the wicks of the product, a suited one without, and nothing where the formula is not known", () => {
    const draws = drawsFrom({ [id(30)]: spec }, shelf);
    const own = draws({ key: "p0", product: product(40, { wicks: 3 }), formula: id(30), container: id(10) }, 0);
    expect(own.get(id(3))).toBe(3);
    expect(own.get(id(10))).toBe(1);
    // 100 g at 8 % of the wax: 92.593 g and 7.407 g.
    expect(own.get(id(1))).toBe(92_593);
    expect(own.get(id(2))).toBe(7_408);
    expect(draws({ key: "p1", product: null, formula: id(30), container: id(20) }, 0).has(id(3))).toBe(false);
    expect(draws({ key: "p2", product: null, formula: id(99), container: id(10) }, 0).size).toBe(0);
  });
});
