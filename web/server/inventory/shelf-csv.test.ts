import { guessMapping, type SheetKind } from "@hearth/core";
import { eq } from "drizzle-orm";
import { v7 } from "uuid";
import { describe, expect, it } from "vitest";
import { products } from "@/data/tables/product";
import { packs, waxes, wicks } from "@/data/tables/shelf";
import { lots } from "@/data/tables/stock";
import { workshops } from "@/data/tables/workshop";
import { parseText } from "@/forms/file-parse";
import { appendEvent } from "@/server/events/batch-store";
import { formulaForPlan } from "@/server/formulas/formulas";
import { readDemandPlan } from "@/server/planning/planning";
import { sayWickTest } from "@/server/products/commands";
import { formulaNames, readCatalogue } from "@/server/workshops/search-index";
import { changeWorkshop } from "@/server/workshops/workshop-commands";
import { STARTED } from "@/testing/stored-batch";
import { here, inStoredWorkshop, stored, test, value, workshopId } from "@/testing/stored-workshop";
import { takeSheet } from "./commands";
import { pickList, readLow, readRecentlyUsed, readStocks } from "./shelf";
import { readShelfPage } from "./shelf-page";
import { saveOnShelf } from "./shelf-save";

inStoredWorkshop();

/** Takes pasted rows in, as the page does after its preview. */
const paste = (kind: SheetKind, text: string, shown: { new: number; changed: number; same: number }) => {
  const read = parseText(text);
  if (!read.ok) throw new Error(read.message);
  return takeSheet(here(), { kind, sheet: read.sheet, mapping: guessMapping(kind, read.sheet.heads), shown });
};
const weigh = (componentId: string, mg: number, minute: number) =>
  appendEvent(
    test.db,
    workshopId,
    stored.batch,
    stored.sent({ kind: "weighed", payload: { pot: 0, componentId, mg } }, { happenedAt: new Date(Date.parse(STARTED) + minute * 60_000).toISOString() }),
    "2026-11-01T00:00:00.000Z",
  );

describe("opening stock and products from a spreadsheet", () => {
  it("puts lots into stock, each once, weights and pieces alike", async () => {
    const rows = "of what\tamount\tcost of the lot\treceived on\ntest soy\t2 kg\t18,40\t2026-01-10\ncup\t60\t\t2026-01-11";
    expect(await paste("lot", rows.replace("18,40", "18.40"), { new: 2, changed: 0, same: 0 })).toMatchObject({ ok: true, value: { new: 2 } });
    const stocks = await readStocks(test.db, workshopId, "UTC");
    expect([stocks[stored.wax]?.onHand, stocks[stored.vessel]?.onHand]).toEqual([2_000_000, 60]);
    expect(await paste("lot", rows.replace("18,40", "18.40"), { new: 0, changed: 0, same: 2 })).toMatchObject({ ok: true, value: { same: 2 } });
    expect(await test.db.select().from(lots).where(eq(lots.workshopId, workshopId))).toHaveLength(2);
  });

  it("takes all rows or none, and nothing that the preview did not show", async () => {
    const good = "name\tformula\tvessel or mold\tprice\nCup A\tTest formula\tcup\t3.50\nCup B\tTest formula\tcup\t4";
    expect(await paste("product", `${good}\nCup C\tno such\tcup\t1`, { new: 2, changed: 0, same: 0 })).toMatchObject({
      ok: false,
      message: expect.stringContaining("Row 4"),
    });
    expect(await paste("product", good, { new: 1, changed: 0, same: 0 })).toMatchObject({
      ok: false,
      message: expect.stringContaining("changed since this preview"),
    });
    expect(await test.db.select().from(products).where(eq(products.workshopId, workshopId))).toEqual([]);
    expect(await paste("product", good, { new: 2, changed: 0, same: 0 })).toMatchObject({ ok: true });
    const made = await test.db.select().from(products).where(eq(products.workshopId, workshopId));
    expect(made.map((item) => [item.name, item.container, item.price, item.wickTest]).sort()).toEqual([
      ["Cup A", "vessel", 350, "test due"],
      ["Cup B", "vessel", 400, "test due"],
    ]);
    expect(await paste("product", "name\tprice\ncup b\t4.25", { new: 0, changed: 1, same: 0 })).toMatchObject({ ok: true, value: { changed: 1 } });
  });

  it("makes the wick test of a product due again where a row changes its wick, and leaves it where it changes only the price", async () => {
    await test.db.insert(wicks).values([
      { workshopId, id: v7(), name: "braid 4", kind: "flat-braid cotton", size: "4" },
      { workshopId, id: v7(), name: "braid 6", kind: "flat-braid cotton", size: "6" },
    ]);
    await paste("product", "name\tformula\tvessel or mold\twick\tprice\nCup A\tTest formula\tcup\tbraid 4\t3.50", { new: 1, changed: 0, same: 0 });
    const state = async () => (await test.db.select().from(products).where(eq(products.workshopId, workshopId)))[0];
    const made = await state();
    await sayWickTest(here(), { id: made?.id, expectedVersion: made?.version, wickTest: "tested" });
    expect(await paste("product", "name\tprice\nCup A\t4.00", { new: 0, changed: 1, same: 0 })).toMatchObject({ ok: true });
    expect((await state())?.wickTest).toBe("tested");
    expect(await paste("product", "name\twick\nCup A\tbraid 6", { new: 0, changed: 1, same: 0 })).toMatchObject({ ok: true });
    expect((await state())?.wickTest).toBe("test due");
  });

  it("keeps the currency once a product is priced in it", async () => {
    await paste("product", "name\tformula\tvessel or mold\tprice\nCup A\tTest formula\tcup\t3.50", { new: 1, changed: 0, same: 0 });
    const [row] = await test.db.select().from(workshops).where(eq(workshops.id, workshopId));
    const settings = { id: workshopId, expectedVersion: row?.version ?? 1, name: "Shed", massUnit: "oz", temperatureUnit: "F", timeZone: "UTC" };
    expect(await changeWorkshop({ ...settings, currency: "USD" })).toMatchObject({
      ok: false,
      fields: { currency: [expect.stringContaining("not converted")] },
    });
    expect(await changeWorkshop({ ...settings, currency: row?.currency, lengthUnit: "in", pounds: true, locale: "en-US", handsCost: 1_800 })).toMatchObject({
      ok: true,
    });
    expect(await changeWorkshop({ ...settings, currency: row?.currency, locale: "xx-XX", expectedVersion: settings.expectedVersion + 1 })).toMatchObject({
      ok: false,
    });
  });
});

describe("what is wanted, from a spreadsheet", () => {
  it("is put on the list line by line, alike ones each for themselves, and what stands there already is not doubled", async () => {
    await paste("product", "name\tformula\tvessel or mold\nJar of rain\tTest formula\tcup\nJar of hail\tTest formula\tcup", {
      new: 2,
      changed: 0,
      same: 0,
    }).then(value);
    const rows = "product\tpieces\twanted by\tfor\nJar of rain\t12\t2026-05-02\tmarket\njar of HAIL\t3\t\t\nJar of rain\t12\t2026-05-02\torder 7";
    value(await paste("wanted", rows, { new: 3, changed: 0, same: 0 }));
    const listed = async () =>
      (await readDemandPlan(test.db, { id: workshopId, timeZone: "UTC" })).lines.map((line) => [line.productName, line.count, line.wantedOn, line.note]);
    expect(await listed()).toEqual([
      ["Jar of rain", 12, "2026-05-02", "market"],
      ["Jar of rain", 12, "2026-05-02", "order 7"],
      ["Jar of hail", 3, null, ""],
    ]);
    value(await paste("wanted", rows, { new: 0, changed: 0, same: 3 }));
    expect(await listed()).toHaveLength(3);
  });

  it("is taken whole or not at all: a product that is not there, no number, no day", async () => {
    await paste("product", "name\tformula\tvessel or mold\nJar of rain\tTest formula\tcup", { new: 1, changed: 0, same: 0 }).then(value);
    for (const [row, told] of [
      ["Jar of snow\t3\t\t", /Jar of snow/],
      ["Jar of rain\tsome\t\t", /Pieces/],
      ["Jar of rain\t0\t\t", /Pieces/],
      ["Jar of rain\t3\tnext week\t", /Wanted by/],
    ] as const) {
      const out = await paste("wanted", `product\tpieces\twanted by\tfor\nJar of rain\t1\t\t\n${row}`, { new: 2, changed: 0, same: 0 });
      expect(out.ok ? "" : out.message).toMatch(told);
    }
    expect((await readDemandPlan(test.db, { id: workshopId, timeZone: "UTC" })).lines).toEqual([]);
  });
});

describe("what is offered first", () => {
  it("is what was used lately, of materials and of formulas; the last change of a person is not overwritten", async () => {
    const unused = v7();
    await test.db.insert(waxes).values({ workshopId, id: unused, name: "a wax never used", family: "soy" });
    await weigh(stored.wax, 100_000, 1);
    expect(Object.keys(await readRecentlyUsed(test.db, workshopId, [stored.wax, stored.vessel]))).toEqual([stored.wax]);
    // One of each kind: the wax that was used comes before the one that comes first by name.
    const few = await pickList(test.db, { id: workshopId, timeZone: "UTC" }, [], 1);
    expect(few.shelf.waxes.map((wax) => wax.id)).toEqual([stored.wax]);
    expect(few.recentlyUsed[stored.wax]).toBeDefined();
    const [formula] = await formulaNames(test.db, workshopId);
    expect(formula).toMatchObject({ id: stored.formula, usedAt: STARTED });
    expect((await formulaForPlan(test.db, workshopId, stored.formula))?.versionId).toBe(stored.version);
    expect(await formulaForPlan(test.db, workshopId, v7())).toBeNull();
    const all = await readCatalogue(test.db, workshopId, "UTC");
    expect(all.shelf.waxes).toHaveLength(2);
    const rename = (name: string) => saveOnShelf(here(), { kind: "person", id: stored.person, expectedVersion: 1, values: { name } });
    expect(await rename("Ilvo")).toMatchObject({ ok: true });
    expect(await rename("Late")).toMatchObject({ ok: false, message: expect.stringContaining("Somebody else changed") });
  });

  it("says for how many batches a thing goes on by what batches drew of it lately, and what is low", async () => {
    await test.db.insert(lots).values({ workshopId, id: v7(), kind: "wax", materialId: stored.wax, amount: 1_000_000, receivedOn: "2026-01-10" });
    await weigh(stored.wax, 300_000, 1);
    const page = (now: string, low: string[] | null = null) => readShelfPage(test.db, { id: workshopId, timeZone: "UTC" }, { kind: "wax" }, low, now);
    // 700 g are there, and a batch takes 300 g.
    expect((await page("2026-02-10T00:00:00.000Z")).goesOn[stored.wax]).toBe(2);
    expect((await page("2026-09-10T00:00:00.000Z")).goesOn).toEqual({});
    await test.db.update(waxes).set({ low: 800_000 }).where(eq(waxes.id, stored.wax));
    const low = await readLow(test.db, workshopId, "UTC");
    expect(low).toMatchObject([{ kind: "wax", id: stored.wax, onHand: 700_000 }]);
    expect((await page(STARTED, [])).parts[0]?.rows).toEqual([]);
    expect((await page(STARTED, [stored.wax])).parts[0]?.found).toBe(1);
    await test.db.insert(wicks).values({ workshopId, id: v7(), name: "soy braid", kind: "flat-braid cotton", families: ["soy"] });
    await test.db.insert(wicks).values({ workshopId, id: v7(), name: "any braid", kind: "flat-braid cotton" });
    const suits = await readShelfPage(test.db, { id: workshopId, timeZone: "UTC" }, { family: "palm" }, null, STARTED);
    expect(suits.parts.find((part) => part.kind === "wick")?.rows.map((row) => row.name)).toEqual(["any braid"]);
    expect(suits.parts.find((part) => part.kind === "wax")?.found).toBe(0);
  });
});

describe("packing from a spreadsheet", () => {
  it("stands on the shelf with its inner size, is received in pieces, and a product's file leaves how it is packed alone", async () => {
    const rows = "name\tkind\tinner length\tinner width\tinner height\tlow below\nsix box\tbox\t120 mm\t81 mm\t19 mm\t10\nround label\tlabel\t\t\t\t";
    expect(await paste("pack", rows, { new: 2, changed: 0, same: 0 })).toMatchObject({ ok: true, value: { new: 2 } });
    const [box] = await test.db.select().from(packs).where(eq(packs.name, "six box"));
    expect(box).toMatchObject({ kind: "box", lengthUm: 120_000, widthUm: 81_000, heightUm: 19_000, low: 10 });
    expect(await paste("lot", "of what\tamount\treceived on\nsix box\t40\t2026-01-11", { new: 1, changed: 0, same: 0 })).toMatchObject({ ok: true });
    expect((await readStocks(test.db, workshopId, "UTC"))[box?.id ?? ""]?.onHand).toBe(40);
    const id = v7();
    const packaging = { boxId: box?.id ?? null, parts: [] };
    await test.db.insert(products).values({
      workshopId,
      id,
      name: "Cup of rain",
      formulaId: stored.formula,
      container: "vessel",
      containerId: stored.vessel,
      wickId: null,
      packaging,
      labelContainer: "tealight",
    });
    const changed = "name\tformula\tvessel or mold\tprice\nCup of rain\tTest formula\tcup\t4.50";
    expect(await paste("product", changed, { new: 0, changed: 1, same: 0 })).toMatchObject({ ok: true, value: { changed: 1 } });
    const [after] = await test.db.select().from(products).where(eq(products.id, id));
    expect(after).toMatchObject({ price: 450, packaging, labelContainer: "tealight" });
  });
});
