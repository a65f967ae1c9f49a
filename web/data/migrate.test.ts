import { readFileSync } from "node:fs";
import { batchOf, batchRecord, defectOf, ROLES, titleOf, unreadableOf } from "@hearth/core";
import pg from "pg";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { openBatches, readBatch } from "@/server/batches/batches";
import { batchRecordOf, eventsCsv } from "@/server/batches/export-record";
import { readBatchEvents } from "@/server/events/read-events";
import { listFormulas } from "@/server/formulas/formulas";
import { readStocks } from "@/server/inventory/shelf";
import { brokenBooks } from "../testing/books/invariants";
import { type TestDatabase, testDatabase } from "../testing/database";
import { openDatabase } from "./client";
import { migrateDatabase } from "./migrate";

const WORKSHOP = "0190c0de-0000-7000-8000-000000000001";
const batchId = (n: number) => `0190c0de-0008-7000-8000-${n.toString(16).padStart(12, "0")}`;

let test: TestDatabase;
let old: ReturnType<typeof openDatabase>;
let before: { id: string; payload: unknown }[];
let url = "";

/** A database as an earlier program left it, with its demo: brought up as a start of the program does. */
beforeAll(async () => {
  test = await testDatabase();
  await test.owner.query("create database hearth_test_format_1");
  url = test.ownerUrl.replace(/\/[^/]*$/, "/hearth_test_format_1");
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query(readFileSync(new URL("../testing/fixtures/database-format-1.sql", import.meta.url), "utf8"));
  // Two things of one name, which were allowed then.
  await client.query("insert into public.dye (workshop_id, id, name, kind) select workshop_id, gen_random_uuid(), upper(name), kind from public.dye limit 1");
  before = (await client.query("select id, payload from public.batch_event order by id")).rows;
  await client.end();
  await migrateDatabase(url);
  old = openDatabase(url);
});
afterAll(async () => {
  await old.pool.end();
  await test.pool.end();
});

describe("a database of the first format", () => {
  it("opens, with every batch at its stage and its log untouched", async () => {
    const { rows } = await old.pool.query("select id, payload from batch_event order by id");
    expect(rows).toEqual(before);
    const open = await openBatches(old.db, WORKSHOP);
    expect(open.map((item) => [item.number, item.pouredAt !== null, item.lookedAt !== null])).toEqual([
      [15, false, false],
      [16, false, false],
      [12, true, true],
      [13, true, false],
      [14, true, false],
    ]);
    expect(open[0]?.next?.name).toBe("bring to the pour range");
  });

  it("keeps facts that are those of its entries, and a plan with its wicks unsaid", async () => {
    for (let n = 1; n <= 6; n++) {
      const kept = await readBatch(old.db, WORKSHOP, batchId(n));
      const { plan, state } = batchOf(await readBatchEvents(old.db, WORKSHOP, batchId(n)));
      expect(kept?.state).toEqual(JSON.parse(JSON.stringify(state)));
      expect(titleOf(plan)).not.toBe("");
      expect(plan.products.every((product) => product.wicks === null)).toBe(true);
      expect(await batchRecordOf(old.db, WORKSHOP, batchId(n))).toMatchObject({ version: 3 });
    }
  });

  it("reads its formulas as processes, keeps its stock, and tells two of one name apart", async () => {
    const { formulas } = await listFormulas(old.db, WORKSHOP);
    expect(formulas).toHaveLength(4);
    for (const formula of formulas) expect(formula.spec.process.steps.map((step) => step.kind)).toContain("pour");
    const stocks = await readStocks(old.db, WORKSHOP, "UTC");
    expect(Object.keys(stocks).length).toBeGreaterThan(5);
    const { rows } = await old.pool.query("select lower(name) as name from dye");
    expect(new Set(rows.map((row: { name: string }) => row.name)).size).toBe(rows.length);
  });

  it("is counted in the findings by what its log says, its flaws under the names that they have now", async () => {
    const { rows } = await old.pool.query<{ number: number; defect: string; jars: number; pour_side: number }>(
      "select b.number, f.defect, f.jars, o.pour_side from outcome o join batch b on b.workshop_id = o.workshop_id and b.id = o.batch_id join outcome_flaw f on f.workshop_id = o.workshop_id and f.batch_id = o.batch_id and f.product = o.product order by 1, 2",
    );
    expect(rows.map((row) => row.defect)).toEqual(expect.arrayContaining(["rough_top", "wet_spot"]));
    for (const row of rows) expect(defectOf(row.defect)).toBeDefined();
    expect(rows.find((row) => row.defect === "rough_top")).toMatchObject({ number: 12, pour_side: 1 });
  });

  it("is brought up once: a second start changes nothing", async () => {
    const stored = async () => (await old.pool.query("select id, state, plan from batch order by id")).rows;
    const first = await stored();
    await migrateDatabase(test.ownerUrl.replace(/\/[^/]*$/, "/hearth_test_format_1"));
    expect(await stored()).toEqual(first);
  });
});

describe("facts that an earlier version kept", () => {
  it("are worked out anew from the log, with the pieces that stand loose and may be packed", async () => {
    const loose = async () => (await old.pool.query<{ number: number; loose: number }>("select number, loose from batch where loose > 0 order by number")).rows;
    const { rows } = await old.pool.query<{ id: string; workshop_id: string }>("select id, workshop_id from batch where number = 12");
    const [batch] = rows;
    // Released since: an entry as the program writes it, while the row still says what an older one knew.
    await old.pool.query(
      `insert into batch_event (workshop_id, id, batch_id, kind, happened_at, arrived_at, v, payload)
       values ($1, gen_random_uuid(), $2, 'released', now(), now(), 1, '{"note":""}')`,
      [batch?.workshop_id, batch?.id],
    );
    await old.pool.query(`update batch set loose = 0, state = jsonb_set(state, '{format}', '4') where number = 12`);
    expect(await loose()).not.toContainEqual(expect.objectContaining({ number: 12 }));
    await migrateDatabase(url);
    const kept = await readBatch(old.db, WORKSHOP, batchId(2));
    expect(kept?.state.released).not.toBeNull();
    expect((await loose()).find((item) => item.number === 12)?.loose).toBeGreaterThan(0);
  });
});

describe("a database of version 0.10.3", () => {
  const SHOP = "0190c0de-0000-7000-8000-00000000f103";
  const FORMER_ROLES = ["owner", "maker", "helper", "reader"];
  let newer: ReturnType<typeof openDatabase>;
  let entries: { id: string; payload: unknown }[];
  beforeAll(async () => {
    await test.owner.query("create database hearth_test_0103");
    const at = test.ownerUrl.replace(/\/[^/]*$/, "/hearth_test_0103");
    const client = new pg.Client({ connectionString: at });
    await client.connect();
    await client.query("drop schema public cascade");
    await client.query(readFileSync(new URL("../testing/fixtures/database-0.10.3.sql", import.meta.url), "utf8"));
    entries = (await client.query("select id, payload from public.batch_event order by id")).rows;
    // Roles as they were called then.
    for (const [index, role] of FORMER_ROLES.entries()) {
      await client.query("insert into public.device (workshop_id, id, name, role) values ($1, gen_random_uuid(), $2, $3)", [SHOP, `phone ${index}`, role]);
      await client.query(
        `insert into public.invitation (workshop_id, id, person_id, role, hash, until)
         select workshop_id, gen_random_uuid(), id, $2, $2, now() from public.person where workshop_id = $1 limit 1`,
        [SHOP, role],
      );
    }
    await client.end();
    await migrateDatabase(at);
    newer = openDatabase(at);
  });
  afterAll(() => newer.pool.end());

  it("has a ledger with a row for each event; stock is what it was, and right where a count was taken while a batch was weighed", async () => {
    const { rows } = await newer.pool.query<{ number: number; material: string; amount: string; at: Date }>(
      `select b.number, coalesce(w.name, f.name, v.name) as material, u.amount, u.at from stock_use u join batch b on b.id = u.batch_id
       left join wax w on w.id = u.material_id left join fragrance f on f.id = u.material_id left join vessel v on v.id = u.material_id order by 1, 4, 2`,
    );
    expect(rows.map((row) => [row.number, row.material, Number(row.amount)])).toEqual([
      [1, "test soy", 500_000],
      [1, "test soy", 100_000],
      [2, "test soy 2", 127_000],
      [2, "test rain 2", 13_000],
      [2, "cup 2", 10],
    ]);
    const stocks = await readStocks(newer.db, SHOP, "UTC");
    const { rows: named } = await newer.pool.query<{ id: string; name: string }>(
      "select id, name from wax union all select id, name from fragrance union all select id, name from vessel",
    );
    const onHand = (name: string) => stocks[named.find((row) => row.name === name)?.id ?? ""]?.onHand;
    // Counted at 2,000 g after 500 g were weighed, and 100 g weighed since: 0.10.3 said 1,400 g.
    expect(onHand("test soy")).toBe(1_900_000);
    expect([onHand("test soy 2"), onHand("test rain 2"), onHand("cup 2")]).toEqual([4_873_000, 487_000, 40]);
    expect(await brokenBooks(newer.db, newer.pool, SHOP, true)).toEqual([]);
  });

  it("has the roles of its people and devices under the names of now", async () => {
    for (const table of ["device", "invitation"]) {
      const { rows } = await newer.pool.query<{ role: string }>(`select role from ${table}`);
      expect(rows.map((row) => row.role).sort()).toEqual([...ROLES].sort());
    }
  });

  it("shows an entry that cannot be read as such, on a page, in the record and in a file, and keeps its log as it was", async () => {
    const { rows } = await newer.pool.query<{ id: string }>("select id from batch where number = 2");
    const id = rows[0]?.id ?? "";
    const page = await readBatch(newer.db, SHOP, id);
    expect(page?.events.filter((event) => unreadableOf(event))).toHaveLength(1);
    const record = await batchRecordOf(newer.db, SHOP, id);
    const travelling = JSON.parse(JSON.stringify(record));
    expect(batchRecord.parse(travelling)).toEqual(travelling);
    const csv = eventsCsv(await readBatchEvents(newer.db, SHOP, id), 2, () => "");
    expect(csv).toContain("cannot be read");
    expect((await newer.pool.query("select id, payload from batch_event order by id")).rows).toEqual(entries);
  });
});
