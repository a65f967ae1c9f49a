import { PRESET_PROCESSES, processFrom } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { DateTime } from "luxon";
import { v7 } from "uuid";
import { describe, expect, it } from "vitest";
import { fragrances, vessels, waxes } from "@/data/tables/shelf";
import { lots, stockCounts, stockUses } from "@/data/tables/stock";
import { parseFile } from "@/forms/file-parse";
import { listBatches, openBatches, readBatch } from "@/server/batches/batches";
import { startBatch } from "@/server/batches/commands";
import { appendEvent } from "@/server/events/batch-store";
import { saveFormula } from "@/server/formulas/formula-save";
import { readFormula } from "@/server/formulas/formulas";
import { find } from "@/server/workshops/find";
import { changeWorkshop } from "@/server/workshops/workshop-commands";
import { STARTED } from "@/testing/stored-batch";
import { here, inStoredWorkshop, stored, test, value, workshopId } from "@/testing/stored-workshop";
import { saveCount, saveLot, takeSheet } from "./commands";
import { readShelf, readStockHistory, readStocks, readTakenBy } from "./shelf";
import { saveOnShelf } from "./shelf-save";

const POURED = { kind: "poured" as const, payload: { step: "pour", filled: [], leftMg: null, roomCelsius: null, warmed: null } };

inStoredWorkshop();

const lot = (over: object = {}) => ({
  id: v7(),
  kind: "wax",
  materialId: stored.wax,
  expectedVersion: null,
  code: "A",
  amount: 1_000_000,
  cost: 800,
  receivedOn: "2026-01-10",
  ...over,
});
const append = (event: ReturnType<typeof stored.sent>, batch = stored.batch) => appendEvent(test.db, workshopId, batch, event, "2026-11-01T00:00:00.000Z");
const weigh = (componentId: string, mg: number, minute: number, over: object = {}) =>
  stored.sent(
    { kind: "weighed", payload: { pot: 0, componentId, mg } },
    { happenedAt: new Date(Date.parse(STARTED) + minute * 60_000).toISOString(), ...over },
  );
const product = (over: object = {}) => ({ id: stored.vessel, container: "vessel", count: 10, wick: null, ...over });
const order = (over: object = {}) => ({
  batchId: v7(),
  formulaVersionIds: [stored.version],
  process: "formula",
  products: [product()],
  sparePpm: 0,
  waxScale: stored.scale,
  oilScale: stored.scale,
  ...over,
});
const onHand = async (id: string) => (await readStocks(test.db, workshopId, "UTC"))[id]?.onHand;

describe("stock", () => {
  it("is drawn by what batches really weighed, corrections and all, and by the jars once poured", async () => {
    value(await saveLot(here(), lot()));
    value(await saveLot(here(), lot({ kind: "vessel", materialId: stored.vessel, amount: 12, cost: 120 })));
    const first = weigh(stored.wax, 172_000, 1);
    await append(first);
    expect(await onHand(stored.wax)).toBe(828_000);
    await append(weigh(stored.wax, 127_000, 2, { corrects: first.id }));
    expect(await onHand(stored.wax)).toBe(873_000);
    expect(await onHand(stored.vessel)).toBe(12);
    const poured = stored.sent(POURED, { happenedAt: new Date(Date.parse(STARTED) + 60_000 * 9).toISOString() });
    await append(poured);
    expect(await onHand(stored.vessel)).toBe(2);
    await append(stored.sent({ kind: "withdrawn", payload: { why: "", mode: "delete" } }, { corrects: poured.id, happenedAt: poured.happenedAt }));
    expect(await onHand(stored.vessel)).toBe(12);
    expect(await onHand(stored.oil)).toBeUndefined();
  });

  it("costs what the lots it came from cost, the oldest first, the same whether read for one batch or for all", async () => {
    value(await saveLot(here(), lot({ code: "old", amount: 100_000, cost: 100 })));
    value(await saveLot(here(), lot({ code: "new", amount: 500_000, cost: 1_000, receivedOn: "2026-01-20" })));
    await append(weigh(stored.wax, 127_000, 1));
    const [taken] = await readTakenBy(test.db, workshopId, stored.batch, "UTC");
    expect(taken?.taken).toMatchObject([
      { code: "old", amount: 100_000, cost: 100 },
      { code: "new", amount: 27_000, cost: 54 },
    ]);
    // A later batch draws on what is left; the earlier one is not moved by it.
    const existing = value(await startBatch(here(), order({ products: [product({ count: 5 })] })));
    const late = new Date(Date.now() + 60_000).toISOString();
    expect(await appendEvent(test.db, workshopId, existing.id, weigh(stored.wax, 64_000, 0, { id: v7(), happenedAt: late }), late)).toMatchObject({ ok: true });
    expect((await readTakenBy(test.db, workshopId, existing.id, "UTC"))[0]?.taken).toMatchObject([{ code: "new", amount: 64_000, cost: 128 }]);
    expect((await readTakenBy(test.db, workshopId, stored.batch, "UTC"))[0]?.taken).toHaveLength(2);
    expect(await onHand(stored.wax)).toBe(600_000 - 127_000 - 64_000);
    expect(await readStockHistory(test.db, workshopId, stored.wax)).toMatchObject({
      used: { batches: 2, amount: 191_000 },
      lots: [{ code: "new" }, { code: "old" }],
    });
  });

  it("is not touched by a rehearsal, which stands among no batches that count, however far it goes", async () => {
    await append(weigh(stored.wax, 127_000, 1));
    const before = await onHand(stored.wax);
    const { id, number } = value(await startBatch(here(), order({ rehearsal: true })));
    const rehearsed = async (n: number, over: Parameters<typeof stored.sent>[0]) => {
      const at = new Date(Date.now() + n * 60_000).toISOString();
      expect(await appendEvent(test.db, workshopId, id, stored.sent(over, { id: v7(), happenedAt: at }), at)).toMatchObject({ ok: true });
    };
    await rehearsed(0, { kind: "weighed", payload: { pot: 0, componentId: stored.wax, mg: 127_000 } });
    expect((await listBatches(test.db, workshopId, ["rehearsal"])).batches).toMatchObject([{ id, rehearsal: true }]);
    expect((await openBatches(test.db, workshopId)).map((openBatch) => openBatch.id)).not.toContain(id);
    await rehearsed(1, POURED);
    expect((await listBatches(test.db, workshopId, ["rehearsal", "rack", "pot"])).batches.map((batch) => batch.id)).not.toContain(id);
    expect((await find(test.db, workshopId, String(number))).filter((item) => item.path.includes(id))).toEqual([]);
    expect(await onHand(stored.wax)).toBe(before);
    // It began before anything that is still to come, so that its faster time never overtakes the clock.
    expect(Date.parse((await readBatch(test.db, workshopId, id))?.state.startedAt ?? "")).toBeLessThan(Date.now() - 12 * 3_600_000);
  });

  it("is set by a count, which can be taken back; a lot sent twice is received once, a stale change refused", async () => {
    const item = lot();
    value(await saveLot(here(), item));
    value(await saveLot(here(), item));
    expect(await onHand(stored.wax)).toBe(1_000_000);
    await append(weigh(stored.wax, 127_000, 1));
    const count = { id: v7(), kind: "wax", materialId: stored.wax, amount: 850_000 };
    value(await saveCount(here(), count));
    expect(await onHand(stored.wax)).toBe(850_000);
    value(await saveCount(here(), { ...count, withdrawn: true }));
    expect(await onHand(stored.wax)).toBe(873_000);
    value(await saveLot(here(), { ...item, expectedVersion: 1, withdrawn: true }));
    expect(await onHand(stored.wax)).toBeUndefined();
    expect(await saveLot(here(), { ...item, expectedVersion: 1, amount: 5 })).toMatchObject({ ok: false, message: expect.stringContaining("Somebody else") });
  });

  it("refuses what makes no sense, and materials of another workshop", async () => {
    expect(await saveLot(here(), lot({ amount: 0 }))).toMatchObject({ ok: false, fields: { amount: ["A lot holds something."] } });
    expect(await saveLot(here(), lot({ receivedOn: "2099-01-01" }))).toMatchObject({ ok: false, fields: { receivedOn: [expect.stringContaining("to come")] } });
    expect(await saveLot(here(), lot({ receivedOn: "10.1.2026" }))).toMatchObject({ ok: false });
    expect(await saveLot(here(), lot({ cost: -1 }))).toMatchObject({ ok: false });
    expect(await saveLot(here(), lot({ materialId: v7() }))).toMatchObject({ ok: false, message: expect.stringContaining("not on this shelf") });
    expect(await saveCount(here(), { id: v7(), kind: "wax", materialId: stored.wax, amount: -1 })).toMatchObject({ ok: false });
    expect(await test.db.select().from(lots).where(eq(lots.workshopId, workshopId))).toEqual([]);
  });

  it("is by the workshop's own day: what came in the afternoon is not swallowed by a count of the morning", async () => {
    for (const zone of ["America/Los_Angeles", "Pacific/Auckland", "UTC"]) {
      const at = (hour: number) => DateTime.fromISO(`2026-01-15T${hour}:00`, { zone }).toUTC().toISO() as string;
      const id = v7();
      await test.db.insert(waxes).values({ workshopId, id, name: `wax of ${zone}`, family: "soy" });
      const mine = { workshopId, materialId: id };
      await test.db.insert(stockCounts).values({ ...mine, id: v7(), at: at(10), amount: 400_000 });
      await test.db.insert(lots).values({ ...mine, id: v7(), kind: "wax", amount: 1_000_000, receivedOn: "2026-01-15", receivedAt: at(15) });
      // A lot of that day without a time was there in the morning, and was counted.
      await test.db.insert(lots).values({ ...mine, id: v7(), kind: "wax", amount: 50_000, receivedOn: "2026-01-15" });
      expect((await readStocks(test.db, workshopId, zone))[id]?.onHand, zone).toBe(1_400_000);
    }
  });

  it("counts a day from its own midnight, also on the night of the clock change", async () => {
    const zone = "Europe/Lisbon";
    // 29 March 2026: clocks go from 1 to 2 in the night. A count late on the 28th is before everything of the 29th.
    const id = v7();
    await test.db.insert(waxes).values({ workshopId, id, name: "night wax", family: "soy" });
    const mine = { workshopId, materialId: id };
    await test.db.insert(stockCounts).values({ ...mine, id: v7(), at: "2026-03-28T23:30:00.000Z", amount: 100 });
    await test.db.insert(lots).values({ ...mine, id: v7(), kind: "wax", amount: 7, receivedOn: "2026-03-29" });
    expect((await readStocks(test.db, workshopId, zone))[id]?.onHand).toBe(107);
    // The same moment is the 29th already in Tokyo: there the lot was counted.
    expect((await readStocks(test.db, workshopId, "Asia/Tokyo"))[id]?.onHand).toBe(100);
  });

  it("keeps its currency once a cost is written down", async () => {
    const change = (currency: string, expectedVersion: number) =>
      changeWorkshop({ id: workshopId, expectedVersion, name: "W", massUnit: "g", temperatureUnit: "C", timeZone: "UTC", currency });
    expect(await change("QQQ", 1)).toMatchObject({ ok: false, fields: { currency: [expect.stringContaining("not known")] } });
    expect(await change("usd", 1)).toMatchObject({ ok: true });
    value(await saveLot(here(), lot()));
    expect(await change("JPY", 2)).toMatchObject({ ok: false, fields: { currency: [expect.stringContaining("USD already")] } });
  });
});

describe("taking a file onto the shelf", () => {
  const sheet = (body: string) => {
    const parsed = parseFile(new TextEncoder().encode(body));
    if (!parsed.ok) throw new Error(parsed.message);
    return parsed.sheet;
  };
  const mapping = { name: 0, family: 1, maxLoadPpm: 2 };

  it("takes all rows or none, and refuses where the shelf has changed since the preview", async () => {
    const good = sheet("name,family,load\ntest soy,soy,11\npalm flakes,palm,7\n");
    expect(
      await takeSheet(here(), { kind: "wax", sheet: sheet("name,family,load\nfine,soy,8\nodd,butter,8\n"), mapping, shown: { new: 1, changed: 0, same: 0 } }),
    ).toMatchObject({
      ok: false,
      message: expect.stringMatching(/Row 3.*Nothing was imported/),
    });
    expect(await takeSheet(here(), { kind: "wax", sheet: good, mapping, shown: { new: 2, changed: 0, same: 0 } })).toMatchObject({
      ok: false,
      message: expect.stringContaining("has changed since"),
    });
    expect((await readShelf(test.db, workshopId)).waxes.map((wax) => wax.name)).toEqual(["test soy"]);
    expect(value(await takeSheet(here(), { kind: "wax", sheet: good, mapping, shown: { new: 1, changed: 1, same: 0 } }))).toEqual({
      new: 1,
      changed: 1,
      same: 0,
    });
    expect((await readShelf(test.db, workshopId)).waxes.map((wax) => [wax.name, wax.maxLoadPpm, wax.version])).toEqual([
      ["palm flakes", 70_000, 1],
      ["test soy", 110_000, 2],
    ]);
    // The same file again changes nothing, and two at once cannot both put the new one there.
    const both = await Promise.all(
      [1, 2].map(() => takeSheet(here(), { kind: "wax", sheet: sheet("name,family,load\nonly one,soy,8\n"), mapping, shown: { new: 1, changed: 0, same: 0 } })),
    );
    expect(both.map((item) => item.ok).sort()).toEqual([false, true]);
  });
});

describe("a batch from the wider shelf", () => {
  it("is not started in a vessel that is cracked or may hold lead, nor in one of plastic", async () => {
    for (const [patch, told] of [
      [{ state: "cracked" as const }, "never filled"],
      [{ state: "may hold lead" as const }, "may hold lead"],
      [{ state: "for sale" as const, material: "plastic" }, "softens or burns"],
    ] as const) {
      await test.db
        .update(vessels)
        .set(patch)
        .where(and(eq(vessels.workshopId, workshopId), eq(vessels.id, stored.vessel)));
      expect(await startBatch(here(), order())).toMatchObject({ ok: false, message: expect.stringContaining(told) });
    }
  });

  it("is started from a weight, in half fills, and draws a layered vessel only once", async () => {
    const half = value(await startBatch(here(), order({ start: { totalMg: 70_000 }, products: [product({ part: { kind: "half" } })] })));
    const layer = value(await startBatch(here(), order({ products: [product({ part: { kind: "layer", number: 2, of: 2 } })] })));
    expect(await startBatch(here(), order({ products: [product({ part: { kind: "layer", number: 3, of: 2 } })] }))).toMatchObject({
      ok: false,
    });
    for (const id of [half.id, layer.id]) {
      const now = new Date(Date.now() + 60_000).toISOString();
      expect(await appendEvent(test.db, workshopId, id, stored.sent(POURED, { happenedAt: now }), now)).toMatchObject({ ok: true });
    }
    const drawn = await test.db
      .select()
      .from(stockUses)
      .where(and(eq(stockUses.workshopId, workshopId), eq(stockUses.materialId, stored.vessel)));
    expect(drawn.map((item) => [item.batchId, item.amount])).toEqual([[half.id, 10]]);
  });

  it("opens a blend to its waxes, and refuses a blend of blends and dye that gel does not take", async () => {
    const put = async (kind: string, values: object) => value(await saveOnShelf(here(), { id: null, expectedVersion: null, kind, values })).id;
    const hard = await put("wax", { name: "hard", family: "paraffin" });
    const house = await put("wax", {
      name: "house",
      family: "blend",
      blend: [
        { id: stored.wax, share: 75 },
        { id: hard, share: 25 },
      ],
    });
    expect(
      await saveOnShelf(here(), {
        id: null,
        expectedVersion: null,
        kind: "wax",
        values: {
          name: "deeper",
          family: "blend",
          blend: [
            { id: house, share: 1 },
            { id: hard, share: 1 },
          ],
        },
      }),
    ).toMatchObject({ ok: false, fields: { "values.blend": [expect.any(String)] } });
    const block = await put("dye", { name: "brick", kind: "block" });
    const gel = await put("wax", { name: "clear", family: "gel" });
    const process = processFrom(PRESET_PROCESSES[0] as (typeof PRESET_PROCESSES)[number]);
    const spec = {
      waxes: [{ id: house, share: 1 }],
      fragrances: [],
      basis: "wax",
      loadPpm: 0,
      process,
      notes: "",
      dyes: [{ id: block, by: "pieces", amount: 1 }],
    };
    const made = value(await saveFormula(here(), { id: null, expectedVersion: null, name: "House", spec }));
    expect(await saveFormula(here(), { id: null, expectedVersion: null, name: "Gel", spec: { ...spec, waxes: [{ id: gel, share: 1 }] } })).toMatchObject({
      ok: false,
      fields: { dye: [expect.stringContaining("liquid dye only")] },
    });
    const version = (await readFormula(test.db, workshopId, made.id))?.versions[0]?.id;
    const started = value(await startBatch(here(), order({ formulaVersionIds: [version], products: [product({ count: 100 })] })));
    const counted = stored.sent({ kind: "counted", payload: { pot: 0, componentId: block, n: 3 } }, { happenedAt: new Date().toISOString() });
    expect(await appendEvent(test.db, workshopId, started.id, counted, new Date(Date.now() + 1_000).toISOString())).toMatchObject({ ok: true });
    await test.db.delete(waxes).where(and(eq(waxes.workshopId, workshopId), eq(waxes.id, gel)));
    expect(await test.db.select().from(fragrances).where(eq(fragrances.workshopId, workshopId))).toHaveLength(1);
  });
});

describe("a file's bytes", () => {
  const read = (text: string | Uint8Array) => parseFile(typeof text === "string" ? new TextEncoder().encode(text) : text);

  it("are parted into heads and rows, with quoted separators and line breaks, whatever the line ends", () => {
    expect(read('\ufeffsep=;\r\nname;remarks\r\n"a;b";"one\r\ntwo"\r\n')).toMatchObject({
      ok: true,
      sheet: { heads: ["name", "remarks"], rows: [["a;b", "one\r\ntwo"]], decimalComma: true },
    });
    expect(read("name\tfamily\nx\tsoy")).toMatchObject({ ok: true, sheet: { heads: ["name", "family"], rows: [["x", "soy"]], decimalComma: false } });
    expect(read('name,remarks\nx,"say ""hot"""\n')).toMatchObject({ ok: true, sheet: { rows: [["x", 'say "hot"']] } });
  });

  it("are refused with what to do where they are no CSV", () => {
    expect(read("")).toMatchObject({ ok: false, message: "This file is empty." });
    expect(read(new Uint8Array([0x50, 0x4b, 3, 4]))).toMatchObject({ ok: false, message: expect.stringContaining("save as CSV") });
    expect(read(new Uint8Array([0x6e, 0, 0x61, 0]))).toMatchObject({ ok: false, message: expect.stringContaining("not a text file") });
    expect(read('name\n"open,soy\n')).toMatchObject({ ok: false, message: expect.stringContaining("not closed") });
    expect(read(new Uint8Array(900_000).fill(0x61))).toMatchObject({ ok: false, message: expect.stringContaining("800 kB") });
  });
});
