import { PROTOCOLS, protocol, type TrialBody, type TrialEvent } from "@hearth/core";
import { v7 } from "uuid";
import { expect, it } from "vitest";
import { products } from "@/data/tables/product";
import { vessels, waxes, wicks } from "@/data/tables/shelf";
import { appendTo } from "@/server/events/append";
import { trialStore } from "@/server/events/trial-store";
import { here, inStoredWorkshop, stored, test, value, workshopId } from "@/testing/stored-workshop";
import { beginTrial } from "./commands";
import { readDesign } from "./trial-design";

inStoredWorkshop();

const LATER = "2099-01-01T00:00:00.000Z";
const wickOf = async (size: string, over: object = {}) => {
  const id = v7();
  await test.db
    .insert(wicks)
    .values({ workshopId, id, name: `flat-braid cotton ${size}`, kind: "flat-braid cotton", size, fromUm: 30_000, toUm: 45_000, ...over });
  return id;
};
const productOf = async (name: string, wickId: string | null, over: object = {}) => {
  const id = v7();
  await test.db
    .insert(products)
    .values({ workshopId, id, name, formulaId: stored.formula, container: "vessel", containerId: stored.vessel, wickId, wicks: 1, ...over });
  return id;
};
const begin = async (wick: string, productId: string | null) =>
  value(
    await beginTrial(here(), {
      trialId: v7(),
      name: "Which wick",
      varies: "wick size",
      protocol: protocol.parse(PROTOCOLS[1]),
      productId,
      after: null,
      variants: [
        {
          from: "make",
          formulaVersionId: stored.version,
          container: "vessel",
          containerId: stored.vessel,
          wick: { id: wick, count: 1 },
          testCandles: 1,
          half: false,
          change: {},
        },
      ],
    }),
  );

it("begins with the product whose wick test is due, and its formula, vessel, wax and load", async () => {
  const four = await wickOf("4");
  await productOf("A tested one", four, { wickTest: "tested" });
  const due = await productOf("Not tested", four);
  await productOf("Melts", null);
  const design = await readDesign(test.db, workshopId, {});
  expect(design.product).toMatchObject({ id: due, wickId: four });
  expect(design.products.map((product) => product.name)).toEqual(["A tested one", "Not tested"]);
  expect(design.formula).toMatchObject({
    id: stored.formula,
    versionId: stored.version,
    loadPpm: 100_000,
    waxId: stored.wax,
    family: "soy",
    maxLoadPpm: 120_000,
  });
  expect(design.containerId).toBe(stored.vessel);
  expect(design.before).toBeNull();
});

it("offers no vessel that must not be filled, nothing that was put away, and a formula in a vessel where there is no product", async () => {
  const [cracked, other] = [v7(), v7()];
  const measures = {
    material: "glass",
    statedFillMg: 100_000,
    workingFillMg: 100_000,
    soldByWeight: false,
    innerTopUm: 70_000,
    innerBottomUm: 70_000,
    heightUm: 80_000,
  };
  await test.db.insert(vessels).values([
    { workshopId, id: cracked, name: "cracked jar", state: "cracked", ...measures },
    { workshopId, id: other, name: "tall jar", ...measures },
  ]);
  await test.db.insert(waxes).values({ workshopId, id: v7(), name: "old wax", family: "soy", archived: true });
  await wickOf("9", { archived: true });
  const design = await readDesign(test.db, workshopId, { formula: stored.formula, container: other });
  expect(design.product).toBeNull();
  expect(design.containers.map((container) => container.name)).toEqual(["cup", "tall jar"]);
  expect(design.containerId).toBe(other);
  expect(design.wicks).toEqual([]);
  expect(design.waxes.map((wax) => wax.name)).toEqual(["test soy"]);
});

it("follows a trial: its protocol, its vessel and product, and what was tried there before", async () => {
  const four = await wickOf("4");
  const product = await productOf("Cup of rain", four);
  const first = await begin(four, product);
  const enter = (container: TrialBody) =>
    appendTo(
      trialStore,
      test.db,
      workshopId,
      first.id,
      { id: v7(), happenedAt: "2026-12-01T00:00:00.000Z", personId: null, instrumentId: null, corrects: null, ...container } as TrialEvent,
      LATER,
    );
  expect(await enter({ kind: "decided", payload: { variant: "A", verdict: "passed", why: "" } })).toMatchObject({ ok: true });
  const design = await readDesign(test.db, workshopId, { follows: first.id, variant: "A" });
  expect(design.before).toMatchObject({ id: first.id, number: first.number, variant: "A", protocol: { name: "Every hour, four hours" } });
  expect(design.product?.id).toBe(product);
  expect(design.containerId).toBe(stored.vessel);
  expect(design.tried).toMatchObject([{ trial: first.number, decided: "passed", wickName: "flat-braid cotton 4" }]);
  expect(design.passed).toMatchObject([{ wickId: four, trial: first.number, family: "soy" }]);
  // A trial of another workshop is none here.
  const elsewhere = await test.workshop();
  expect((await readDesign(test.db, elsewhere, { follows: first.id })).before).toBeNull();
});
