import type { OrderLine, Sellable } from "@hearth/core";
import { describe, expect, it } from "vitest";
import { linesOf } from "./lines";
import { bodiesIn, type Inside } from "./model";

const sellable = (over: Partial<Sellable> = {}): Sellable => ({
  id: "set",
  name: "Evening box",
  kind: "set",
  contents: [
    { productId: "jar", name: "Jar", count: 1 },
    { productId: "melt", name: "Melt", count: 4 },
  ],
  packing: { boxId: null, parts: [] },
  price: 2_400,
  ...over,
});
const inside = (productId: string, over: Partial<Inside> = {}): Inside => ({
  productId,
  statedMg: 180_000,
  soldByWeight: true,
  body: { name: productId, innerTopUm: 78_000, innerBottomUm: 72_000, heightUm: 60_000, outerUm: 84_000, outerHeightUm: 72_000 },
  ...over,
});

describe("what goes into one pack", () => {
  it("is all of its pieces, with the weight that they state together", () => {
    const { bodies, statedMg, guessed } = bodiesIn(sellable(), [inside("jar"), inside("melt", { statedMg: 12_500 })]);
    expect(bodies.map((one) => [one.name, one.count, one.widthUm])).toEqual([
      ["jar", 1, 84_000],
      ["melt", 4, 84_000],
    ]);
    expect(statedMg).toBe(230_000);
    expect(guessed).toBe(false);
  });

  it("states no weight where one of it is sold by the piece, or the rules do not reach", () => {
    expect(bodiesIn(sellable(), [inside("jar"), inside("melt", { soldByWeight: false })]).statedMg).toBeNull();
    const one = sellable({ contents: [{ productId: "jar", name: "Jar", count: 1 }] });
    expect(bodiesIn(one, [inside("jar", { statedMg: 4_000 })]).statedMg).toBeNull();
    expect(bodiesIn(one, [inside("jar", { statedMg: 5_000 })]).statedMg).toBe(5_000);
    expect(bodiesIn(undefined, []).statedMg).toBeNull();
    expect(bodiesIn(one, [inside("jar", { body: { ...inside("jar").body, outerUm: null } })]).guessed).toBe(true);
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
