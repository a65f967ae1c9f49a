import type { OrderLine, Sellable } from "@hearth/core";
import { describe, expect, it } from "vitest";
import { linesOf } from "./lines";
import { containersIn, type Inside, recallOf } from "./model";

const sellable = (over: Partial<Sellable> = {}): Sellable => ({
  id: "set",
  name: "Evening box",
  kind: "set",
  contents: [
    { productId: "jar", name: "Jar", count: 1 },
    { productId: "melt", name: "Melt", count: 4 },
  ],
  packaging: { boxId: null, parts: [] },
  price: 2_400,
  ...over,
});
const inside = (productId: string, over: Partial<Inside> = {}): Inside => ({
  productId,
  statedMg: 180_000,
  soldByWeight: true,
  container: { name: productId, innerTopUm: 78_000, innerBottomUm: 72_000, heightUm: 60_000, outerUm: 84_000, outerHeightUm: 72_000 },
  ...over,
});

describe("what goes into one pack", () => {
  it("is all of its pieces, with the weight that they state together", () => {
    const { containers, statedMg, guessed } = containersIn(sellable(), [inside("jar"), inside("melt", { statedMg: 12_500 })]);
    expect(containers.map((container) => [container.name, container.count, container.widthUm])).toEqual([
      ["jar", 1, 84_000],
      ["melt", 4, 84_000],
    ]);
    expect(statedMg).toBe(230_000);
    expect(guessed).toBe(false);
  });

  it("states no weight where one of it is sold by the piece, or the rules do not reach", () => {
    expect(containersIn(sellable(), [inside("jar"), inside("melt", { soldByWeight: false })]).statedMg).toBeNull();
    const item = sellable({ contents: [{ productId: "jar", name: "Jar", count: 1 }] });
    expect(containersIn(item, [inside("jar", { statedMg: 4_000 })]).statedMg).toBeNull();
    expect(containersIn(item, [inside("jar", { statedMg: 5_000 })]).statedMg).toBe(5_000);
    expect(containersIn(undefined, []).statedMg).toBeNull();
    expect(containersIn(item, [inside("jar", { container: { ...inside("jar").container, outerUm: null } })]).guessed).toBe(true);
  });
});

describe("lines as they are typed", () => {
  it("are kept with the price of now; one that stood there before keeps the price it was taken at", () => {
    const before: OrderLine[] = [{ sellable: "set", name: "Evening box", packs: 2, price: 2_000 }];
    const other = sellable({ id: "other", name: "Other", price: null });
    const typed = [
      { sellable: "set", packs: 5 },
      { sellable: "other", packs: 1 },
      { sellable: "", packs: 3 },
      { sellable: "gone", packs: 3 },
    ];
    expect(linesOf(typed, [sellable(), other], before)).toEqual([
      { sellable: "set", name: "Evening box", packs: 5, price: 2_000 },
      { sellable: "other", name: "Other", packs: 1, price: null },
    ]);
    // Nothing of it is nothing asked.
    expect(linesOf([{ sellable: "set", packs: 0 }], [sellable()], before)).toEqual([]);
  });
});

describe("a recall", () => {
  const batch = (number: number, over: object = {}) => ({
    id: `b${number}`,
    number,
    title: "Rain",
    pouredAt: "2026-03-01T10:00:00Z",
    jars: 10,
    jarStatuses: [
      { status: "rack" as const, jars: 4 },
      { status: "testing" as const, jars: 1 },
      { status: "packed" as const, jars: 5 },
    ],
    whom: [],
    ...over,
  });
  const out = (orderId: string, many: number, back: number) => ({
    orderId,
    number: 3,
    what: "market" as const,
    name: `Market ${orderId}`,
    whom: "",
    on: null,
    out: many,
    sold: many - back,
    given: 0,
    second: 0,
    back,
  });
  const row = (number: number, packRunId: string, here: number, outs: ReturnType<typeof out>[]) => ({
    batchId: `b${number}`,
    number,
    pieces: 5,
    product: "cup",
    packRunId,
    packed: `Packs ${packRunId}`,
    packs: 5,
    here,
    out: outs,
  });

  it("sets aside what stands loose or as a test candle, what is packed, and the pot that is not poured", () => {
    const { loose, pots, here } = recallOf(
      [batch(1), batch(2, { jarStatuses: [{ status: "sold", jars: 10 }] }), batch(3, { pouredAt: null, jarStatuses: [] })],
      [row(1, "p", 2, []), row(2, "p", 2, []), row(1, "q", 0, [])],
    );
    expect(loose.map((item) => [item.batch.number, item.jars])).toEqual([[1, 5]]);
    expect(pots.map((pot) => pot.number)).toEqual([3]);
    // A packing of two batches is set aside once, and names both.
    expect(here.map((item) => [item.packed, item.here, item.batches])).toEqual([["Packs p", 2, [1, 2]]]);
  });

  it("tells each order once what it has of it, and none whose packs all came back", () => {
    const { reached, byHand } = recallOf(
      [batch(1, { whom: ["Saturday market"] })],
      [row(1, "p", 0, [out("a", 3, 1), out("b", 2, 2)]), row(2, "p", 0, [out("a", 3, 1), out("b", 2, 2)]), row(1, "q", 1, [out("a", 1, 0)])],
    );
    expect(reached.map((item) => [item.id, item.packs])).toEqual([["a", ["2 × Packs p", "1 × Packs q"]]]);
    expect(byHand.map((batch) => batch.whom)).toEqual([["Saturday market"]]);
    expect(recallOf([], [])).toEqual({ loose: [], pots: [], here: [], reached: [], byHand: [] });
  });
});
