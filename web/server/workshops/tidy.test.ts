import { v7 } from "uuid";
import { describe, expect, it } from "vitest";
import { formulas } from "@/data/tables/formula";
import { dyes, fragrances, waxes } from "@/data/tables/shelf";
import { lots } from "@/data/tables/stock";
import { appendEvent } from "@/server/events/batch-store";
import { listColors } from "@/server/formulas/colors";
import { saveColor } from "@/server/formulas/commands";
import { saveFormula } from "@/server/formulas/formula-save";
import { listFormulas, readFormula } from "@/server/formulas/formulas";
import { merge, undoMerge } from "@/server/inventory/merge";
import { readPickList, readStocks } from "@/server/inventory/shelf";
import { readShelfPage } from "@/server/inventory/shelf-page";
import { saveProduct, sayWickTest } from "@/server/products/commands";
import { findProducts, readProduct } from "@/server/products/products";
import { STARTED } from "@/testing/stored-batch";
import { here, inStoredWorkshop, stored, test, value, workshopId } from "@/testing/stored-workshop";
import { addNote, notesOf } from "./notes";
import { readCatalogue } from "./search-index";
import { archive, duplicate, remove, restore } from "./tidy";

inStoredWorkshop();

const weigh = (mg: number) =>
  appendEvent(
    test.db,
    workshopId,
    stored.batch,
    stored.sent({ kind: "weighed", payload: { pot: 0, componentId: stored.wax, mg } }, { happenedAt: new Date(Date.parse(STARTED) + mg).toISOString() }),
    "2026-11-01T00:00:00.000Z",
  );
const product = (over: object = {}) => ({
  id: v7(),
  expectedVersion: null,
  name: "Cup of rain",
  formulaId: stored.formula,
  container: "vessel",
  containerId: stored.vessel,
  wickId: null,
  wicks: 1,
  price: 350,
  soldBy: "piece",
  pack: 1,
  packCost: null,
  handsSeconds: null,
  heatSeconds: null,
  ...over,
});

describe("two entries of one thing", () => {
  it("become one: stock, formulas and what a running batch still draws go over, and come back when it is undone", async () => {
    const other = v7();
    await test.db.insert(waxes).values({ workshopId, id: other, name: "test soy again", family: "soy" });
    await test.db.insert(lots).values([
      { workshopId, id: v7(), kind: "wax", materialId: stored.wax, amount: 1_000_000, receivedOn: "2026-01-10" },
      { workshopId, id: v7(), kind: "wax", materialId: other, amount: 500_000, receivedOn: "2026-01-11" },
    ]);
    await weigh(100_000);
    const onHand = async () => {
      const stocks = await readStocks(test.db, workshopId, "UTC");
      return [stocks[stored.wax]?.onHand, stocks[other]?.onHand];
    };
    expect(await onHand()).toEqual([900_000, 500_000]);
    const dye = v7();
    await test.db.insert(dyes).values({ workshopId, id: dye, name: "slate blue", kind: "liquid" });
    const color = { waxId: stored.wax, fragranceId: stored.oil, dyes: [{ id: dye, by: "drops", amount: 3 }] };
    value(await saveColor(here(), { id: v7(), name: "Slate", recipe: color }));
    expect(await saveColor(here(), { id: v7(), name: "Slate", recipe: { ...color, dyes: [{ ...color.dyes[0], id: v7() }] } })).toMatchObject({ ok: false });
    const note = { id: v7(), kind: "wax" as const, of: stored.wax, personId: null, text: "softer than the last lot", pictures: [] };
    expect(await addNote(test.db, workshopId, note, STARTED)).toEqual({ ok: true });
    expect(await addNote(test.db, await test.workshop(), { ...note, id: v7() }, STARTED)).toMatchObject({ ok: false, status: 404 });
    const told = async (id: string) => [
      (await notesOf(test.db, workshopId, "wax", id)).map((note) => note.text),
      (await listColors(test.db, workshopId, id)).map((color) => color.recipe.waxId),
    ];
    const mergeId = v7();
    const wanted = { kind: "wax", goneId: stored.wax, keptId: other, mergeId };
    value(await merge(here(), wanted));
    // Pressed twice it is done once.
    value(await merge(here(), wanted));
    expect(await onHand()).toEqual([undefined, 1_400_000]);
    expect((await readFormula(test.db, workshopId, stored.formula))?.versions[0]?.spec.waxes).toEqual([{ id: other, share: 1 }]);
    // What was noted of it, and the colors that were tried in it, go along.
    expect(await told(other)).toEqual([["softer than the last lot"], [other]]);
    expect(await told(stored.wax)).toEqual([[], []]);
    // The batch was frozen with the wax that went: what it weighs now is drawn from the one that stayed.
    expect((await weigh(27_000)).ok).toBe(true);
    expect(await onHand()).toEqual([undefined, 1_373_000]);
    value(await undoMerge(here(), { mergeId }));
    expect(await undoMerge(here(), { mergeId })).toMatchObject({ ok: false });
    expect(await told(stored.wax)).toEqual([["softer than the last lot"], [stored.wax]]);
    expect(await told(other)).toEqual([[], []]);
    expect(await remove(here(), { kind: "dye", id: dye })).toMatchObject({ ok: false, message: expect.stringContaining("color recipes") });
    expect(await onHand()).toEqual([873_000, 500_000]);
    expect((await readFormula(test.db, workshopId, stored.formula))?.versions[0]?.spec.waxes).toEqual([{ id: stored.wax, share: 1 }]);
  });

  it("are not merged where a formula names both, or one is a blend", async () => {
    const blend = v7();
    await test.db.insert(waxes).values({ workshopId, id: blend, name: "a blend", family: "blend", blend: [{ id: stored.wax, share: 1 }] });
    expect(await merge(here(), { kind: "wax", goneId: stored.wax, keptId: blend, mergeId: v7() })).toMatchObject({
      ok: false,
      message: expect.stringContaining("blend"),
    });
    expect(await merge(here(), { kind: "wax", goneId: stored.wax, keptId: stored.wax, mergeId: v7() })).toMatchObject({ ok: false });
  });
});

describe("putting away, deleting, duplicating", () => {
  it("deletes only what was never used, and puts it back", async () => {
    expect(await remove(here(), { kind: "wax", id: stored.wax })).toMatchObject({ ok: false, message: expect.stringContaining("used in formulas") });
    expect(await remove(here(), { kind: "instrument", id: stored.scale })).toMatchObject({ ok: false, message: expect.stringContaining("batches") });
    expect(await remove(here(), { kind: "person", id: stored.person })).toMatchObject({ ok: false, message: expect.stringContaining("entries") });
    expect(await remove(here(), { kind: "formula", id: stored.formula })).toMatchObject({ ok: false, message: expect.stringContaining("batches") });
    const copy = value(await duplicate(here(), { kind: "formula", id: stored.formula, freshId: v7() }));
    expect(copy.name).toBe("Test formula, copy");
    expect(value(await duplicate(here(), { kind: "formula", id: copy.id, freshId: v7() })).name).toBe("Test formula, copy 2");
    value(await remove(here(), { kind: "formula", id: copy.id }));
    expect(await readFormula(test.db, workshopId, copy.id)).toBeNull();
    value(await restore(here(), { kind: "formula", id: copy.id }));
    expect((await readFormula(test.db, workshopId, copy.id))?.versions).toHaveLength(1);
  });

  it("keeps what is put away out of lists and choosers, but not out of what names it", async () => {
    value(await archive(here(), { kind: "fragrance", id: stored.oil, away: true }));
    const shelf = await readPickList(test.db, workshopId, []);
    expect(shelf.fragrances).toEqual([]);
    expect((await readPickList(test.db, workshopId, [stored.oil])).fragrances).toHaveLength(1);
    value(await archive(here(), { kind: "formula", id: stored.formula, away: true }));
    expect((await listFormulas(test.db, workshopId)).found).toBe(0);
    expect((await listFormulas(test.db, workshopId, { away: true })).found).toBe(1);
    expect((await readCatalogue(test.db, workshopId, "UTC")).formulas).toEqual([]);
    // The last one who works here stays.
    expect(await archive(here(), { kind: "person", id: stored.person, away: true })).toMatchObject({ ok: false });
  });
});

describe("lists of many", () => {
  it("are ordered as people order, found by letters that mean just themselves, and paged", async () => {
    await test.db
      .insert(fragrances)
      .values(Array.from({ length: 100 }, (_, index) => ({ workshopId, id: v7(), name: `oil ${index + 1} 100%`, kind: "fragrance" as const })));
    const names = async (asked: object) =>
      (await readShelfPage(test.db, { id: workshopId, timeZone: "UTC" }, { kind: "fragrance", ...asked }, null, STARTED)).parts[0];
    expect((await names({}))?.rows.slice(0, 3).map((row) => row.name)).toEqual(["oil 1 100%", "oil 2 100%", "oil 3 100%"]);
    expect((await names({ page: 3 }))?.rows.map((row) => row.name).at(-1)).toBe("test rain");
    expect((await names({ q: "%" }))?.found).toBe(100);
    expect((await names({ q: "_" }))?.found).toBe(0);
    // However many there are, a page begins with a few of them.
    expect((await readPickList(test.db, workshopId, [], 12)).fragrances).toHaveLength(12);
  });
});

describe("a product", () => {
  it("is due for another wick test when its formula or itself changes what was tested", async () => {
    const item = product();
    value(await saveProduct(here(), item));
    value(await saveProduct(here(), item));
    expect((await findProducts(test.db, workshopId, {})).found).toBe(1);
    value(await sayWickTest(here(), { id: item.id, expectedVersion: 1, wickTest: "tested" }));
    const stale = await saveProduct(here(), { ...item, expectedVersion: 1 });
    expect(stale).toMatchObject({ ok: false, message: expect.stringContaining("Somebody else changed this product") });
    expect(value(await saveProduct(here(), { ...item, expectedVersion: 2, price: 400 })).dueAgain).toEqual([]);
    const spec = (await readFormula(test.db, workshopId, stored.formula))?.versions[0]?.spec;
    const saved = value(
      await saveFormula(here(), { id: stored.formula, expectedVersion: 1, name: "Test formula", spec: { ...spec, loadPpm: 85_000 } as never }),
    );
    expect(saved.due).toEqual(["Cup of rain"]);
    expect((await readProduct(test.db, workshopId, item.id))?.wickTest).toBe("test due");
  });

  it("is refused with what is wrong at its field: names taken, what is not on the shelf, a vessel that must not be filled", async () => {
    value(await saveProduct(here(), product()));
    expect(await saveProduct(here(), product({ name: "CUP of rain" }))).toMatchObject({ ok: false, fields: { name: [expect.any(String)] } });
    expect(await saveProduct(here(), product({ name: "b", containerId: v7() }))).toMatchObject({ ok: false, fields: { containerId: [expect.any(String)] } });
    expect(await saveProduct(here(), product({ name: "c", formulaId: v7() }))).toMatchObject({ ok: false, fields: { formulaId: [expect.any(String)] } });
    expect(await saveProduct(here(), product({ name: "d", wickId: v7() }))).toMatchObject({ ok: false, fields: { wickId: [expect.any(String)] } });
    expect((await test.db.select().from(formulas)).length).toBeGreaterThan(0);
  });
});
