import { NO_PACKAGING, ORDER, type OrderBody, shoppingOf } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import Papa from "papaparse";
import { v7 } from "uuid";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { GET as salesFile } from "@/app/api/workshops/[workshop]/sales/route";
import { batches } from "@/data/tables/batch";
import { products } from "@/data/tables/product";
import { orderEvents, orderPacks, packRuns } from "@/data/tables/sales";
import { packs } from "@/data/tables/shelf";
import { lots } from "@/data/tables/stock";
import { readBatch, waitingCounts } from "@/server/batches/batches";
import { batchRecordOf } from "@/server/batches/export-record";
import { appendTo } from "@/server/events/append";
import { appendEvent } from "@/server/events/batch-store";
import { orderStore } from "@/server/events/order-store";
import { readStocks } from "@/server/inventory/shelf";
import { findLots, lotTrace } from "@/server/inventory/trace";
import { readDemandPlan, readSupplies } from "@/server/planning/planning";
import { find } from "@/server/workshops/find";
import { archive, remove, restore } from "@/server/workshops/tidy";
import { readWorkshop } from "@/server/workshops/workshops";
import { brokenBooks } from "@/testing/books/invariants";
import { STARTED, storedBatch } from "@/testing/stored-batch";
import { here, inStoredWorkshop, stored, test, value, workshopId } from "@/testing/stored-workshop";
import { beginOrder, pack, putOnPlan, saveSet, takeOut, unpack } from "./commands";
import { readFinishedGoods, recentlyPacked } from "./finished-goods";
import { listOrders, ordersSoon, readOrder, whereNow } from "./orders";
import { costsNow } from "./packing";
import { salesBetween, salesByMonth } from "./sales";

inStoredWorkshop();

const DAY = 1_440;
const NOW = "2026-11-01T00:00:00.000Z";
const LATER = "2099-01-01T00:00:00.000Z";
const at = (minutes: number) => new Date(Date.parse(STARTED) + minutes * 60_000).toISOString();
let cup = "";
let box = "";
let label = "";

type Stored = typeof stored;
const put = async (of: Stored, body: object, minutes: number) => {
  const answer = await appendEvent(test.db, workshopId, of.batch, { ...of.sent(body as never), id: v7(), happenedAt: at(minutes) } as never, NOW);
  if (!answer.ok) throw new Error(answer.message);
};
/** Pours, looks over and releases a stored batch: ten cups. */
async function release(of: Stored, from = 0, cracked = 0) {
  const key = (await readBatch(test.db, workshopId, of.batch))?.plan.products[0]?.key ?? "";
  await put(of, { kind: "poured", payload: { step: "pour", filled: [], leftMg: null, roomCelsius: null, warmed: null } }, from + 60);
  const crack = { defect: "cracked_glass", place: "side", extent: "third" };
  if (cracked > 0) await put(of, { kind: "jarsInspected", payload: { product: key, jars: cracked, flaws: [crack] } }, from + 20 * DAY);
  await put(of, { kind: "jarsInspected", payload: { product: key, jars: 10 - cracked, flaws: [] } }, from + 20 * DAY + 1);
  await put(of, { kind: "inspected", payload: { jars: 10 } }, from + 20 * DAY + 2);
  await put(of, { kind: "released", payload: { note: "" } }, from + 20 * DAY + 3);
}

beforeEach(async () => {
  [cup, box, label] = [v7(), v7(), v7()];
  await test.db.insert(packs).values([
    { workshopId, id: box, name: "cup box", kind: "box", lengthUm: 80_000, widthUm: 42_000, heightUm: 20_000 },
    { workshopId, id: label, name: "small label", kind: "label" },
  ]);
  await test.db.insert(lots).values([
    { workshopId, id: v7(), kind: "pack", materialId: box, amount: 20, cost: 800, receivedOn: "2026-01-02" },
    { workshopId, id: v7(), kind: "pack", materialId: label, amount: 100, cost: 500, receivedOn: "2026-01-02" },
  ]);
  await test.db.insert(products).values({
    workshopId,
    id: cup,
    name: "Cups of rain, two",
    formulaId: stored.formula,
    container: "vessel",
    containerId: stored.vessel,
    wickId: null,
    price: 900,
    pack: 2,
    packaging: { boxId: box, parts: [{ id: label, count: 2 }] },
  });
});
const finishedGoods = async (id = cup) => (await readFinishedGoods(test.db, workshopId, NOW.slice(0, 10), "UTC")).find((stocked) => stocked.sellable.id === id);
const line = (packs: number, sellable = cup, name = "Cups of rain, two", price = 900) => ({ sellable, name, packs, price });
const order = async (lines: object[], what: "order" | "market" = "order") => {
  const orderId = v7();
  value(await beginOrder(here(), { orderId, plan: { format: 1, what, name: "Fern & daughter", whom: "by the mill", wantedOn: "2026-12-05", lines } }));
  return orderId;
};
const goes = (orderId: string, packs: number, sellableId = cup) => takeOut(here(), { eventId: v7(), orderId, lines: [{ sellableId, packs }] });
const enter = async (orderId: string, body: OrderBody) =>
  appendTo(
    orderStore,
    test.db,
    workshopId,
    orderId,
    { id: v7(), happenedAt: LATER, personId: null, instrumentId: null, corrects: null, ...body } as never,
    LATER,
  );
const went = (packs: number, to: "sold" | "back" | "given" | "second"): OrderBody => ({
  kind: "packsResolved",
  payload: { sellable: cup, name: "Cups of rain, two", packs, to, each: null, why: "" },
});

describe("finished goods", () => {
  it("stand loose once released, without what safety stops; packing takes them off the rack and draws boxes and labels, and is taken apart again", async () => {
    expect(await finishedGoods()).toMatchObject({ loose: 0, packed: 0 });
    expect(await pack(here(), { packRunId: v7(), sellableId: cup, packs: 1 })).toMatchObject({
      ok: false,
      fields: { packs: [expect.stringMatching(/0 of 2/)] },
    });
    await release(stored, 0, 3);
    expect(await finishedGoods()).toMatchObject({ loose: 3, pieces: 7, packed: 0 });
    expect(await pack(here(), { packRunId: v7(), sellableId: cup, packs: 4 })).toMatchObject({ ok: false });
    const packRunId = v7();
    value(await pack(here(), { packRunId, sellableId: cup, packs: 3 }));
    // Pressed twice, packed once.
    value(await pack(here(), { packRunId, sellableId: cup, packs: 3 }));
    expect(await finishedGoods()).toMatchObject({ loose: 0, pieces: 1, packed: 3, lots: [{ left: 3, batches: [1] }] });
    const stock = async () => {
      const stocks = await readStocks(test.db, workshopId, "UTC", [box, label]);
      return [stocks[box]?.onHand, stocks[label]?.onHand];
    };
    expect(await stock()).toEqual([17, 94]);
    const batch = await readBatch(test.db, workshopId, stored.batch);
    expect(batch?.state.jarStatuses).toMatchObject([{ jars: 6, from: "rack", to: "packed" }]);
    value(await unpack(here(), { packRunId }));
    expect(await finishedGoods()).toMatchObject({ loose: 3, packed: 0 });
    expect(await stock()).toEqual([20, 100]);
    expect(await recentlyPacked(test.db, workshopId, STARTED)).toEqual([]);
  });

  it("may be goods that are resold as they were bought: received, priced, taken from the shelf, sold, and never more than are there", async () => {
    const [trimmer, card, goods] = [v7(), v7(), v7()];
    await test.db.insert(packs).values([
      { workshopId, id: trimmer, name: "wick trimmer", kind: "goods to resell" },
      { workshopId, id: card, name: "blank card", kind: "card" },
    ]);
    // Twelve for 60.00: five each.
    await test.db.insert(lots).values({ workshopId, id: v7(), kind: "pack", materialId: trimmer, amount: 12, cost: 6_000, receivedOn: "2026-01-02" });
    const asSet = { id: goods, expectedVersion: null, name: "Wick trimmer", contents: [], price: 900 };
    expect(await saveSet(here(), { ...asSet, packaging: NO_PACKAGING })).toMatchObject({ ok: false, fields: { contents: [expect.any(String)] } });
    value(
      await saveSet(here(), {
        ...asSet,
        packaging: {
          boxId: null,
          parts: [
            { id: trimmer, count: 1 },
            { id: card, count: 1 },
          ],
        },
      }),
    );
    // A card whose stock is not kept limits nothing.
    expect(await finishedGoods(goods)).toMatchObject({ loose: 12, packed: 0, planned: 0 });
    expect(await pack(here(), { packRunId: v7(), sellableId: goods, packs: 13 })).toMatchObject({
      ok: false,
      fields: { packs: [expect.stringMatching(/12 of 13/)] },
    });
    const onHand = async () => (await readStocks(test.db, workshopId, "UTC", [trimmer]))[trimmer]?.onHand;
    const packRunId = v7();
    value(await pack(here(), { packRunId, sellableId: goods, packs: 4 }));
    expect([await onHand(), (await finishedGoods(goods))?.packed]).toEqual([8, 4]);
    expect(await brokenBooks(test.db, test.pool, workshopId)).toEqual([]);
    value(await unpack(here(), { packRunId }));
    expect([await onHand(), (await finishedGoods(goods))?.packed]).toEqual([12, 0]);
    // Sold with an order: what is short is taken from the shelf there and then.
    const orderId = await order([line(3, goods, "Wick trimmer")]);
    value(await goes(orderId, 3, goods));
    expect(await onHand()).toBe(9);
    const sold: OrderBody = { kind: "packsResolved", payload: { sellable: goods, name: "Wick trimmer", packs: 3, to: "sold", each: null, why: "" } };
    expect(await enter(orderId, sold)).toMatchObject({ ok: true });
    const sales = await salesBetween(test.db, workshopId, "2020-01-01T00:00:00Z", "2100-01-01T00:00:00Z");
    expect(sales.find((row) => row.name === "Wick trimmer")).toMatchObject({ sold: 3, money: 2_700 });
    expect(await brokenBooks(test.db, test.pool, workshopId)).toEqual([]);
    // No batch had a part in it.
    const [lot] = (await findLots(test.db, workshopId, "wick trimmer")).first;
    expect(lot && (await lotTrace(test.db, workshopId, lot.id, "UTC"))?.batches).toEqual([]);
  });

  it("are packed from the batch that was poured first, a set from several, and each piece is found again", async () => {
    const second = await storedBatch(test, workshopId, 2);
    // The second batch is of the same formula and cup.
    await test.db
      .update(batches)
      .set({ formulaVersionId: stored.version })
      .where(and(eq(batches.workshopId, workshopId), eq(batches.id, second.batch)));
    await test.db.insert(products).values({
      workshopId,
      id: v7(),
      name: "Other cup",
      formulaId: stored.formula,
      container: "vessel",
      containerId: second.vessel,
      wickId: null,
      pack: 1,
    });
    await release(stored, DAY);
    await release(second, 0);
    const other =
      (await readFinishedGoods(test.db, workshopId, NOW.slice(0, 10), "UTC")).find((stocked) => stocked.sellable.name === "Other cup")?.sellable.id ?? "";
    const setId = v7();
    const set = {
      id: setId,
      expectedVersion: null,
      name: "Two kinds",
      contents: [
        { productId: cup, count: 3 },
        { productId: other, count: 1 },
      ],
      packaging: NO_PACKAGING,
      price: 1_500,
    };
    value(await saveSet(here(), set));
    expect(await saveSet(here(), { ...set, expectedVersion: 7 })).toMatchObject({ ok: false });
    expect(await finishedGoods(setId)).toMatchObject({ loose: 3 });
    value(await pack(here(), { packRunId: v7(), sellableId: setId, packs: 2 }));
    const [made] = await recentlyPacked(test.db, workshopId, STARTED);
    expect(made?.batches.map((batch) => [batch.number, batch.pieces])).toEqual([
      [1, 6],
      [2, 2],
    ]);
    // The oldest of it says what is sold first.
    const [row] = await test.db.select().from(packRuns).where(eq(packRuns.workshopId, workshopId));
    expect(Date.parse(row?.pouredAt ?? "")).toBe(Date.parse(at(60)));
  });
});

describe("orders and market days", () => {
  it("lack what is not there, which goes onto the plan; what is there goes out, packed as it goes, first in first out", async () => {
    await release(stored);
    value(await pack(here(), { packRunId: v7(), sellableId: cup, packs: 2 }));
    const id = await order([line(7)]);
    expect(await finishedGoods()).toMatchObject({ packed: 2, loose: 3, shortage: 7 });
    expect(await goes(id, 7)).toMatchObject({ ok: false });
    // Refused as a whole: nothing was packed for it.
    expect(await finishedGoods()).toMatchObject({ packed: 2, loose: 3 });
    expect(value(await goes(id, 4))).toEqual({ packed: 2 });
    expect(await finishedGoods()).toMatchObject({ packed: 0, loose: 1, shortage: 3 });
    value(await putOnPlan(here(), { id: v7(), productId: cup, count: 6, wantedOn: "2026-12-05", note: "order 1" }));
    expect((await readDemandPlan(test.db, { id: workshopId, timeZone: "UTC" })).lines).toMatchObject([{ productId: cup, count: 6, wantedOn: "2026-12-05" }]);
    expect((await listOrders(test.db, { id: workshopId, timeZone: "UTC" })).open).toMatchObject([
      { name: "Fern & daughter", lines: [{ out: 4, shortage: 3 }] },
    ]);
  });

  it("count what was sold and what came back, which can go out again; closed, they want nothing more", async () => {
    await release(stored);
    const id = await order([line(5)], "market");
    value(await goes(id, 5));
    expect(await enter(id, went(6, "sold"))).toMatchObject({ ok: false });
    expect(await enter(id, went(3, "sold"))).toMatchObject({ ok: true });
    expect(await enter(id, { kind: "closed", payload: {} })).toMatchObject({ ok: false });
    expect(await enter(id, went(2, "back"))).toMatchObject({ ok: true });
    expect(await finishedGoods()).toMatchObject({ packed: 2 });
    expect(await enter(id, { kind: "closed", payload: {} })).toMatchObject({ ok: true });
    expect(await finishedGoods()).toMatchObject({ shortage: 0 });
    const again = await order([line(2)]);
    value(await goes(again, 2));
    expect(await finishedGoods()).toMatchObject({ packed: 0 });
    const read = await readOrder(test.db, workshopId, id);
    expect(ORDER.of(read?.events ?? []).state).toEqual(read?.state);
  });

  it("never take more out of a packing than is in it, by whatever way it is asked; and are of their own workshop", async () => {
    await release(stored);
    value(await pack(here(), { packRunId: v7(), sellableId: cup, packs: 1 }));
    const [packRun] = await test.db.select().from(packRuns).where(eq(packRuns.workshopId, workshopId));
    const id = await order([line(1)]);
    const out = (packs: number, sellable = cup): OrderBody => ({
      kind: "shipped",
      payload: { finishedGoods: [{ packRun: packRun?.id ?? "", sellable, name: "x", price: null, pouredAt: STARTED, packs }] },
    });
    expect(await enter(id, out(2))).toMatchObject({ ok: false, message: expect.stringMatching(/1 × x is left of these packs, and 2 would be shipped/) });
    expect(await enter(id, out(1, v7()))).toMatchObject({ ok: false });
    expect(await enter(id, out(1))).toMatchObject({ ok: true });
    expect(await unpack(here(), { packRunId: packRun?.id })).toMatchObject({ ok: false, message: expect.stringMatching(/were shipped/) });
    const stranger = await test.workshop();
    expect(await readOrder(test.db, stranger, id)).toBeNull();
    expect((await readFinishedGoods(test.db, stranger, NOW.slice(0, 10), "UTC")).length).toBe(0);
    expect(await takeOut({ workshopId: stranger, personId: null }, { eventId: v7(), orderId: id, lines: [{ sellableId: cup, packs: 1 }] })).toMatchObject({
      ok: false,
    });
    await expect(test.db.delete(orderEvents).where(eq(orderEvents.orderId, id))).rejects.toThrow();
  });
});

describe("what went where", () => {
  it("follows a lot to every jar, every pack and every order, as a list to act on", async () => {
    const lot = v7();
    await test.db
      .insert(lots)
      .values({ workshopId, id: lot, kind: "fragrance", materialId: stored.oil, code: "FR-8", amount: 500_000, cost: 4_000, receivedOn: "2026-01-02" });
    await put(stored, { kind: "weighed", payload: { pot: 0, componentId: stored.oil, mg: 12_000 } }, 5);
    await release(stored);
    const id = await order([line(3)]);
    value(await goes(id, 3));
    await enter(id, went(2, "sold"));
    await enter(id, went(1, "back"));
    expect((await findLots(test.db, workshopId, "fr-8")).first).toMatchObject([{ id: lot, material: "test rain" }]);
    const traced = await lotTrace(test.db, workshopId, lot, "UTC");
    expect(traced?.batches).toMatchObject([
      {
        number: 1,
        jars: 10,
        jarStatuses: [
          { status: "rack", jars: 4 },
          { status: "packed", jars: 6 },
        ],
      },
    ]);
    const rows = await whereNow(test.db, workshopId, [stored.batch]);
    expect(rows).toMatchObject([
      { number: 1, pieces: 6, packs: 3, here: 1, out: [{ name: "Fern & daughter", whom: "by the mill", out: 3, sold: 2, back: 1 }] },
    ]);
    expect(await whereNow(test.db, await test.workshop(), [stored.batch])).toEqual([]);
  });

  it("is summed by thing with what is left of it, and leaves as rows that other programs map", async () => {
    await release(stored);
    const id = await order([line(4)], "market");
    value(await goes(id, 4));
    await enter(id, went(3, "sold"));
    await enter(id, went(1, "second"));
    const sold = await salesBetween(test.db, workshopId, STARTED, "2100-01-01T00:00:00Z");
    expect(sold).toMatchObject([{ name: "Cups of rain, two", sold: 3, second: 1, money: 3_600, markets: 1, soldOut: 1, taken: 4, soldThere: 4 }]);
    // Wax and oil have no lot with a cost: what is left is not known, and not guessed.
    expect(sold[0]?.cost).toBeNull();
    // The same, as plain SQL says it.
    const plain = await test.db.select().from(orderPacks).where(eq(orderPacks.workshopId, workshopId));
    expect(plain.reduce((sum, item) => sum + item.money, 0)).toBe(3_600);
    expect(await salesByMonth(test.db, workshopId, "UTC", STARTED)).toEqual([{ month: "2099-01", money: 3_600, packs: 4 }]);
    expect(await salesBetween(test.db, workshopId, STARTED, "2050-01-01T00:00:00Z")).toEqual([]);
    const file = async (query: string) =>
      Papa.parse<Record<string, string>>(
        (await (await salesFile(new Request(`http://x/?${query}`), { params: Promise.resolve({ workshop: workshopId }) })).text()).trim(),
        { header: true },
      ).data;
    expect(await file(`order=${id}`)).toMatchObject([
      {
        date: "2099-01-01",
        kind: "market",
        order_name: "Fern & daughter",
        item: "Cups of rain, two",
        batches: "1",
        packs_sold: "3",
        packs_second: "1",
        revenue: "36.00",
        cost: "",
        currency: "EUR",
      },
    ]);
    expect(await file("from=2026-01-01&to=2026-12-31")).toEqual([]);
    expect((await salesFile(new Request("http://x/?from=soon"), { params: Promise.resolve({ workshop: workshopId }) })).status).toBe(400);
  });
});

describe("what a pack costs and takes", () => {
  const priced = async () => {
    const lot = (kind: "wax" | "fragrance" | "vessel", materialId: string, amount: number, cost: number) => ({
      workshopId,
      id: v7(),
      kind,
      materialId,
      amount,
      cost,
      receivedOn: "2026-01-02",
    });
    await test.db
      .insert(lots)
      .values([lot("wax", stored.wax, 1_000_000, 1_000), lot("fragrance", stored.oil, 100_000, 1_000), lot("vessel", stored.vessel, 100, 1_000)]);
  };

  it("is what its lots cost, with box and labels: kept with the packs, and left of what they bring", async () => {
    await priced();
    await release(stored);
    value(await pack(here(), { packRunId: v7(), sellableId: cup, packs: 2 }));
    const [row] = await test.db.select().from(packRuns).where(eq(packRuns.workshopId, workshopId));
    // A cup of 14 g: 12.727 g of wax at 1.00 a gram-hundred, 1.273 g of oil, one cup at 10. Two of them, a box at 40, two labels at 5.
    const piece = 12.727 * (1_000 / 1_000) + 1.273 * (1_000 / 100) + 10;
    expect(row?.costEach).toBeCloseTo(2 * piece + 40 + 2 * 5, -1);
    const id = await order([line(2)], "market");
    value(await goes(id, 2));
    await enter(id, went(2, "sold"));
    const [sold] = await salesBetween(test.db, workshopId, STARTED, "2100-01-01T00:00:00Z");
    expect(sold).toMatchObject({ money: 1_800, cost: 2 * (row?.costEach ?? 0) });
    // What came back has cost nothing, and given away it has.
    const more = await order([line(1)]);
    value(await pack(here(), { packRunId: v7(), sellableId: cup, packs: 1 }));
    value(await goes(more, 1));
    await enter(more, went(1, "given"));
    const [after] = await salesBetween(test.db, workshopId, STARTED, "2100-01-01T00:00:00Z");
    expect(after).toMatchObject({ money: 1_800, given: 1, cost: 3 * (row?.costEach ?? 0) });
  });

  it("is worked out for many things by as many statements as for one, and to the same", async () => {
    const more = Array.from({ length: 12 }, (_, n) => ({ id: v7(), name: `Cups of rain, ${n + 3}` }));
    await test.db.insert(products).values(
      more.map((item, n) => ({
        ...item,
        workshopId,
        formulaId: stored.formula,
        container: "vessel" as const,
        containerId: stored.vessel,
        wickId: null,
        price: 900,
        pack: n + 3,
        packaging: { boxId: box, parts: [{ id: label, count: 1 }] },
      })),
    );
    const workshop = (await readWorkshop(workshopId)) as NonNullable<Awaited<ReturnType<typeof readWorkshop>>>;
    const asked = async (ids: readonly string[]) => {
      const query = vi.spyOn(test.pool, "query");
      const costs = await costsNow({ db: test.db, workshop }, ids);
      const count = query.mock.calls.length;
      query.mockRestore();
      return { costs, count };
    };
    const other = await asked([cup]);
    const all = await asked([cup, ...more.map(({ id }) => id)]);
    expect(other.count).toBeGreaterThan(3);
    expect(all.count).toBe(other.count);
    expect(all.costs.size).toBe(13);
    expect(all.costs.get(cup)).toBe(other.costs.get(cup));
  });

  it("is on the shopping list by its share: a box for every two pieces, rounded up", async () => {
    value(await putOnPlan(here(), { id: v7(), productId: cup, count: 45, wantedOn: null, note: "" }));
    const shop = { id: workshopId, timeZone: "UTC" };
    const read = await readDemandPlan(test.db, shop);
    const { draws, stores } = await readSupplies(test.db, shop, read);
    const mine = new Map(draws.find(([id]) => id === cup)?.[1]);
    expect(mine.get(box)).toBe(0.5);
    expect(mine.get(label)).toBe(1);
    const pots = [{ day: null, lines: [{ id: v7(), productId: cup, count: 45 }] }];
    const buy = shoppingOf(pots as never, new Map(draws.map(([id, each]) => [id, new Map(each)])), stores);
    // 20 boxes are there, 23 are needed; labels are enough.
    expect(buy.find((item) => item.id === box)).toMatchObject({ kind: "pack", counted: true, needed: 23, short: 3 });
    expect(buy.some((item) => item.id === label)).toBe(false);
  });

  it("keeps weights taken at packing, and its record says what went into packs", async () => {
    await release(stored);
    const weights = Array.from({ length: 5 }, (_, n) => 14_000 + n * 10);
    value(await pack(here(), { packRunId: v7(), sellableId: cup, packs: 5, weightsMg: weights, statedMg: 28_000 }));
    expect((await recentlyPacked(test.db, workshopId, STARTED))[0]).toMatchObject({ weightsMg: weights, statedMg: 28_000, packs: 5 });
    const record = await batchRecordOf(test.db, workshopId, stored.batch);
    const entry = record?.events.find((event) => event.kind === "packed");
    expect(entry?.payload).toMatchObject({ of: "Cups of rain, two", jars: 10, packs: 5, parts: [{ count: 5 }, { count: 10 }] });
    expect(await pack(here(), { packRunId: v7(), sellableId: cup, packs: 1, weightsMg: [0] })).toMatchObject({ ok: false });
    expect(await pack(here(), { packRunId: v7(), sellableId: v7(), packs: 1 })).toMatchObject({
      ok: false,
      message: expect.stringMatching(/no longer for sale/),
    });
  });
});

describe("kept tidy and found", () => {
  it("what was packed, ordered or stands in a set is put away, not deleted; and is found by its name", async () => {
    await release(stored);
    const set = {
      id: v7(),
      expectedVersion: null,
      name: "Two kinds",
      contents: [{ productId: cup, count: 3 }],
      packaging: { boxId: box, parts: [] },
      price: null,
    };
    value(await saveSet(here(), set));
    expect(await remove(here(), { kind: "product", id: cup })).toMatchObject({ ok: false, message: expect.stringMatching(/used in a set/) });
    expect(await remove(here(), { kind: "pack", id: box })).toMatchObject({ ok: false });
    const spare = v7();
    await test.db.insert(packs).values({ workshopId, id: spare, name: "spare bag", kind: "bag" });
    value(await remove(here(), { kind: "pack", id: spare }));
    value(await restore(here(), { kind: "pack", id: spare }));
    // A set that nothing was packed of goes, and comes back as it was.
    value(await remove(here(), { kind: "set", id: set.id }));
    expect(await finishedGoods(set.id)).toBeUndefined();
    value(await restore(here(), { kind: "set", id: set.id }));
    expect(await finishedGoods(set.id)).toMatchObject({ loose: 3 });
    value(await pack(here(), { packRunId: v7(), sellableId: set.id, packs: 1 }));
    expect(await remove(here(), { kind: "set", id: set.id })).toMatchObject({ ok: false, message: expect.stringMatching(/used in packs/) });
    value(await archive(here(), { kind: "set", id: set.id, away: true }));
    expect(await finishedGoods(set.id)).toBeUndefined();
    const id = await order([line(1)]);
    expect(await find(test.db, workshopId, "fern &")).toMatchObject([{ kind: "order", name: "1: Fern & daughter", path: `/sell/${id}` }]);
    expect(await find(test.db, workshopId, "spare")).toMatchObject([{ kind: "pack", path: `/shelf/pack/${spare}` }]);
  });

  it("a list of many orders is read a page at a time, what is open always, by name or number", async () => {
    for (let n = 1; n <= 28; n++) {
      const id = await order([line(1)]);
      if (n > 1) await enter(id, { kind: "closed", payload: {} });
    }
    const first = await listOrders(test.db, { id: workshopId, timeZone: "UTC" });
    expect(first.open.map((order) => order.number)).toEqual([1]);
    expect(first.closed.map((order) => order.number)).toEqual(Array.from({ length: 25 }, (_, index) => 28 - index));
    expect(first.older).toBe("4");
    const next = await listOrders(test.db, { id: workshopId, timeZone: "UTC" }, { after: Number(first.older) });
    expect(next).toMatchObject({ open: [], older: null, newer: "3" });
    expect(next.closed.map((order) => order.number)).toEqual([3, 2]);
    expect((await listOrders(test.db, { id: workshopId, timeZone: "UTC" }, { q: "#17" })).closed.map((order) => order.number)).toEqual([17]);
    expect(await waitingCounts(test.db, { id: workshopId, timeZone: "UTC" }, "2026-12-04T08:00:00Z")).toMatchObject({ "/sell": 1 });
    expect(await waitingCounts(test.db, { id: workshopId, timeZone: "UTC" }, "2026-11-01T08:00:00Z")).toMatchObject({ "/sell": 0 });
    expect(await ordersSoon(test.db, { id: workshopId, timeZone: "UTC" }, "2026-12-04T08:00:00Z")).toMatchObject([
      { name: "Fern & daughter", wantedOn: "2026-12-05" },
    ]);
  });
});

describe("two at once", () => {
  it("never take the same packs: of two orders that want the last, one is told", async () => {
    await release(stored);
    const [text, other] = [await order([line(4)]), await order([line(4)])];
    const took = await Promise.all([goes(text, 3), goes(other, 3)]);
    expect(took.filter((outcome) => outcome.ok)).toHaveLength(1);
    expect(await finishedGoods()).toMatchObject({ packed: 0, loose: 2 });
    const [row, ...more] = await test.db.select().from(packRuns).where(eq(packRuns.workshopId, workshopId));
    expect(more).toEqual([]);
    expect(row).toMatchObject({ packs: 3, gone: 3 });
  });

  it("count at one stall from two phones: what both counted is out once, and the second is told that no more is there", async () => {
    await release(stored);
    const id = await order([line(3)], "market");
    value(await goes(id, 3));
    const answers = await Promise.all([enter(id, went(2, "sold")), enter(id, went(2, "sold"))]);
    expect(answers.filter((answer) => answer.ok)).toHaveLength(1);
    expect(answers.find((answer) => !answer.ok)).toMatchObject({ message: "1 × Cups of rain, two is out: no more can be counted." });
    const entry = { id: v7(), happenedAt: LATER, personId: null, instrumentId: null, corrects: null, ...went(1, "sold") };
    // Sent twice, since the answer was lost on the way: counted once.
    for (let n = 0; n < 2; n++)
      expect(await appendTo(orderStore, test.db, workshopId, id, entry as never, LATER)).toMatchObject({ ok: true, value: { repeated: n === 1 } });
    expect((await readOrder(test.db, workshopId, id))?.state.finishedGoods).toMatchObject([{ out: 3, sold: 3 }]);
  });
});
