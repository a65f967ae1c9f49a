import { describe, expect, it } from "vitest";
import { diagnosisOf } from "../diagnosis/of-batch";
import { parseProduct, writeProduct } from "../process/process";
import { anId, at, GRAMS, presetProcess } from "../testing/batch";
import { batchOf } from "./batch";
import { type PlanOrder, planBatch } from "./planning";

const [wax, oil] = [anId(), anId()];
const shelf = {
  waxes: [{ id: wax, name: "soy", family: "soy", maxLoadPpm: 120_000 }],
  fragrances: [{ id: oil, name: "rain", maxLoadPpm: null, flashPoint: null }],
};
const spec = { waxes: [{ id: wax, share: 1 }], fragrances: [{ id: oil, share: 1 }], basis: "wax" as const, loadPpm: 100_000, notes: "" };
const container = { statedFillMg: 100_000, workingFillMg: 100_000, soldByWeight: false, innerTopUm: 60_000, innerBottomUm: 60_000, heightUm: 70_000, count: 4 };
const tumbler = { ...container, id: anId(), name: "tumbler" };
const tin = { ...container, id: anId(), name: "tin" };

/** A process that pours one product after the other, each named as given. */
const inTurn = (...pours: (number | string)[]): PlanOrder["process"] => {
  const process = presetProcess("soy-bind-hot");
  const steps: typeof process.steps = process.steps.flatMap((step): typeof process.steps =>
    step.kind === "pour" ? pours.map((product, n) => ({ ...step, id: `pour-${n}`, product })) : [step],
  );
  return { ...process, steps };
};
const plan = (process: PlanOrder["process"], products: PlanOrder["products"] = [tumbler, tin]) =>
  planBatch({ process, pots: [{ name: "Test", number: 1, spec }], products, sparePpm: 0, scales: GRAMS }, shelf);

describe("a plan that begins from a weight", () => {
  it("shares it over the products, and fills none of them above full: the rest is left over", () => {
    for (const totalMg of [200_000, 799_000, 800_000, 801_000, 1_500_000]) {
      const products = [tumbler, { ...tin, workingFillMg: 60_000 }];
      const order = { process: presetProcess("soy-bind-hot"), pots: [{ name: "Test", number: 1, spec }], products, sparePpm: 0, scales: GRAMS };
      const filled = planBatch({ ...order, start: { totalMg } }, shelf).products;
      for (const [index, item] of filled.entries()) expect(item.fillMg).toBeLessThanOrEqual(products[index]?.workingFillMg ?? 0);
      const sum = filled.reduce((all, item) => all + item.count * item.fillMg, 0);
      expect(sum).toBeLessThanOrEqual(totalMg);
      // 640 g fill them whole; of less nothing is left but what rounds.
      expect(sum).toBeGreaterThan(Math.min(640_000, totalMg) - 1_000);
    }
  });
});

describe("a pour of one product only", () => {
  it("names it, or counts its place from 1, as it is typed and written", () => {
    expect(parseProduct("1")).toEqual({ ok: true, value: 0 });
    expect(parseProduct("0")).toMatchObject({ ok: false });
    for (const text of ["1", "7", "tin", "20 cl glass"]) {
      const read = parseProduct(text);
      expect(read.ok && writeProduct(read.value)).toBe(text);
    }
    // Frozen in the plan by its place, so that a later change of the name does not move it.
    expect(plan(inTurn("Tumbler", "tin")).process.steps.filter((step) => step.kind === "pour")).toMatchObject([{ product: 0 }, { product: 1 }]);
  });

  it("stops the plan where it names what is not there, or leaves a product unfilled", () => {
    expect(() => plan(inTurn("tumbler", "bowl"))).toThrow("pours “bowl”, which is not in this plan");
    expect(() => plan(inTurn(0, 2))).toThrow("pours product 3, which is not in this plan");
    expect(() => plan(inTurn("tumbler"))).toThrow("fills tin");
    expect(() => plan(inTurn("tumbler"), [tumbler])).not.toThrow();
  });

  it("is no pour in two goes: each product is judged by its own pours", () => {
    const frozen = plan(inTurn("tumbler", "tin"));
    const entry = (kind: string, payload: object, minute: number) => ({
      id: anId(),
      kind,
      payload,
      happenedAt: at(minute),
      arrivedAt: at(minute),
      personId: null,
      instrumentId: null,
      corrects: null,
    });
    const poured = (n: number, product: string) =>
      entry("poured", { step: `pour-${n}`, filled: [{ product, count: 4 }], leftMg: null, roomCelsius: null, warmed: null }, 30 + n);
    const { state } = batchOf([entry("started", { plan: frozen }, 0), poured(0, tumbler.id), poured(1, tin.id)] as never);
    for (const { key } of frozen.products) expect(diagnosisOf(frozen, state, at(900), new Map(), key).record).toMatchObject({ halves: false });
  });
});
