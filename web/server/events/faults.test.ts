import { type OrderBody, supplierSheet } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { v7 } from "uuid";
import { beforeEach, describe, expect, it } from "vitest";
import { supplierSheets } from "@/data/tables/label";
import { demandLines } from "@/data/tables/plan";
import { products } from "@/data/tables/product";
import { orderEvents, orders, packRuns } from "@/data/tables/sales";
import { waxes } from "@/data/tables/shelf";
import { lots, stockCounts } from "@/data/tables/stock";
import { readBatch } from "@/server/batches/batches";
import { saveCount, saveLot } from "@/server/inventory/commands";
import { merge, undoMerge } from "@/server/inventory/merge";
import { newestSheets } from "@/server/inventory/safety-data-sheets";
import { readStockHistory, readStocks, readTakenBy } from "@/server/inventory/shelf";
import { beginOrder, eraseCustomer, pack, putOnPlan, takeOut, unpack } from "@/server/sales/commands";
import { plannedFor, readFinishedGoods } from "@/server/sales/finished-goods";
import { ordersSoon } from "@/server/sales/orders";
import { remove } from "@/server/workshops/tidy";
import { brokenBooks } from "@/testing/books/invariants";
import { storedBatch } from "@/testing/stored-batch";
import { here, inStoredWorkshop, stored, test, value, workshopId } from "@/testing/stored-workshop";
import { appendTo } from "./append";
import { appendEvent } from "./batch-store";
import { orderStore } from "./order-store";

inStoredWorkshop();

const LATER = "2099-01-01T00:00:00.000Z";
const ago = (minutes: number) => new Date(Date.now() - minutes * 60_000).toISOString();
const put = (of: typeof stored, body: object, happenedAt: string, more: object = {}) =>
  appendEvent(test.db, workshopId, of.batch, { ...of.sent(body as never), id: v7(), happenedAt, ...more } as never, LATER);
const weighed = (mg: number, componentId = stored.wax) => ({ kind: "weighed", payload: { pot: 0, componentId, mg } });
const poured = (filled: object[] = []) => ({ kind: "poured", payload: { step: "pour", filled, leftMg: null, roomCelsius: null, warmed: null } });
const onHand = async (id = stored.wax) => (await readStocks(test.db, workshopId, "UTC", [id]))[id]?.onHand;
const productOf = async (of: typeof stored) => (await readBatch(test.db, workshopId, of.batch))?.plan.products[0]?.key ?? "";
const DAYS = 1_440;

let cup = "";
beforeEach(async () => {
  cup = v7();
  await test.db.insert(products).values({
    workshopId,
    id: cup,
    name: "Cups of rain",
    formulaId: stored.formula,
    container: "vessel",
    containerId: stored.vessel,
    wickId: null,
    price: 900,
    pack: 1,
  });
});
/** Ten cups, poured sixty days ago and released. */
async function release(of = stored) {
  for (const [body, at] of [
    [poured(), 60 * DAYS],
    [{ kind: "inspected", payload: { jars: 10 } }, 30 * DAYS],
    [{ kind: "released", payload: { note: "" } }, 29 * DAYS],
  ] as const)
    expect(await put(of, body, ago(at))).toMatchObject({ ok: true });
}
const anOrder = async (packs = 1, over: object = {}) => {
  const orderId = v7();
  const lines = [{ sellable: cup, name: "Cups of rain", packs, price: 900 }];
  value(
    await beginOrder(here(), {
      orderId,
      plan: { format: 1, what: "order", name: "Fern & daughter", whom: "fern@example.org", wantedOn: null, lines, ...over },
    }),
  );
  return orderId;
};
const enter = (orderId: string, body: OrderBody, corrects: string | null = null) =>
  appendTo(orderStore, test.db, workshopId, orderId, { id: v7(), happenedAt: LATER, personId: null, instrumentId: null, corrects, ...body } as never, LATER);
const out = (packs: number, packRun: string, twice = false): OrderBody => {
  const finishedGoods = { packRun, sellable: cup, name: "Cups of rain", price: null, pouredAt: ago(1), packs };
  return { kind: "shipped", payload: { finishedGoods: twice ? [finishedGoods, finishedGoods] : [finishedGoods] } };
};
const packed = async (packs: number) => {
  const packRunId = v7();
  value(await pack(here(), { packRunId, sellableId: cup, packs }));
  return packRunId;
};
const goneOf = async (packRun: string) => (await test.db.select().from(packRuns).where(eq(packRuns.id, packRun)))[0]?.gone;
const newestIn = async (orderId: string) =>
  (await test.db.select().from(orderEvents).where(eq(orderEvents.orderId, orderId))).sort((a, b) => b.seq - a.seq)[0]?.id ?? "";

describe("stock", () => {
  it("is right where a count was taken while a batch was weighed", async () => {
    await put(stored, weighed(500_000), ago(30));
    await test.db.insert(stockCounts).values({ workshopId, id: v7(), materialId: stored.wax, at: ago(20), amount: 2_000_000 });
    await put(stored, weighed(100_000), ago(10));
    expect(await onHand()).toBe(1_900_000);
    expect(await readTakenBy(test.db, workshopId, stored.batch, "UTC")).toMatchObject([{ amount: 600_000 }]);
    expect((await readStockHistory(test.db, workshopId, stored.wax)).used).toEqual({ batches: 1, amount: 600_000 });
  });

  it("goes by the later of two counts of the same moment, however often their rows are written anew", async () => {
    const [first, second] = [v7(), v7()];
    const at = ago(20);
    await test.db.insert(stockCounts).values([
      { workshopId, id: second, materialId: stored.wax, at, amount: 600_000 },
      { workshopId, id: first, materialId: stored.wax, at, amount: 257_000 },
    ]);
    for (const id of [first, second, first]) {
      await test.db.update(stockCounts).set({ withdrawn: false }).where(eq(stockCounts.id, id));
      expect(await onHand()).toBe(600_000);
    }
  });

  it("is drawn twice by a pot that was spilled, and holds what was scraped up as a lot of its own, until that entry is deleted", async () => {
    value(
      await saveLot(here(), {
        kind: "wax",
        materialId: stored.wax,
        id: v7(),
        expectedVersion: null,
        code: "",
        amount: 1_000_000,
        cost: 2_000,
        receivedOn: "2026-01-02",
      }),
    );
    await put(stored, weighed(127_000), ago(30));
    await put(stored, weighed(13_000, stored.oil), ago(29));
    const spilled = { kind: "transferred", payload: { pot: 0, how: "spilt", mg: 140_000, other: null, backMg: 90_000 } };
    expect(await put(stored, spilled, ago(20))).toMatchObject({ ok: true });
    expect((await readBatch(test.db, workshopId, stored.batch))?.state.weighed).toEqual({});
    await put(stored, weighed(127_000), ago(10));
    expect(await onHand()).toBe(1_000_000 - 254_000 + 90_000);
    const [lot] = await test.db
      .select()
      .from(lots)
      .where(and(eq(lots.workshopId, workshopId), eq(lots.cost, 0)));
    expect(lot).toMatchObject({ code: "scraped up, batch 1, scented", amount: 90_000, materialId: stored.wax });
    expect(await put(stored, { kind: "withdrawn", payload: { why: "", mode: "delete" } }, ago(5), { corrects: lot?.id })).toMatchObject({ ok: true });
    expect(await onHand()).toBe(1_000_000 - 254_000);
    expect(await brokenBooks(test.db, test.pool, workshopId, true)).toEqual([]);
  });

  it("adds up when two entries of one material are merged, with its safety data sheet, and is as before when they are parted", async () => {
    const twin = v7();
    await test.db.insert(waxes).values({ workshopId, id: twin, name: "test soy, old bag", family: "soy" });
    const sheet = supplierSheet.parse({ on: "2026-01-02", ingredients: [] });
    await test.db.insert(supplierSheets).values({ workshopId, id: v7(), materialId: twin, on: "2026-01-02", sheet, at: ago(90) });
    await test.db.insert(stockCounts).values([
      { workshopId, id: v7(), materialId: stored.wax, at: ago(60), amount: 500_000 },
      { workshopId, id: v7(), materialId: twin, at: ago(50), amount: 1_000_000 },
    ]);
    await put(stored, weighed(100_000), ago(40));
    const mergeId = v7();
    value(await merge(here(), { kind: "wax", goneId: twin, keptId: stored.wax, mergeId }));
    expect(await onHand()).toBe(1_400_000);
    expect((await newestSheets(test.db, workshopId, [stored.wax])).size).toBe(1);
    value(await undoMerge(here(), { mergeId }));
    expect([await onHand(), await onHand(twin)]).toEqual([400_000, 1_000_000]);
    expect((await newestSheets(test.db, workshopId, [twin])).size).toBe(1);
  });
});

describe("jars and packs", () => {
  it("never go out twice: by one entry, by one command, by many entries at once, or by an undo", async () => {
    await release();
    const run = await packed(4);
    const orderId = await anOrder();
    expect(await enter(orderId, out(3, run, true))).toMatchObject({ ok: false, message: expect.stringMatching(/4 × Cups of rain are left/) });
    // What is short is packed there and then: ten were poured.
    const lines = [
      { sellableId: cup, packs: 6 },
      { sellableId: cup, packs: 5 },
    ];
    expect(await takeOut(here(), { eventId: v7(), orderId, lines })).toMatchObject({ ok: false });
    expect(await goneOf(run)).toBe(0);
    const answers = await Promise.all([
      enter(orderId, { kind: "note", payload: { text: "x" } }),
      ...Array.from({ length: 8 }, () => enter(orderId, out(4, run))),
    ]);
    expect(answers.filter((answer) => answer.ok)).toHaveLength(2);
    expect(await goneOf(run)).toBe(4);
    const first =
      (
        await test.db
          .select()
          .from(orderEvents)
          .where(and(eq(orderEvents.orderId, orderId), eq(orderEvents.kind, "shipped")))
      )[0]?.id ?? "";
    // Deleted, given to another, and the deletion undone.
    expect(await enter(orderId, { kind: "withdrawn", payload: { why: "", mode: "delete" } }, first)).toMatchObject({ ok: true });
    const deletion = await newestIn(orderId);
    const other = await anOrder();
    expect(await enter(other, out(4, run))).toMatchObject({ ok: true });
    expect(await enter(orderId, { kind: "withdrawn", payload: { why: "", mode: "delete" } }, deletion)).toMatchObject({
      ok: false,
      message: expect.stringMatching(/0 × Cups of rain are left/),
    });
    expect(await brokenBooks(test.db, test.pool, workshopId)).toEqual([]);
  });

  it("are corrected as if the entry did not stand, up to what is there", async () => {
    await release();
    const run = await packed(4);
    const orderId = await anOrder();
    await enter(orderId, out(3, run));
    const first = await newestIn(orderId);
    expect(await enter(orderId, out(4, run), first)).toMatchObject({ ok: true });
    expect(await enter(orderId, out(5, run), await newestIn(orderId))).toMatchObject({ ok: false });
    expect(await goneOf(run)).toBe(4);
  });

  it("are packed and unpacked under Sell alone, and in packs that are there", async () => {
    await release();
    const product = await productOf(stored);
    const ghost = { kind: "packed", payload: { packRun: v7(), of: "ghost", product, jars: 10, packs: 10, parts: [{ id: v7(), count: 10_000_000 }] } };
    expect(await put(stored, ghost, LATER)).toMatchObject({ ok: false, message: expect.stringMatching(/under Sell/) });
    const run = await packed(4);
    const entry = (await readBatch(test.db, workshopId, stored.batch))?.events.find((event) => event.kind === "packed")?.id;
    expect(await put(stored, { kind: "withdrawn", payload: { why: "", mode: "delete" } }, LATER, { corrects: entry })).toMatchObject({
      ok: false,
      message: expect.stringMatching(/unpack these packs there/),
    });
    // What came back may not be undone once it was unpacked.
    const orderId = await anOrder();
    await enter(orderId, out(4, run));
    await enter(orderId, { kind: "packsResolved", payload: { sellable: cup, name: "Cups of rain", packs: 4, to: "back", each: null, why: "" } });
    const back = await newestIn(orderId);
    value(await unpack(here(), { packRunId: run }));
    expect(await enter(orderId, { kind: "withdrawn", payload: { why: "", mode: "delete" } }, back)).toMatchObject({
      ok: false,
      message: expect.stringMatching(/were unpacked/),
    });
    const unpacked = (await readBatch(test.db, workshopId, stored.batch))?.events.findLast((event) => event.kind === "withdrawn")?.id;
    expect(await put(stored, { kind: "withdrawn", payload: { why: "", mode: "delete" } }, LATER, { corrects: unpacked })).toMatchObject({
      ok: false,
      message: expect.stringMatching(/were unpacked/),
    });
    expect(await brokenBooks(test.db, test.pool, workshopId)).toEqual([]);
  });

  it("are in the way of a pour that would have filled fewer, in words that say what to do", async () => {
    await release();
    const product = await productOf(stored);
    await put(stored, { kind: "statusChanged", payload: { product, jars: 9, from: "rack", to: "sold", whom: "" } }, ago(DAYS));
    const pour = (await readBatch(test.db, workshopId, stored.batch))?.events.find((event) => event.kind === "poured");
    const fewer = await put(stored, poured([{ product, count: 5 }]), pour?.happenedAt ?? "", { corrects: pour?.id });
    expect(fewer).toMatchObject({ ok: false, message: "cup: 9 are sold, and only 5 would be filled. Record their return first." });
    const deleted = await put(stored, { kind: "withdrawn", payload: { why: "", mode: "delete" } }, pour?.happenedAt ?? "", { corrects: pour?.id });
    expect(deleted).toMatchObject({ ok: false, message: expect.stringMatching(/follows from it|Record their return/) });
    expect(await put(stored, poured([{ product, count: 9 }]), pour?.happenedAt ?? "", { corrects: pour?.id })).toMatchObject({ ok: true });
  });

  it("are packed by everybody who packs at once, as long as there are any", async () => {
    await release();
    await release(
      await storedBatch(test, workshopId, 2).then(async (two) => {
        await test.db.update(products).set({ formulaId: stored.formula }).where(eq(products.id, cup));
        return two;
      }),
    );
    const answers = await Promise.all(Array.from({ length: 6 }, () => pack(here(), { packRunId: v7(), sellableId: cup, packs: 2 })));
    expect(answers.map((answer) => answer.ok).filter(Boolean)).toHaveLength(5);
    expect(answers.find((answer) => !answer.ok)).toMatchObject({ message: expect.stringMatching(/Pack fewer, or release more/) });
  });

  it("carry one entry once, also where its id is sent to two batches at the same moment", async () => {
    const two = await storedBatch(test, workshopId, 2);
    const event = stored.sent({ kind: "note", payload: { text: "x" } });
    const answers = await Promise.all(
      Array.from({ length: 6 }, (_, n) => appendEvent(test.db, workshopId, (n % 2 ? stored : two).batch, event as never, LATER)),
    );
    expect(answers.filter((answer) => answer.ok && !answer.value.repeated)).toHaveLength(1);
    expect(answers.filter((answer) => !answer.ok).every((answer) => !answer.ok && answer.status === 409)).toBe(true);
  });
});

describe("orders", () => {
  it("put what is short on the plan once, and bring it to what is short now", async () => {
    const orderId = await anOrder(6);
    const ask = (count: number) => putOnPlan(here(), { id: v7(), productId: cup, count, wantedOn: null, note: "order 1", orderId });
    value(await ask(6));
    value(await ask(6));
    expect(await plannedFor(test.db, workshopId, orderId)).toEqual({ [cup]: 6 });
    await test.db.update(demandLines).set({ made: 4 }).where(eq(demandLines.orderId, orderId));
    value(await ask(2));
    expect(await plannedFor(test.db, workshopId, orderId)).toEqual({ [cup]: 2 });
    expect(await test.db.$count(demandLines, eq(demandLines.workshopId, workshopId))).toBe(1);
  });

  it("are short of nothing once a market day is over, nor of what came back from it", async () => {
    await anOrder(6, { what: "market", wantedOn: "2026-03-14" });
    const shortage = async (today: string) =>
      (await readFinishedGoods(test.db, workshopId, today, "UTC")).find((stocked) => stocked.sellable.id === cup)?.shortage;
    expect(await shortage("2026-03-14")).toBe(6);
    expect(await shortage("2026-03-15")).toBe(0);
    await release();
    const run = await packed(6);
    const market = await anOrder(6, { what: "market", wantedOn: "2026-04-01" });
    await enter(market, out(6, run));
    await enter(market, { kind: "packsResolved", payload: { sellable: cup, name: "Cups of rain", packs: 2, to: "back", each: null, why: "" } });
    expect(await shortage("2026-03-15")).toBe(0);
  });

  it("are soon by the workshop's own day", async () => {
    await anOrder(1, { wantedOn: "2026-03-18" });
    // 15 March in Auckland, 14 March in UTC and Honolulu: common arithmetic of the time zone database.
    const soon = async (timeZone: string) => (await ordersSoon(test.db, { id: workshopId, timeZone }, "2026-03-14T20:00:00Z")).length;
    expect([await soon("Pacific/Auckland"), await soon("UTC"), await soon("Pacific/Honolulu")]).toEqual([1, 0, 0]);
  });

  it("lose a customer who is erased, in every table, and nothing else", async () => {
    await release();
    const run = await packed(2);
    const orderId = await anOrder(2);
    await enter(orderId, out(2, run));
    await enter(orderId, { kind: "note", payload: { text: "Fern & daughter calls on Monday" } });
    value(await putOnPlan(here(), { id: v7(), productId: cup, count: 2, wantedOn: null, note: "order 1: Fern & daughter", orderId }));
    value(await eraseCustomer(here(), { orderId }));
    const { rows } = await test.owner.query<{ name: string }>(
      "select table_name as name from information_schema.columns where table_schema = 'public' and column_name = 'workshop_id'",
    );
    for (const { name } of rows) {
      const found = await test.owner.query(`select 1 from "${name}" t where workshop_id = $1 and (t::text ilike '%fern%')`, [workshopId]);
      expect(found.rowCount, name).toBe(0);
    }
    expect((await test.db.select().from(orders).where(eq(orders.id, orderId)))[0]?.state.finishedGoods).toMatchObject([{ out: 2 }]);
    expect(await brokenBooks(test.db, test.pool, workshopId)).toEqual([]);
    // The log refuses any other change, also with the same word.
    await expect(test.owner.query("select set_config('hearth.erasing', 'on', false); update sale_order_event set kind = 'note'")).rejects.toThrow(
      "append-only",
    );
  });
});

describe("a person", () => {
  it("who wrote in an order, counted stock or put in a sheet is not deleted, and it is said where", async () => {
    const second = v7();
    await test.db.execute(`insert into person (workshop_id, id, name) values ('${workshopId}', '${second}', 'Second')`);
    const as = { workshopId, personId: second };
    value(await beginOrder(as, { orderId: v7(), plan: { format: 1, what: "order", name: "x", whom: "", wantedOn: null, lines: [] } }));
    expect(await remove(here(), { kind: "person", id: second })).toMatchObject({ ok: false, message: expect.stringMatching(/entries of orders/) });
    const third = v7();
    await test.db.execute(`insert into person (workshop_id, id, name) values ('${workshopId}', '${third}', 'Third')`);
    value(await saveCount({ workshopId, personId: third }, { kind: "wax", materialId: stored.wax, id: v7(), amount: 1 }));
    expect(await remove(here(), { kind: "person", id: third })).toMatchObject({ ok: false, message: expect.stringMatching(/counts of the stock/) });
  });
});
