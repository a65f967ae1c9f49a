import { describe, expect, it } from "vitest";
import { batchOf } from "../batch/batch";
import { aBatch } from "../testing/batch";
import { netOfBatch } from "./of-batch";

/** Ten cups of 14 g, sold by weight, with these weights logged at pouring. */
const netOf = (weights: number[] | null, over: object = {}, grams?: (g: number) => string) => {
  const { plan } = batchOf(aBatch().events);
  const product = { ...(plan.products[0] as (typeof plan.products)[number]), ...over };
  const pour = {
    at: "",
    personId: null,
    leftMg: null,
    roomCelsius: null,
    warmed: null,
    filled: [{ product: product.key, count: 100, ...(weights ? { weightsMg: weights } : {}) }],
  };
  return netOfBatch({ ...plan, products: [product] }, { pours: { pour } }, grams);
};
const many = (mg: number, spread: number) => Array.from({ length: 20 }, (_, index) => mg + (index % 2 ? spread : -spread));

describe("net weight of a batch", () => {
  it("is held to what is stated by the rules for packed goods, and says which fill would pass", () => {
    expect(netOf(many(14_100, 50))).toMatchObject([{ statedMg: 14_000, weighed: 20, answer: { verdict: "pass", below: 0 } }]);
    // The rules allow 9 % of 14 g, up to the next tenth: 1.3 g.
    const [light] = netOf(many(13_600, 200));
    expect(light?.answer).toMatchObject({ verdict: "fail", tolerable_negative_error_g: 1.3, fill_to_pass_g: 14 });
    expect(netOf(many(14_000, 2_700))[0]?.answer).toMatchObject({ verdict: "fail", below_twice: 10 });
    expect(netOf([14_000, 14_100])[0]?.answer.verdict).toBe("too_few");
  });

  it("says nothing of what is not sold by weight, was not weighed, is a part of a fill, or was poured in two goes", () => {
    expect(netOf(many(14_000, 10), { soldByWeight: false })).toEqual([]);
    expect(netOf(null)).toEqual([]);
    expect(netOf(many(14_000, 10), { part: { kind: "half" } })).toEqual([]);
    expect(netOf(many(3_000, 10), { statedFillMg: 3_000 })).toEqual([]);
    const { plan } = batchOf(aBatch().events);
    const filled = [{ product: plan.products[0]?.key ?? "", count: 10, weightsMg: many(7_000, 10) }];
    const pour = { at: "", personId: null, leftMg: null, roomCelsius: null, warmed: null, filled };
    expect(netOfBatch(plan, { pours: { first: pour, second: pour } })).toEqual([]);
  });

  it("speaks in the reader's unit", () => {
    const ounces = (g: number) => `${Math.round(g / 0.28349523125) / 100} oz`;
    expect(netOf(many(13_600, 200), {}, ounces)[0]?.answer.why).toBe(
      "The mean of 0.48 oz is below 0.49 oz, which a lot of 0.49 oz reaches in 199 of 200 samples.",
    );
  });
});
