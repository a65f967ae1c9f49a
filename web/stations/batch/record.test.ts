import { batchRecord, batchState, type FormulaSpec, planBatch, READY_PROFILES } from "@hearth/core";
import { sql } from "drizzle-orm";
import Papa from "papaparse";
import { v7 } from "uuid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { batchEvents, batches } from "../../data/tables/batch";
import { formulas, formulaVersions } from "../../data/tables/formula";
import { additives, dyes, vessels, waxes } from "../../data/tables/shelf";
import { type TestDatabase, testDatabase } from "../../testing/database";
import { spoiled, storedBatch } from "../../testing/stored-batch";
import { readMaterials } from "../shelf/read";
import { appendEvent, eventRow, rowOf } from "./append";
import { importRecord, readRecord } from "./record-in";
import { batchRecordOf, eventsCsv } from "./record-out";

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
  const wrong = sent({ kind: "weighed", payload: { componentId: wax, mg: 172_000 } }, at(1));
  for (const event of [
    wrong,
    sent({ kind: "weighed", payload: { componentId: wax, mg: 127_000 } }, { ...at(2), corrects: wrong.id }),
    sent({ kind: "read", payload: { gate: "heat", shown: 8_600, correction: -50 } }, { ...at(20), instrumentId: probe }),
    sent({ kind: "poured", payload: { warmedJars: true } }, at(50)),
    sent({ kind: "flaw", payload: { defect: "wet-spot", place: "side", severity: "plain", vesselId: vessel, jars: 3 } }, at(55)),
    sent({ kind: "note", payload: { text: '=HYPERLINK("x"), "quoted"\nsecond line ✓' } }, at(56)),
    sent({ kind: "closed", payload: { missing: ["stir"] } }, at(57)),
  ]) {
    expect(await appendEvent(test.db, workshopId, batch.batch, event, NOW)).toMatchObject({ ok: true });
  }
  const record = await batchRecordOf(test.db, workshopId, batch.batch);
  if (!record) throw new Error("no record");
  return { workshopId, ...batch, record };
}

const take = async (workshopId: string, text: string) => {
  const read = readRecord(text);
  return read.ok ? importRecord(test.db, workshopId, read.value, NOW) : read;
};

describe("taking a record away and reading it in elsewhere", () => {
  it("loses nothing on the way into an empty workshop, and again out of it", async () => {
    const { record } = await fullBatch();
    const empty = await test.workshop();
    expect(await take(empty, JSON.stringify(record, null, 2))).toMatchObject({ ok: true, value: { number: 1, remarks: [] } });
    const again = await batchRecordOf(test.db, empty, record.batch.id);
    expect({ ...again, workshop: record.workshop }).toEqual(record);
    expect(batchState(again?.events ?? [], NOW)).toEqual(batchState(record.events, NOW));
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
      { workshopId, id: ids.hard, name: "hard", family: "paraffin", melt: 5_500, heatGate: { low: 8_000, high: 8_500 } },
      { workshopId, id: ids.house, name: "house", family: "blend", blend },
    ]);
    await test.db.insert(additives).values({ workshopId, id: ids.acid, name: "acid", maxPpm: 50_000 });
    await test.db.insert(dyes).values({ workshopId, id: ids.rose, name: "rose", kind: "liquid", eachMg: 30, colours: "soy: pale rose" });
    const { id: _id, families: _families, ...profile } = READY_PROFILES[0] as (typeof READY_PROFILES)[number];
    const spec: FormulaSpec = {
      waxes: [{ id: ids.house, share: 1 }],
      fragrances: [{ id: oil, share: 1 }],
      additives: [{ id: ids.acid, ppm: 20_000 }],
      dyes: [{ id: ids.rose, by: "drops", amount: 6 }],
      basis: "wax",
      loadPpm: 60_000,
      profile,
      notes: "",
    };
    const shelf = await readMaterials(test.db, workshopId);
    const [cup] = await test.db.select().from(vessels).where(sql`${vessels.id} = ${vessel}`);
    if (!cup) throw new Error("no cup");
    const plan = planBatch({ name: "House", number: 1, spec }, shelf, { vessels: [{ ...cup, count: 100 }], sparePpm: 0, resolutionUg: 1_000_000 });
    const happenedAt = "2026-02-02T09:00:00.000Z";
    const head = { happenedAt, arrivedAt: happenedAt, personId: null, instrumentId: null, corrects: null };
    const started = { ...head, id: v7(), kind: "started" as const, payload: { plan } };
    await test.db.insert(formulas).values({ workshopId, id: ids.formula, name: "House", updatedAt: NOW });
    await test.db.insert(formulaVersions).values({ workshopId, id: ids.version, formulaId: ids.formula, number: 1, spec, createdAt: NOW });
    await test.db.insert(batches).values({ workshopId, id: ids.batch, number: 2, formulaVersionId: ids.version, ...rowOf(batchState([started], NOW)) });
    await test.db.insert(batchEvents).values(eventRow(workshopId, ids.batch, started));
    const counted = { ...head, id: v7(), kind: "counted" as const, payload: { componentId: ids.rose, n: 17 } };
    expect(await appendEvent(test.db, workshopId, ids.batch, counted, NOW)).toMatchObject({ ok: true });

    const record = await batchRecordOf(test.db, workshopId, ids.batch);
    if (!record) throw new Error("no record");
    expect(record.waxes.map((one) => one.name).sort()).toEqual(["hard", "house", "test soy"]);
    const empty = await test.workshop();
    expect(await take(empty, JSON.stringify(record))).toMatchObject({ ok: true, value: { remarks: [] } });
    expect({ ...(await batchRecordOf(test.db, empty, ids.batch)), workshop: record.workshop }).toEqual(record);
    expect(eventsCsv(batchState(record.events, NOW), 2, () => "")).toContain("17 drops rose");
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
    await test.db.insert(waxes).values({ workshopId: target, ...(record.waxes[0] as (typeof record.waxes)[number]), name: "my own name" });
    const outcome = await take(target, JSON.stringify(record));
    expect(outcome).toMatchObject({ ok: true, value: { number: 2 } });
    expect(outcome.ok && outcome.value.remarks.join(" ")).toMatch(/“my own name” was here already.*Number 1 is taken here/);
  });
});

describe("files that are no record", () => {
  it("refuses them with the reason, and leaves the workshop as it was", async () => {
    const { record } = await fullBatch();
    const whole = JSON.stringify(record);
    const target = await test.workshop();
    const cases: [string, RegExp][] = [
      [whole.slice(0, Math.floor(whole.length / 2)), /ends in the middle/],
      ["date,grams\n1,2\n", /not JSON/],
      ["", /not JSON/],
      ["null", /not a Hearth Jar batch record/],
      ['{"format":"someone-else/recipe","version":1}', /not a Hearth Jar batch record/],
      [spoiled(record, (copy) => Object.assign(copy, { version: 2 })), /newer Hearth Jar/],
      [spoiled(record, (copy) => Object.assign(copy.events[1] ?? {}, { happenedAt: "yesterday" })), /damaged at events.1/],
      [spoiled(record, (copy) => copy.events.splice(0, 1)), /exactly one “started”/],
      [spoiled(record, (copy) => copy.events.push(copy.events[1] as never)), /same id/],
      [spoiled(record, (copy) => copy.people.splice(0)), /person that the record does not hold/],
      [spoiled(record, (copy) => copy.waxes.splice(0)), /wax that the record does not hold/],
      [spoiled(record, (copy) => Object.assign(copy.events[2] ?? {}, { corrects: v7() })), /corrects one that the record does not hold/],
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
    const names = new Map([...record.people, ...record.instruments].map((one) => [one.id, one.name]));
    const csv = eventsCsv(batchState(record.events, NOW), record.batch.number, (id) => names.get(id ?? "") ?? "");
    expect(csv.startsWith("\ufeff")).toBe(true);
    const { data, errors } = Papa.parse<Record<string, string>>(csv.slice(1), { header: true, skipEmptyLines: true });
    expect(errors).toEqual([]);
    expect(data).toHaveLength(record.events.length);
    expect(data.map((row) => row.stands)).toEqual(["yes", "no", "yes", "yes", "yes", "yes", "yes", "yes"]);
    expect(data.find((row) => row.kind === "read")).toMatchObject({ wax_celsius: "85.5", shown_celsius: "86", instrument: "probe", person: "Tester" });
    expect(data.find((row) => row.kind === "note")?.what).toBe('\'=HYPERLINK("x"), "quoted"\nsecond line ✓');
  });
});

describe("the published schema", () => {
  it("accepts what is exported", async () => {
    const { record } = await fullBatch();
    expect(batchRecord.safeParse(JSON.parse(JSON.stringify(record))).success).toBe(true);
  });
});
