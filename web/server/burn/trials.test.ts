import { readFileSync } from "node:fs";
import { burnRecord, METRIC, PROTOCOLS, protocol, TRIAL, type TrialBody, type TrialEvent } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { v7 } from "uuid";
import { describe, expect, it } from "vitest";
import { batches } from "@/data/tables/batch";
import { products } from "@/data/tables/product";
import { embeds, wicks } from "@/data/tables/shelf";
import { trialEvents } from "@/data/tables/trial";
import { readBatch, waitingCounts } from "@/server/batches/batches";
import { readRecord } from "@/server/batches/import-record";
import { MAX_ENTRIES, readSince } from "@/server/events/aggregate-store";
import { appendTo } from "@/server/events/append";
import { appendEvent, batchStore } from "@/server/events/batch-store";
import { trialStore } from "@/server/events/trial-store";
import { readProduct } from "@/server/products/products";
import { STARTED } from "@/testing/stored-batch";
import { here, inStoredWorkshop, stored, test, value, workshopId } from "@/testing/stored-workshop";
import { burnCsv, burnRecordOf, importBurn } from "./burn-record";
import { beginTrial, takeWick } from "./commands";
import { throwScores } from "./throw-scores";
import { burnedOf, listTrials, passedOf, readTrial, triedIn } from "./trials";

inStoredWorkshop();

/** After whatever the commands date by the clock of today. */
const LATER = "2099-01-01T00:00:00.000Z";
const NOW = "2026-11-01T00:00:00.000Z";
const after = (minutes: number) => new Date(Date.parse(STARTED) + minutes * 60_000).toISOString();

async function wickOf(size: string): Promise<string> {
  const id = v7();
  await test.db.insert(wicks).values({ workshopId, id, name: `flat-braid cotton ${size}`, kind: "flat-braid cotton", size });
  return id;
}
async function productWith(wickId: string | null): Promise<string> {
  const id = v7();
  await test.db
    .insert(products)
    .values({ workshopId, id, name: "Cup of rain", formulaId: stored.formula, container: "vessel", containerId: stored.vessel, wickId, wicks: 1 });
  return id;
}
const wanted = (variants: object[], over: object = {}) => ({
  trialId: v7(),
  name: "Which wick for the cup",
  varies: "wick size",
  protocol: protocol.parse(PROTOCOLS[0]),
  productId: null,
  after: null,
  variants,
  ...over,
});
const make = (wick: string | null, over: object = {}) => ({
  from: "make",
  formulaVersionId: stored.version,
  container: "vessel",
  containerId: stored.vessel,
  wick: wick ? { id: wick, count: 1 } : null,
  testCandles: 2,
  half: false,
  change: {},
  ...over,
});
const enter = (trial: string, minutes: number, body: TrialBody, over: Partial<TrialEvent> = {}) =>
  appendTo(
    trialStore,
    test.db,
    workshopId,
    trial,
    { id: v7(), happenedAt: after(minutes), personId: stored.person, instrumentId: null, corrects: null, ...body, ...over } as TrialEvent,
    NOW,
  );
const light = (testCandle: string) => ({ kind: "lit" as const, payload: { testCandle, trimUm: 5_000, air: [], early: "" } });
const out = (testCandle: string) => ({ kind: "extinguished" as const, payload: { testCandle, why: "protocol" as const, sign: "" } });
const pourBatch = async (batchId: string) => {
  const batch = await readBatch(test.db, workshopId, batchId);
  const filled = batch?.plan.products.map(({ key, count }) => ({ product: key, count })) ?? [];
  return value(
    (await appendEvent(
      test.db,
      workshopId,
      batchId,
      stored.sent(
        { kind: "poured", payload: { step: "pour", filled, leftMg: null, roomCelsius: null, warmed: null } },
        { happenedAt: batch?.state.startedAt ?? STARTED },
      ),
      LATER,
    )) as never,
  );
};

describe("a trial", () => {
  it("burns a candle as it is sold, with what is laid in; a load is compared without it", async () => {
    const wick = await wickOf("4");
    const product = await productWith(wick);
    const shell = v7();
    await test.db.insert(embeds).values({ workshopId, id: shell, name: "small shell", material: "shell", volumeUl: 1_000 });
    await test.db
      .update(products)
      .set({ embeds: [{ id: shell, count: 2 }] })
      .where(eq(products.id, product));
    const fill = async (over: object, variant: object = {}) => {
      const begun = value(await beginTrial(here(), wanted([make(wick, variant)], { productId: product, ...over })));
      const batch = await readBatch(test.db, workshopId, begun.batches[0] ?? "");
      return [batch?.plan.products[0]?.fillMg, batch?.plan.products[0]?.embeds?.map((embed) => embed.count)];
    };
    // 14 g less 2 ml × 0.9 g/ml.
    expect(await fill({})).toEqual([12_200, [2]]);
    expect(await fill({ varies: "load" })).toEqual([14_000, undefined]);
    expect(await fill({}, { half: true })).toEqual([7_000, undefined]);
  });

  it("gives its scores to the findings once its codes are revealed, with wax, fragrance, load, wick and age", async () => {
    const begun = value(await beginTrial(here(), wanted([make(await wickOf("4"))])));
    await pourBatch(begun.batches[0] ?? "");
    const testCandle = "A1";
    await enter(begun.id, 60, light(testCandle));
    await enter(begun.id, 120, { kind: "throwScored", payload: { testCandle, throw: "hot", room: "bedroom", score: 7.5 } });
    const hot = async () => (await throwScores(test.db, workshopId)).filter((throwScore) => throwScore.throw === "hot");
    expect(await hot()).toEqual([]);
    await enter(begun.id, 130, { kind: "codesRevealed", payload: {} });
    expect(await hot()).toMatchObject([{ score: 7.5, wax: "test soy", oil: "test rain", load: 10, wick: "flat-braid cotton 4", scorer: stored.person }]);
    expect(await throwScores(test.db, workshopId, { batchId: begun.batches[0] ?? "" })).toHaveLength(1);
    expect(await throwScores(test.db, workshopId, { batchId: stored.batch })).toEqual([]);
    // Unlit, on the rack.
    await pourBatch(stored.batch);
    value(
      (await appendEvent(
        test.db,
        workshopId,
        stored.batch,
        stored.sent({ kind: "smelled", payload: { score: 4.5, room: "" } }, { happenedAt: after(1_440) }),
        LATER,
      )) as never,
    );
    expect(await throwScores(test.db, workshopId, { batchId: stored.batch })).toMatchObject([
      { throw: "cold", score: 4.5, wax: "test soy", oil: "test rain", ageDays: 1 },
    ]);
  });

  it("says that a test candle ready to light only once it is poured and cured", async () => {
    const begun = value(await beginTrial(here(), wanted([make(await wickOf("4"))])));
    const ready = async (now: string) => (await listTrials(test.db, workshopId, {}, now)).open.find((trial) => trial.id === begun.id)?.ready;
    expect(await ready(LATER)).toBe(0);
    await pourBatch(begun.batches[0] ?? "");
    const { testFrom } = (await readTrial(test.db, workshopId, begun.id))?.batches[0] ?? {};
    const cured = Date.parse(testFrom ?? "");
    expect([await ready(new Date(cured - 60_000).toISOString()), await ready(new Date(cured + 60_000).toISOString())]).toEqual([0, 2]);
  });

  it("pours its test candles as one batch with a product for each wick, and another load as a batch of its own", async () => {
    const [four, six] = [await wickOf("4"), await wickOf("6")];
    const begun = value(await beginTrial(here(), wanted([make(four), make(six), make(four, { change: { loadPpm: 60_000 }, testCandles: 1 })])));
    expect(begun.number).toBe(1);
    const trial = await readTrial(test.db, workshopId, begun.id);
    expect(
      trial?.plan.testCandles.map((testCandle) => [testCandle.key, testCandle.wick?.size, Math.round(testCandle.loadPpm), testCandle.batch?.number]),
    ).toEqual([
      ["A1", "4", 100_000, 2],
      ["A2", "4", 100_000, 2],
      ["B1", "6", 100_000, 2],
      ["B2", "6", 100_000, 2],
      ["C1", "4", 60_000, 3],
    ]);
    const first = await readBatch(test.db, workshopId, begun.batches[0] ?? "");
    expect(first?.plan.products.map((product) => [product.wicks?.size, product.count])).toEqual([
      ["4", 2],
      ["6", 2],
    ]);
    const other = await readBatch(test.db, workshopId, begun.batches[1] ?? "");
    expect(other?.plan.pots[0]).toMatchObject({ formulaName: "Test formula (6 %)", recipe: { loadPpm: 60_000 } });
    // Codes say nothing of the variants.
    expect(new Set(trial?.plan.testCandles.map((testCandle) => testCandle.code)).size).toBe(5);
  });

  it("is begun once however often it is asked, and not at all where one part of it cannot be", async () => {
    const four = await wickOf("4");
    const asked = wanted([make(four)]);
    const [item, two] = [value(await beginTrial(here(), asked)), value(await beginTrial(here(), asked))];
    expect(two.id).toBe(item.id);
    const count = async () => test.db.$count(batches, eq(batches.workshopId, workshopId));
    const before = await count();
    const broken = await beginTrial(here(), wanted([make(four), make(v7())]));
    expect(broken).toMatchObject({ ok: false, message: expect.stringContaining("no longer on the shelf") });
    const strange = await beginTrial(here(), wanted([make(four), make(four, { change: { waxId: v7() } })]));
    expect(strange.ok).toBe(false);
    expect(await count()).toBe(before);
  });

  it("takes test candles off the rack, and never a cracked jar", async () => {
    await pourBatch(stored.batch);
    const key = stored.vessel;
    const flaw = { defect: "cracked_glass", place: "side", extent: "patch" } as const;
    await appendEvent(
      test.db,
      workshopId,
      stored.batch,
      stored.sent({ kind: "jarsInspected", payload: { product: key, jars: 8, flaws: [flaw] } } as never, { happenedAt: after(5) }),
      NOW,
    );
    const rack = (testCandles: number) => ({ from: "rack", batchId: stored.batch, product: key, testCandles });
    // No burn begins without its wick.
    expect(await beginTrial(here(), wanted([rack(2)]))).toMatchObject({ ok: false, message: expect.stringContaining("without a wick") });
    expect(await beginTrial(here(), wanted([make(null)], { varies: "load" }))).toMatchObject({
      ok: false,
      message: expect.stringContaining("Choose a wick"),
    });
    const wick = JSON.stringify({ wickId: await wickOf("4"), name: "flat-braid cotton 4", kind: "flat-braid cotton", size: "4", count: 1 });
    await test.pool.query("update batch set plan = jsonb_set(plan, '{products,0,wicks}', $2) where workshop_id = $1", [workshopId, wick]);
    expect(await beginTrial(here(), wanted([rack(3)]))).toMatchObject({ ok: false, message: expect.stringContaining("cracked") });
    const begun = value(await beginTrial(here(), wanted([rack(2)])));
    const batch = await readBatch(test.db, workshopId, stored.batch);
    expect(batch?.state.jarStatuses).toMatchObject([{ product: key, jars: 2, from: "rack", to: "testing", whom: `burn trial ${begun.number}` }]);
    expect((await readTrial(test.db, workshopId, begun.id))?.batches).toMatchObject([{ number: 1, cracked: [key] }]);
  });

  it("makes a test candle of its batch when it is first lit, once", async () => {
    const four = await wickOf("4");
    const begun = value(await beginTrial(here(), wanted([make(four)])));
    await pourBatch(begun.batches[0] ?? "");
    const start = Math.round(
      (Date.parse((await readBatch(test.db, workshopId, begun.batches[0] ?? ""))?.state.startedAt ?? NOW) - Date.parse(STARTED)) / 60_000,
    );
    const at = (minutes: number, body: TrialBody) =>
      appendTo(
        trialStore,
        test.db,
        workshopId,
        begun.id,
        { id: v7(), happenedAt: after(start + minutes), personId: null, instrumentId: null, corrects: null, ...body } as TrialEvent,
        LATER,
      );
    expect(await at(10, light("A1"))).toMatchObject({ ok: true });
    expect(await at(250, out("A1"))).toMatchObject({ ok: true });
    expect(await at(2_000, light("A1"))).toMatchObject({ ok: true });
    const batch = await readBatch(test.db, workshopId, begun.batches[0] ?? "");
    expect(batch?.state.jarStatuses.map((jarStatus) => [jarStatus.jars, jarStatus.to])).toEqual([[1, "testing"]]);
    // The batch's record carries what the burns say.
    expect(
      (await burnedOf(test.db, workshopId, begun.batches[0] ?? "")).map((testCandle) => [testCandle.testCandle, testCandle.sessions, testCandle.decided]),
    ).toEqual([
      ["A1", 1, ""],
      ["A2", 0, ""],
    ]);
  });

  it("takes the same entry twice as once, refuses one that cannot be, and tells those who read on", async () => {
    const begun = value(await beginTrial(here(), wanted([make(await wickOf("4"))])));
    const id = v7();
    const same = { id };
    expect(await enter(begun.id, 0, light("A1"), same)).toMatchObject({ ok: true, value: { repeated: false } });
    expect(await enter(begun.id, 0, light("A1"), same)).toMatchObject({ ok: true, value: { repeated: true } });
    expect(await enter(begun.id, 0, light("A2"), same)).toMatchObject({ ok: false, status: 409 });
    expect(await enter(begun.id, 1, light("A1"))).toMatchObject({ ok: false, status: 400, message: expect.stringContaining("burning already") });
    expect(await enter(v7(), 1, light("A1"))).toMatchObject({ ok: false, status: 404, message: expect.stringContaining("trial") });
    const since = await readSince(trialStore, test.db, workshopId, begun.id, 0);
    expect(since?.events.map((event) => event.kind)).toEqual(["started", "lit"]);
    expect(since?.events.length).toBeLessThan(MAX_ENTRIES);
    expect(since?.state.testCandles.A1?.sessions).toHaveLength(1);
    // The log of a batch does not take what belongs to a trial.
    expect(
      await appendTo(
        batchStore as never,
        test.db,
        workshopId,
        stored.batch,
        { id: v7(), happenedAt: STARTED, personId: null, instrumentId: null, corrects: null, ...light("A1") } as never,
        NOW,
      ),
    ).toMatchObject({ ok: false });
  });

  it("cannot be rewritten: its entries are append-only for the program's own role too", async () => {
    const begun = value(await beginTrial(here(), wanted([make(await wickOf("4"))])));
    const condition = and(eq(trialEvents.workshopId, workshopId), eq(trialEvents.trialId, begun.id));
    await expect(test.db.update(trialEvents).set({ kind: "note" }).where(condition)).rejects.toThrow();
    await expect(test.db.delete(trialEvents).where(condition)).rejects.toThrow();
  });

  it("wants hands while it burns, and when the rest is over", async () => {
    const begun = value(await beginTrial(here(), wanted([make(await wickOf("4"))])));
    const waiting = async (minutes: number) => (await waitingCounts(test.db, { id: workshopId, timeZone: "UTC" }, after(minutes)))["/burn"];
    expect(await waiting(0)).toBe(0);
    await enter(begun.id, 0, light("A1"));
    expect(await waiting(1)).toBe(1);
    await enter(begun.id, 240, out("A1"));
    expect(await waiting(300)).toBe(0);
    expect(await waiting(240 + 12 * 60)).toBe(1);
    const { open } = await listTrials(test.db, workshopId, {}, after(300));
    expect(open).toMatchObject([{ number: 1, resting: 1, sessions: 1, burning: [] }]);
    expect((await listTrials(test.db, workshopId, { q: "nothing such" }, NOW)).open).toEqual([]);
  });
});

describe("what was decided", () => {
  const burned = async (half: boolean) => {
    const wick = await wickOf("4");
    const productId = await productWith(wick);
    const begun = value(await beginTrial(here(), wanted([make(wick, { half }), make(await wickOf("6"))], { productId })));
    const stateNow = async () => (await readProduct(test.db, workshopId, productId))?.wickTest;
    return { begun, productId, state: stateNow, wick };
  };
  const decide = (variant: string, verdict: "passed" | "failed" | "open") => ({ kind: "decided" as const, payload: { variant, verdict, why: "" } });

  it("becomes the state of the product it was burned for, and goes with an undo", async () => {
    const { begun, state: stateNow } = await burned(false);
    expect(await stateNow()).toBe("test due");
    // Another wick than the product's says nothing of it.
    await enter(begun.id, 1, decide("B", "failed"));
    expect(await stateNow()).toBe("test due");
    const id = v7();
    await enter(begun.id, 2, decide("A", "passed"), { id });
    expect(await stateNow()).toBe("tested");
    await enter(begun.id, 3, { kind: "withdrawn", payload: { why: "", mode: "delete" } }, { corrects: id });
    expect(await stateNow()).toBe("test due");
    await enter(begun.id, 4, decide("A", "failed"));
    expect(await stateNow()).toBe("failed");
  });

  it("of half-filled jars never counts as a pass", async () => {
    const { begun, state: stateNow } = await burned(true);
    await enter(begun.id, 1, decide("A", "passed"));
    expect(await stateNow()).toBe("test due");
    expect(passedOf(await triedIn(test.db, workshopId, { passed: true }))).toEqual([]);
  });

  it("stands in the table of wicks that passed, by diameter and family, and another wick can be given to the product", async () => {
    const { begun, productId, state: stateNow } = await burned(false);
    await enter(begun.id, 1, decide("B", "passed"));
    const tried = await triedIn(test.db, workshopId, { family: "soy" });
    expect(tried.map((item) => [item.variant, item.wickSize, item.decided, item.testCandles])).toEqual([
      ["A", "4", "", 2],
      ["B", "6", "passed", 2],
    ]);
    expect(passedOf(tried)).toMatchObject([{ size: "6", family: "soy", widthUm: 38_000, trial: begun.number }]);
    expect(await triedIn(test.db, workshopId, { containerId: v7() })).toEqual([]);
    const before = value(await takeWick(here(), { trialId: begun.id, variant: "B", productId }));
    expect(before.wicks).toBe(1);
    expect(await stateNow()).toBe("tested");
    expect(await takeWick(here(), { trialId: v7(), variant: "B", productId })).toMatchObject({ ok: false });
  });
});

describe("a burn record", () => {
  it("leaves and comes into another workshop whole, as JSON and as CSV, and a second time changes nothing", async () => {
    const begun = value(await beginTrial(here(), wanted([make(await wickOf("4"))])));
    await enter(begun.id, 0, light("A1"));
    await enter(begun.id, 120, { kind: "checked", payload: { testCandle: "A1", poolUm: 30_000, flame: "steady", note: "=1+1" } });
    await enter(begun.id, 240, out("A1"));
    const record = await burnRecordOf(test.db, workshopId, begun.id);
    if (!record) throw new Error("no record");
    expect(burnRecord.parse(JSON.parse(JSON.stringify(record)))).toEqual(record);
    const csv = burnCsv(record, METRIC);
    expect(csv.split("\r\n")[1]).toMatch(/^A1,flat-braid cotton 4,1,/);
    expect(csv).toContain("'=1+1");
    const elsewhere = await test.workshop();
    const read = value(readRecord(JSON.stringify(record)));
    expect(read.format).toBe("hearth-jar/burn-record");
    expect(value(await importBurn(test.db, elsewhere, record, LATER))).toMatchObject({ number: 1, remarks: [] });
    const there = await readTrial(test.db, elsewhere, begun.id);
    expect(there?.state).toEqual((await readTrial(test.db, workshopId, begun.id))?.state);
    expect(value(await importBurn(test.db, elsewhere, record, LATER)).remarks).toEqual(["This record was imported already; nothing changed."]);
    const longer = structuredClone(record);
    longer.events.push({ ...(longer.events[0] as (typeof longer.events)[number]), id: v7(), kind: "present", payload: {} } as never);
    expect(await importBurn(test.db, elsewhere, longer, LATER)).toMatchObject({ ok: false });
  });

  it("of the first format is still read: every event type that it knew", async () => {
    const text = readFileSync(new URL("../../testing/fixtures/burn-record-format-1.json", import.meta.url), "utf8");
    const record = value(readRecord(text));
    if (record.format !== "hearth-jar/burn-record") throw new Error("It is read as something else.");
    const taken = value(await importBurn(test.db, workshopId, record, LATER));
    expect(taken).toMatchObject({ number: 4, remarks: [] });
    const { state } = (await readTrial(test.db, workshopId, taken.trialId)) ?? {};
    expect(state?.testCandles.A1?.sessions).toMatchObject([
      { beforeMg: 560_000, afterMg: 543_700, checks: [{ flame: "steady", edge: true, note: "quiet" }, { sootAt: "rim" }] },
    ]);
    expect(state?.testCandles.B1?.stopped?.why).toBe("the glass is cracked");
    // The decision was taken back.
    expect(state).toMatchObject({ decided: {}, ratings: [{ score: 7, reachUm: 2_000_000 }] });
    expect(new Set(record.events.map((event) => event.kind))).toEqual(new Set(TRIAL.eventTypes.keys()));
  });

  it("that is damaged or does not hang together is refused with what is wrong", async () => {
    const begun = value(await beginTrial(here(), wanted([make(await wickOf("4"))])));
    await enter(begun.id, 0, light("A1"));
    const record = await burnRecordOf(test.db, workshopId, begun.id);
    const why = (spoil: (copy: NonNullable<typeof record>) => void) => {
      const copy = structuredClone(record as NonNullable<typeof record>);
      spoil(copy);
      const read = readRecord(JSON.stringify(copy));
      return read.ok ? null : read.message;
    };
    expect(why(() => undefined)).toBeNull();
    expect(
      why(
        (item) =>
          void item.events.splice(
            item.events.findIndex((event) => event.kind === "started"),
            1,
          ),
      ),
    ).toMatch(/exactly one “started”/);
    expect(why((item) => void item.people.splice(0))).toMatch(/names a person/);
    expect(why((item) => void item.events.push(item.events[0] as never))).toMatch(/same id/);
    expect(why((item) => void Object.assign(item.events[0] as object, { corrects: v7() }))).toMatch(/does not hold/);
    expect(why((item) => void Object.assign(item, { version: 9 }))).toMatch(/newer Hearth Jar|damaged/);
    expect(TRIAL.of(record?.events as TrialEvent[]).plan.testCandles).toHaveLength(2);
  });
});
