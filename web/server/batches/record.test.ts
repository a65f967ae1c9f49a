import { readFileSync } from "node:fs";
import {
  type BatchEvent,
  type BatchRecord,
  batchOf,
  batchRecord,
  type FormulaSpec,
  LARGEST_NUMBER,
  PRESET_PROCESSES,
  planBatch,
  processFrom,
  titleOf,
} from "@hearth/core";
import { sql } from "drizzle-orm";
import Papa from "papaparse";
import { v7 } from "uuid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { eventRow, rowOf } from "@/data/batch-rows";
import { batchEvents, batches } from "@/data/tables/batch";
import { formulas, formulaVersions } from "@/data/tables/formula";
import { additives, dyes, vessels, waxes } from "@/data/tables/shelf";
import { stockUses } from "@/data/tables/stock";
import { appendEvent } from "@/server/events/batch-store";
import { readMaterials, readStocks } from "@/server/inventory/shelf";
import { nextNumber } from "@/server/shared/next-number";
import { type TestDatabase, testDatabase } from "@/testing/database";
import { spoiled, storedBatch } from "@/testing/stored-batch";
import { batchRecordOf, eventsCsv } from "./export-record";
import { importRecord, readRecord } from "./import-record";

const POURED = { kind: "poured" as const, payload: { step: "pour", filled: [], leftMg: null, roomCelsius: null, warmed: null } };
const ALONE = "It is not deducted from stock here.";

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(() => test.pool.end());

const NOW = "2026-02-20T10:00:00.000Z";

/** A batch with a reading, a correction, a flaw, a note that looks like a spreadsheet formula, and a closing. */
async function fullBatch() {
  const workshopId = await test.workshop();
  const batch = await storedBatch(test, workshopId);
  const { sent, wax, vessel, probe } = batch;
  const at = (minute: number) => ({ happenedAt: `2026-02-02T09:${String(minute).padStart(2, "0")}:00.000Z` });
  const wrong = sent({ kind: "weighed", payload: { pot: 0, componentId: wax, mg: 172_000 } }, at(1));
  for (const event of [
    wrong,
    sent({ kind: "weighed", payload: { pot: 0, componentId: wax, mg: 127_000 } }, { ...at(2), corrects: wrong.id }),
    sent({ kind: "read", payload: { step: "heat", shown: 8_600, correction: -50 } }, { ...at(20), instrumentId: probe }),
    sent({ kind: "poured", payload: { ...POURED.payload, warmed: "oven" } }, at(50)),
    sent({ kind: "flaw", payload: { defect: "wet_spot", place: "side", severity: "clear", product: vessel, jars: 3 } }, at(55)),
    sent({ kind: "note", payload: { text: '=HYPERLINK("x"), "quoted"\nsecond line ✓' } }, at(56)),
    sent({ kind: "closed", payload: { missing: ["stir"] } }, at(57)),
  ]) {
    expect(await appendEvent(test.db, workshopId, batch.batch, event, NOW)).toMatchObject({ ok: true });
  }
  const record = await batchRecordOf(test.db, workshopId, batch.batch);
  if (!record) throw new Error("no record");
  return { workshopId, ...batch, record };
}

/** The record of the first format was exported after the moment of these tests. */
const AFTER = "2026-12-01T10:00:00.000Z";
const take = async (workshopId: string, text: string, now = NOW) => {
  const read = readRecord(text);
  return read.ok ? importRecord(test.db, workshopId, read.value as BatchRecord, now) : read;
};

describe("taking a record away and reading it in elsewhere", () => {
  it("loses nothing on the way into an empty workshop, and again out of it", async () => {
    const { record } = await fullBatch();
    const empty = await test.workshop();
    expect(await take(empty, JSON.stringify(record, null, 2))).toMatchObject({ ok: true, value: { number: 1, remarks: [ALONE] } });
    const again = await batchRecordOf(test.db, empty, record.batch.id);
    expect({ ...again, workshop: record.workshop }).toEqual(record);
    expect(batchOf((again?.events ?? []) as BatchEvent[])).toEqual(batchOf(record.events as BatchEvent[]));
    // What it used is another workshop's stock.
    expect(await readStocks(test.db, empty, "UTC")).toEqual({});
  });

  it("carries additives, dyes and the waxes of a blend with it, and the drops that were counted", async () => {
    const workshopId = await test.workshop();
    const { wax, vessel, oil } = await storedBatch(test, workshopId);
    const ids = { hard: v7(), house: v7(), acid: v7(), rose: v7(), formula: v7(), version: v7(), batch: v7() };
    const blend = [
      { id: wax, share: 3 },
      { id: ids.hard, share: 1 },
    ];
    await test.db.insert(waxes).values([
      { workshopId, id: ids.hard, name: "hard", family: "paraffin", melt: 5_500, heatRange: { low: 8_000, high: 8_500 } },
      { workshopId, id: ids.house, name: "house", family: "blend", blend },
    ]);
    await test.db.insert(additives).values({ workshopId, id: ids.acid, name: "acid", maxPpm: 50_000 });
    await test.db.insert(dyes).values({ workshopId, id: ids.rose, name: "rose", kind: "liquid", eachMg: 30, colors: "soy: pale rose" });
    const process = processFrom(PRESET_PROCESSES[0] as (typeof PRESET_PROCESSES)[number]);
    const spec: FormulaSpec = {
      waxes: [{ id: ids.house, share: 1 }],
      fragrances: [{ id: oil, share: 1 }],
      additives: [{ id: ids.acid, ppm: 20_000 }],
      dyes: [{ id: ids.rose, by: "drops", amount: 6 }],
      basis: "wax",
      loadPpm: 60_000,
      process,
      notes: "",
    };
    const shelf = await readMaterials(test.db, workshopId);
    const [cup] = await test.db.select().from(vessels).where(sql`${vessels.id} = ${vessel}`);
    if (!cup) throw new Error("no cup");
    const scale = { id: null, name: "bench scale", resolutionUg: 1_000_000 };
    const order = { process, pots: [{ name: "House", number: 1, spec }], sparePpm: 0, scales: { wax: scale, oil: scale } };
    const plan = planBatch({ ...order, products: [{ ...cup, count: 100 }] }, shelf);
    const happenedAt = "2026-02-02T09:00:00.000Z";
    const head = { happenedAt, arrivedAt: happenedAt, personId: null, instrumentId: null, corrects: null };
    const started: BatchEvent = { ...head, id: v7(), kind: "started", payload: { plan } };
    await test.db.insert(formulas).values({ workshopId, id: ids.formula, name: "House", updatedAt: NOW });
    await test.db.insert(formulaVersions).values({ workshopId, id: ids.version, formulaId: ids.formula, number: 1, spec, createdAt: NOW });
    await test.db.insert(batches).values({ workshopId, id: ids.batch, number: 2, formulaVersionId: ids.version, ...rowOf(plan, batchOf([started]).state) });
    await test.db.insert(batchEvents).values(eventRow(workshopId, ids.batch, started));
    const counted = { ...head, id: v7(), kind: "counted" as const, payload: { pot: 0, componentId: ids.rose, n: 17 } };
    expect(await appendEvent(test.db, workshopId, ids.batch, counted, NOW)).toMatchObject({ ok: true });

    const record = await batchRecordOf(test.db, workshopId, ids.batch);
    if (!record) throw new Error("no record");
    expect(record.waxes.map((wax) => wax.name).sort()).toEqual(["hard", "house", "test soy"]);
    const empty = await test.workshop();
    expect(await take(empty, JSON.stringify(record))).toMatchObject({ ok: true, value: { remarks: [ALONE] } });
    expect({ ...(await batchRecordOf(test.db, empty, ids.batch)), workshop: record.workshop }).toEqual(record);
    expect(eventsCsv(record.events as BatchEvent[], 2, () => "")).toContain("17 drops rose");
    expect(
      await take(
        await test.workshop(),
        spoiled(record, (copy) => {
          copy.dyes = [];
        }),
      ),
    ).toMatchObject({
      ok: false,
      message: expect.stringContaining("an additive or a dye that the record does not hold"),
    });
  });

  it("changes nothing when the same record is read in again, also where it came from", async () => {
    const { workshopId, record } = await fullBatch();
    expect(await take(workshopId, JSON.stringify(record))).toMatchObject({ ok: true, value: { remarks: [expect.stringContaining("nothing changed")] } });
    expect(await batchRecordOf(test.db, workshopId, record.batch.id)).toEqual(record);
  });

  it("gives a taken number away to the next, keeps what is here, and says both", async () => {
    const { record } = await fullBatch();
    const target = await test.workshop();
    await storedBatch(test, target, record.batch.number);
    await test.db.insert(waxes).values({ ...record.waxes[0], workshopId: target, name: "my own name" } as typeof waxes.$inferInsert);
    const outcome = await take(target, JSON.stringify(record));
    expect(outcome).toMatchObject({ ok: true, value: { number: 2 } });
    expect(outcome.ok && outcome.value.remarks.join(" ")).toMatch(/“my own name” exists already.*Batch 1 exists already/);
  });
});

describe("batch numbers", () => {
  it("go on from the highest, and to the first gap once the last there is was taken", async () => {
    const { record } = await fullBatch();
    const target = await test.workshop();
    await storedBatch(test, target, 1);
    await storedBatch(test, target, 2);
    await storedBatch(test, target, LARGEST_NUMBER);
    record.batch.number = 2;
    const outcome = await take(target, JSON.stringify(record));
    expect(outcome).toMatchObject({ ok: true, value: { number: 3 } });
    expect(await test.db.transaction((tx) => nextNumber(tx, target))).toBe(4);
  });
});

describe("files that are no record", () => {
  it("refuses them with the reason, and leaves the workshop as it was", async () => {
    const { record } = await fullBatch();
    const whole = JSON.stringify(record);
    const target = await test.workshop();
    const cases: [string, RegExp][] = [
      [whole.slice(0, Math.floor(whole.length / 2)), /is incomplete/],
      ["date,grams\n1,2\n", /not JSON/],
      ["", /not JSON/],
      ["null", /not a Hearth Jar batch record/],
      ['{"format":"someone-else/recipe","version":1}', /not a Hearth Jar batch record/],
      [spoiled(record, (copy) => Object.assign(copy, { version: 4 })), /newer Hearth Jar/],
      [spoiled(record, (copy) => Object.assign(copy.events[1] ?? {}, { happenedAt: "yesterday" })), /damaged at events.1/],
      [spoiled(record, (copy) => copy.events.splice(0, 1)), /exactly one “started”/],
      [spoiled(record, (copy) => copy.events.push(copy.events[1] as never)), /same id/],
      [spoiled(record, (copy) => copy.people.splice(0)), /person that the record does not hold/],
      [spoiled(record, (copy) => copy.waxes.splice(0)), /wax that the record does not hold/],
      [spoiled(record, (copy) => Object.assign(copy.events[2] ?? {}, { corrects: v7() })), /corrects one that the record does not hold/],
      [spoiled(record, (copy) => Object.assign(copy.events[1] ?? {}, { corrects: copy.events[1]?.id })), /corrects itself/],
      [spoiled(record, (copy) => Object.assign(copy.batch, { number: 2_147_483_647 })), /damaged at batch.number/],
      [spoiled(record, (copy) => Object.assign(copy.people[0] ?? {}, { name: "x".repeat(301) })), /damaged at people.0.name/],
      [spoiled(record, (copy) => Object.assign(copy.waxes[0] ?? {}, { remarks: "x".repeat(2_001) })), /damaged at waxes.0.remarks/],
      [spoiled(record, (copy) => Object.assign(copy.vessels[0] ?? {}, { heightUm: 2 ** 40 })), /damaged at vessels.0.heightUm/],
      [spoiled(record, (copy) => Object.assign(copy.events[1] ?? {}, { happenedAt: "0000-01-01T00:00:00Z" })), /damaged at events.1/],
      [spoiled(record, (copy) => Object.assign(copy.workshop, { name: "nul\u0000" })), /holds a sign that cannot be kept/],
      [`${"[".repeat(100)}${"]".repeat(100)}`, /nested deeper/],
    ];
    for (const [text, why] of cases) expect(await take(target, text), text.slice(0, 40)).toMatchObject({ ok: false, message: expect.stringMatching(why) });
    for (const table of [batches, formulas, formulaVersions, waxes]) expect(await test.db.select().from(table).where(sql`workshop_id = ${target}`)).toEqual([]);
  });

  it("refuses a record that contradicts what is here: other entries, another version under the same id", async () => {
    const { workshopId, record } = await fullBatch();
    expect(
      await take(
        workshopId,
        spoiled(record, (copy) => copy.events.pop()),
      ),
    ).toMatchObject({ ok: false, message: expect.stringContaining("other entries") });
    const target = await test.workshop();
    expect(await take(target, JSON.stringify(record))).toMatchObject({ ok: true });
    const other = spoiled(record, (copy) => {
      copy.batch.id = v7();
      for (const event of copy.events) event.corrects = null;
      for (const event of copy.events) event.id = v7();
      copy.formulaVersion.spec.loadPpm = 50_000;
    });
    expect(await take(target, other)).toMatchObject({ ok: false, message: expect.stringContaining("differs here") });
    expect(await test.db.select().from(batches).where(sql`workshop_id = ${target}`)).toHaveLength(1);
  });
});

describe("the record as CSV", () => {
  it("reads back row for row in a spreadsheet's parser, with formulas defused", async () => {
    const { record } = await fullBatch();
    const names = new Map([...record.people, ...record.instruments].map((item) => [item.id, item.name]));
    const csv = eventsCsv(record.events as BatchEvent[], record.batch.number, (id) => names.get(id ?? "") ?? "");
    expect(csv.startsWith("\ufeff")).toBe(true);
    const { data, errors } = Papa.parse<Record<string, string>>(csv.slice(1), { header: true, skipEmptyLines: true });
    expect(errors).toEqual([]);
    expect(data).toHaveLength(record.events.length);
    expect(data.map((row) => row.stands)).toEqual(["yes", "no", "yes", "yes", "yes", "yes", "yes", "yes"]);
    expect(data.find((row) => row.kind === "read")).toMatchObject({ wax_celsius: "85.5", shown_celsius: "86", instrument: "probe", person: "Test candle" });
    expect(data.find((row) => row.kind === "note")?.what).toBe('\'=HYPERLINK("x"), "quoted"\nsecond line ✓');
  });
});

describe("the published schema", () => {
  it("accepts what is exported", async () => {
    const { record } = await fullBatch();
    expect(batchRecord.safeParse(JSON.parse(JSON.stringify(record))).success).toBe(true);
  });
});

describe("the promise to keep what people have", () => {
  it("opens a record of the first format, and gives it away in the newest", async () => {
    const text = readFileSync(new URL("../../testing/fixtures/record-format-1.json", import.meta.url), "utf8");
    const workshopId = await test.workshop();
    const outcome = await take(workshopId, text, AFTER);
    expect(outcome).toMatchObject({ ok: true, value: { number: 12 } });
    const id = (JSON.parse(text) as { batch: { id: string } }).batch.id;
    const record = await batchRecordOf(test.db, workshopId, id);
    expect(batchRecord.safeParse(JSON.parse(JSON.stringify(record))).error?.issues ?? []).toEqual([]);
    const { plan, state } = batchOf((record?.events ?? []) as BatchEvent[]);
    expect(titleOf(plan)).toBe("Rain on slate, tumbler");
    expect(plan.products.map((product) => [product.name, product.count, product.fillMg])).toEqual([
      ["squat tumbler", 8, 176_000],
      ["sample cup", 4, 12_500],
    ]);
    // 1419 g of wax, and the slip of 121 g of fragrance corrected to 112.9.
    expect(Object.values(state.weighed).map((item) => item.mg)).toEqual([1_419_000, 112_900]);
    expect(state.reads.cool?.celsius).toBe(7_200);
    expect(state.flaws.map((flaw) => flaw.flaw.jars)).toEqual([7, 2, 3]);
    expect(state.lookedAt).not.toBeNull();
    // And the newest reads back into another workshop as it went out.
    const next = await test.workshop();
    expect(await take(next, JSON.stringify(record), AFTER)).toMatchObject({ ok: true });
  });

  it("opens a record of the second format, whose steps were called acts", async () => {
    const text = readFileSync(new URL("../../testing/fixtures/record-format-2.json", import.meta.url), "utf8");
    expect(text).toContain('"acts"');
    const workshopId = await test.workshop();
    const outcome = await take(workshopId, text, AFTER);
    expect(outcome).toMatchObject({ ok: true });
    const old = JSON.parse(text) as { batch: { id: string }; events: { kind: string; payload: { act?: string; plan?: { process: { acts: unknown[] } } } }[] };
    const record = await batchRecordOf(test.db, workshopId, old.batch.id);
    const { plan } = batchOf((record?.events ?? []) as BatchEvent[]);
    expect(plan.process.steps).toEqual(old.events.find((event) => event.payload.plan)?.payload.plan?.process.acts);
    const about = old.events.filter((event) => event.payload.act !== undefined);
    expect(about.length).toBeGreaterThan(0);
    const read = record?.events.filter((event) => "step" in (event.payload as object)).map((event) => (event.payload as { step: string }).step);
    expect(read).toEqual(about.map((item) => item.payload.act));
  });

  it("draws stock for an imported batch where that was chosen, once", async () => {
    const text = readFileSync(new URL("../../testing/fixtures/record-format-1.json", import.meta.url), "utf8");
    const workshopId = await test.workshop();
    const read = readRecord(text);
    if (!read.ok) throw new Error(read.message);
    expect(await importRecord(test.db, workshopId, read.value as BatchRecord, AFTER, true)).toMatchObject({
      ok: true,
      value: { remarks: expect.arrayContaining([expect.stringContaining("deducted from the stock")]) },
    });
    const drawn = await test.db.select().from(stockUses).where(sql`workshop_id = ${workshopId}`);
    expect(drawn.map((item) => item.amount).sort((a, b) => a - b)).toEqual([4, 8, 112_900, 1_419_000]);
  });

  it("calls what comes under a name that is taken here by another", async () => {
    const { record } = await fullBatch();
    const target = await test.workshop();
    await test.db.insert(waxes).values({ workshopId: target, id: v7(), name: "TEST SOY", family: "soy" });
    const outcome = await take(target, JSON.stringify(record));
    expect(outcome.ok && outcome.value.remarks.join(" ")).toMatch(/“test soy \(imported\)”/);
  });
});
