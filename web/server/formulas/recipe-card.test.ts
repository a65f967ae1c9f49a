import { v7 } from "uuid";
import { expect, it } from "vitest";
import { notes, pictures } from "@/data/tables/note";
import { products } from "@/data/tables/product";
import { wicks } from "@/data/tables/shelf";
import { saveLot } from "@/server/inventory/commands";
import { costsNow } from "@/server/sales/packing";
import { readWorkshop } from "@/server/workshops/workshops";
import { here, inStoredWorkshop, stored, test, value, workshopId } from "@/testing/stored-workshop";
import { recipeCard } from "./recipe-card";

inStoredWorkshop();

it("a recipe card has amounts that make up the fill, the load of the formula, the cost that packs have, and the best picture", async () => {
  const workshop = await readWorkshop(workshopId);
  if (!workshop) throw new Error("no workshop");
  const [wick, cup] = [v7(), v7()];
  await test.db.insert(wicks).values({ workshopId, id: wick, name: "cord five", kind: "flat-braid cotton", size: "5" });
  await test.db
    .insert(products)
    .values({ workshopId, id: cup, name: "Cup", formulaId: stored.formula, container: "vessel", containerId: stored.vessel, wickId: wick, wicks: 2 });
  for (const [kind, materialId, amount] of [
    ["wax", stored.wax, 1_000_000],
    ["fragrance", stored.oil, 500_000],
    ["vessel", stored.vessel, 100],
    ["wick", wick, 100],
  ] as const)
    value(await saveLot(here(), { id: v7(), kind, materialId, expectedVersion: null, code: "A", amount, cost: 1_000, receivedOn: "2025-01-01" }));
  // A batch with flaws, one without, and a note of the formula, each with a picture.
  const picture = { width: 8, height: 8, place: 0, jpeg: Buffer.from([0xff, 0xd8, 0xff]) };
  const [ofBatch, ofFormula] = [v7(), v7()];
  for (const [id, kind, ofId] of [
    [ofBatch, "batch", stored.batch],
    [ofFormula, "formula", stored.formula],
  ] as const) {
    await test.db.insert(notes).values({ workshopId, id, kind, ofId, text: "seen", at: "2026-01-01T00:00:00.000Z" });
    await test.db.insert(pictures).values({ workshopId, id: v7(), noteId: id, ...picture, width: kind === "batch" ? 1 : 2 });
  }
  const card = await recipeCard({ db: test.db, workshop }, stored.formula);
  expect(card?.parts.map((part) => [part.kind, part.ppm])).toEqual([
    ["wax", 1_000_000],
    ["fragrance", 100_000],
  ]);
  const [candle] = card?.candles ?? [];
  expect(candle).toMatchObject({ wick: "2 × cord five", container: "cup", wickTest: "test due", fillMg: 14_000 });
  expect(Object.values(candle?.amounts ?? {}).reduce((sum, mg) => sum + mg, 0)).toBeCloseTo(14_000, 0);
  expect((candle?.amounts[stored.oil] ?? 0) / (candle?.amounts[stored.wax] ?? 1)).toBeCloseTo(0.1, 6);
  expect(candle?.cost).toBe((await costsNow({ db: test.db, workshop }, [cup])).get(cup));
  expect(candle?.cost).toBeGreaterThan(0);
  // The formula's own picture comes before that of a batch.
  expect(card?.picture).toMatchObject({ width: 2 });
  expect(await recipeCard({ db: test.db, workshop }, v7())).toBeNull();
});
