import { readFileSync, writeFileSync } from "node:fs";
import { mkdtemp, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gunzipSync, gzipSync } from "node:zlib";
import { type SQL, sql } from "drizzle-orm";
import { v7 } from "uuid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { exportWorkshop, OMITTED_TABLES, SCHEMA_VERSION } from "../web/server/workshops/export-workshop";
import { importWorkshop } from "../web/server/workshops/import-workshop";
import { brokenBooks } from "../web/testing/books/invariants";
import { type TestDatabase, testDatabase } from "../web/testing/database";
import { putDemo } from "./load";

const NOW = new Date("2026-11-20T10:00:00.000Z");
/** Where the demo is, and a server that has never seen it. */
let here: TestDatabase;
let elsewhere: TestDatabase;
let folder: string;
let exported: string[];
const demo = v7();

const linesIn = async (db: Parameters<typeof exportWorkshop>[0], workshopId: string): Promise<string[]> => {
  const { body } = await exportWorkshop(db, workshopId, NOW.toISOString());
  const bytes = Buffer.from(await new Response(body).arrayBuffer());
  return gunzipSync(bytes).toString("utf8").trimEnd().split("\n");
};
const read = (bytes: Buffer, account: Parameters<typeof importWorkshop>[2] = null, heard: (share: number) => void = () => {}) => {
  const path = join(folder, "file");
  writeFileSync(path, bytes);
  return importWorkshop(path, bytes.length, account, heard, (workshopId) => elsewhere.as(workshopId));
};
/** How many rows each table elsewhere holds. */
const counted = async (): Promise<Record<string, number>> => {
  const { rows } = await elsewhere.owner.query<{ name: string }>(
    "select relname as name from pg_class where relnamespace = 'public'::regnamespace and relkind = 'r' order by 1",
  );
  const counts: Record<string, number> = {};
  for (const { name } of rows) counts[name] = (await elsewhere.owner.query<{ n: number }>(`select count(*)::int as n from "${name}"`)).rows[0]?.n ?? 0;
  return counts;
};

/** A value of each type that a column has. */
const SAMPLES: Record<string, unknown> = {
  uuid: v7(),
  text: "a text, with “signs”\nand lines",
  integer: 1,
  bigint: 1,
  boolean: true,
  jsonb: { a: [1, "two", null] },
  "timestamp with time zone": "2026-03-14T10:00:00.123456Z",
  date: "2026-03-14",
  bytea: Buffer.from([0, 1, 255]),
};

/** Puts a row with every column filled into each table of the demo that has none. The audit log has rows then too. */
async function fillTables(): Promise<void> {
  const { rows: columns } = await here.owner.query<{ table: string; column: string; type: string; to: string | null; toColumn: string | null }>(
    `select c.table_name as "table", c.column_name as "column", c.data_type as type, k.confrelid::regclass::text as "to", t.attname as "toColumn"
     from information_schema.columns c
     left join pg_attribute a on a.attrelid = c.table_name::regclass and a.attname = c.column_name
     left join pg_constraint k on k.contype = 'f' and k.conrelid = a.attrelid and a.attnum = any(k.conkey) and c.column_name <> 'workshop_id'
     left join pg_attribute t on t.attrelid = k.confrelid and t.attnum = k.confkey[array_position(k.conkey, a.attnum)]
     where c.table_schema = 'public' and c.is_identity = 'NO' and c.table_name in (select table_name from information_schema.columns where table_schema = 'public' and column_name = 'workshop_id')
     order by c.table_name, c.ordinal_position`,
  );
  const db = here.as(demo);
  const names = [...new Set(columns.map((column) => column.table))].filter((name) => name !== "audit_log" && !OMITTED_TABLES.includes(name));
  // Those that others point at come before them.
  const pointsAt = (name: string, other: string) => columns.some((column) => column.table === name && column.to === other && other !== name);
  names.sort((a, b) => (pointsAt(a, b) ? 1 : pointsAt(b, a) ? -1 : 0));
  for (const name of names) {
    const { rows } = await here.owner.query(`select 1 from "${name}" where workshop_id = $1 limit 1`, [demo]);
    if (rows.length > 0) continue;
    const own = columns.filter((column) => column.table === name);
    const values: SQL[] = [];
    for (const { column, type, to, toColumn } of own) {
      if (column === "workshop_id") values.push(sql`${demo}::uuid`);
      else if (to) values.push(sql`(select ${sql.identifier(toColumn ?? "")} from ${sql.identifier(to)} where workshop_id = ${demo} limit 1)`);
      else if (type in SAMPLES) values.push(type === "jsonb" ? sql`${JSON.stringify(SAMPLES[type])}::jsonb` : sql`${SAMPLES[type]}`);
      else throw new Error(`Say what a ${type} is: ${name}.${column}.`);
    }
    const list = sql.join(
      own.map((item) => sql.identifier(item.column)),
      sql`, `,
    );
    await db.execute(sql`insert into ${sql.identifier(name)} (${list}) values (${sql.join(values, sql`, `)})`);
  }
}

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), "hearth-test-"));
  here = await testDatabase();
  elsewhere = await testDatabase("hearth_elsewhere");
  await putDemo(here.db, { id: demo, name: "Quillfen candle shed" }, NOW, true);
  await fillTables();
  exported = await linesIn(here.as(demo), demo);
}, 180_000);
afterAll(async () => {
  await here.pool.end();
  await elsewhere.pool.end();
  await rm(folder, { recursive: true, force: true });
});

describe("a whole workshop", () => {
  it.each([
    ["cut in the middle", /is incomplete/, () => gzipSync(exported.join("\n")).subarray(0, 20_000)],
    ["without its end", /is incomplete/, () => gzipSync(exported.slice(0, -1).join("\n"))],
    ["without one of its rows", /says that it holds/, () => gzipSync(exported.filter((_, index) => index !== 40).join("\n"))],
    ["of something else", /not a workshop export/, () => Buffer.from("name,amount\nwax,3\n")],
    ["that is empty", /not a workshop export/, () => Buffer.alloc(0)],
    ["of a newer version", /newer Hearth Jar/, () => gzipSync(exported.join("\n").replace(`"schema":${SCHEMA_VERSION}`, `"schema":${SCHEMA_VERSION + 1}`))],
    [
      "with a row of a table that is unknown",
      /“waxx”, which this version does not know/,
      () => gzipSync(exported.join("\n").replace('{"table":"wax"', '{"table":"waxx"')),
    ],
    ["with a field that is unknown", /“famly”, which this version does not know/, () => gzipSync(exported.join("\n").replaceAll('"family":', '"famly":'))],
    ["with a row that points nowhere", /is inconsistent/, () => gzipSync(exported.join("\n").replaceAll(/"batch_id":\s?"[^"]+"/g, `"batch_id":"${v7()}"`))],
    ["with an amount that cannot be", /is inconsistent/, () => gzipSync(exported.join("\n").replace(/("table":"pack_run".*?"packs":\s?)\d+/, "$1-4"))],
  ])(
    "is not read from a file %s, says why, and leaves nothing behind",
    async (_, words, bytes) => {
      const before = await counted();
      const outcome = await read(bytes());
      expect(outcome).toMatchObject({ ok: false, message: expect.stringMatching(words) });
      expect(await counted()).toEqual(before);
    },
    60_000,
  );

  it("comes back with every row as it was: its export is equal, its audit log hangs together, and its books balance", async () => {
    const shares: number[] = [];
    expect(await read(gzipSync(exported.join("\n")), null, (share) => shares.push(share))).toEqual({
      ok: true,
      value: { id: demo, name: "Quillfen candle shed" },
    });
    expect(shares.every((share, index) => share >= (shares[index - 1] ?? 0) && share <= 1)).toBe(true);
    expect(shares.at(-1)).toBe(1);
    const again = await linesIn(elsewhere.as(demo), demo);
    expect(again.length).toBe(exported.length);
    expect(again.filter((line, index) => line !== exported[index])).toEqual([]);
    const { rows } = await elsewhere.owner.query("select * from audit_log_gaps($1)", [demo]);
    expect(rows).toEqual([]);
    expect(await brokenBooks(elsewhere.db, elsewhere.owner, demo)).toEqual([]);
    // Every table of a workshop has a row in it, so that nothing is equal for want of rows.
    const tables = new Set(exported.slice(1, -1).map((line) => (JSON.parse(line) as { table: string }).table));
    const { rows: all } = await here.owner.query<{ name: string }>(
      "select table_name as name from information_schema.columns where table_schema = 'public' and column_name = 'workshop_id' order by 1",
    );
    expect(all.map((item) => item.name).filter((name) => !tables.has(name) && !OMITTED_TABLES.includes(name))).toEqual([]);
    // Once it is there, it is not read over.
    expect(await read(gzipSync(exported.join("\n")))).toMatchObject({ ok: false, message: expect.stringContaining("already") });
  }, 120_000);

  it("does not hold the database while it is taken slowly", async () => {
    const { body, bytes } = await exportWorkshop(here.as(demo), demo, NOW.toISOString());
    // The end of a transaction is sent and not waited for: it may be a moment before the database has come to it. Nothing of the body is taken meanwhile.
    const open = async () =>
      (await here.owner.query("select 1 from pg_stat_activity where datname = current_database() and state like 'idle in transaction%'")).rows.length;
    await expect.poll(open, { timeout: 10_000 }).toBe(0);
    const taken = Buffer.from(await new Response(body).arrayBuffer());
    expect(taken.length).toBe(bytes);
    expect(gunzipSync(taken).toString("utf8")).toContain('{"end":true');
  });

  it("of the first version of the file is read too", async () => {
    const bytes = readFileSync(new URL("../web/testing/fixtures/workshop-export-1.ndjson", import.meta.url));
    const { workshop } = JSON.parse(bytes.toString("utf8").split("\n")[0] ?? "") as { workshop: string };
    expect(await read(bytes, { id: "account-1", name: "Ilvo" })).toEqual({ ok: true, value: { id: workshop, name: "Shed of the first file" } });
    expect(await brokenBooks(elsewhere.db, elsewhere.owner, workshop)).toEqual([]);
    expect((await elsewhere.owner.query("select * from audit_log_gaps($1)", [workshop])).rows).toEqual([]);
    const { rows } = await elsewhere.owner.query("select role from member where workshop_id = $1 and account_id = 'account-1'", [workshop]);
    expect(rows).toEqual([{ role: "owner" }]);
  });
});
