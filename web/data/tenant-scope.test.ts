import { sql } from "drizzle-orm";
import { Pool } from "pg";
import { afterAll, afterEach, beforeAll, expect, it, vi } from "vitest";
import { type TestDatabase, testDatabase } from "@/testing/database";
import { databaseWithoutTenant, tenantDatabase } from "./client";
import { scoped, snapshot } from "./tenant-scope";

let test: TestDatabase;
let pool: Pool;
beforeAll(async () => {
  test = await testDatabase();
  pool = new Pool({ connectionString: test.url, max: 1 });
  pool.on("connect", (client) => void client.on("error", () => undefined));
});
afterAll(async () => {
  await pool.end();
  await test.pool.end();
});
afterEach(() => vi.unstubAllEnvs());

it("takes all of a transaction back where a part of it fails, and leaves the connection to the next", async () => {
  const workshop = await test.workshop();
  vi.stubEnv("DATABASE_URL", test.url);
  vi.stubEnv("HEARTH_CONNECTIONS", "1");
  const db = tenantDatabase(workshop);
  const named = async () => (await db.execute<{ name: string }>(sql`select name from workshop`)).rows;
  const rename = (name: string | null) => sql`update workshop set name = ${name} where id = ${workshop}`;
  const [before] = await named();
  expect(await named()).toHaveLength(1);
  // By one statement alone, and by several.
  for (let i = 0; i < 25; i++) await expect(db.execute(rename(null))).rejects.toMatchObject({ cause: { code: "23502" } });
  await expect(
    db.transaction(async (tx) => {
      await tx.execute(rename("In between"));
      await tx.execute(rename(null));
    }),
  ).rejects.toMatchObject({ cause: { code: "23502" } });
  expect(await named()).toEqual([before]);
  await db.transaction(async (tx) => void (await Promise.all([tx.execute(rename("Before")), tx.execute(rename("After"))])));
  expect(await named()).toEqual([{ name: "After" }]);
  // Of another workshop nothing is there, on the same connection.
  expect((await tenantDatabase(crypto.randomUUID()).execute(sql`select name from workshop`)).rows).toEqual([]);
  expect((await databaseWithoutTenant().execute(sql`select name from workshop`)).rows).toEqual([]);
  // A connection that ends in the middle says why, and another takes its place.
  await expect(db.transaction(async (tx) => void (await tx.execute(sql`select pg_terminate_backend(pg_backend_pid())`)))).rejects.toThrow();
  expect(await named()).toEqual([{ name: "After" }]);
});

it("reads what a page asks without a pause as of one moment, writes nothing, and holds a connection no longer than that", async () => {
  const workshop = await test.workshop();
  const page = snapshot(pool, { workshop });
  const nameOf = async (db: typeof page) => (await db.execute<{ name: string }>(sql`select name from workshop`)).rows.map(({ name }) => name);
  const rename = (name: string) => test.owner.query("update workshop set name = $1 where id = $2", [name, workshop]);
  await rename("Before");
  const [, , later] = await Promise.all([
    nameOf(page).then(() => rename("After")),
    page.execute(sql`select pg_sleep(0.3)`),
    // A step of the page that goes on with what it read.
    nameOf(page).then(() => nameOf(page)),
  ]);
  expect(later).toEqual(["Before"]);
  await new Promise(setImmediate);
  expect(await nameOf(page)).toEqual(["After"]);
  // What fails takes nothing else with it: neither what was asked beside it, nor the pool's only connection.
  const failing = () => page.execute(sql`update workshop set name = 'Written'`);
  for (let i = 0; i < 3; i++) {
    const [read, written, again] = await Promise.allSettled([nameOf(page), failing(), nameOf(page)]);
    expect([read, again]).toEqual([
      { status: "fulfilled", value: ["After"] },
      { status: "fulfilled", value: ["After"] },
    ]);
    expect(written).toMatchObject({ status: "rejected", reason: { cause: { code: "25006" } } });
  }
  await expect(page.execute(sql`select pg_terminate_backend(pg_backend_pid())`)).rejects.toThrow();
  expect(await nameOf(page)).toEqual(["After"]);
  expect(await nameOf(scoped(pool, { workshop }))).toEqual(["After"]);
  expect(await nameOf(snapshot(pool, { workshop: crypto.randomUUID() }))).toEqual([]);
});

it("keeps nothing with a connection that a pooler hands on, and asks its limits in each transaction", async () => {
  vi.stubEnv("DATABASE_LISTEN_URL", test.url);
  const workshop = await test.workshop();
  const settings = async (ask: (text: string) => Promise<{ rows: object[] }>) =>
    (await ask("select current_setting('hearth.workshop', true) as workshop, current_setting('statement_timeout') as most")).rows[0];
  const inside = await scoped(pool, { workshop }).transaction(async (tx) => settings((text) => tx.execute(sql.raw(text))));
  expect(inside).toEqual({ workshop, most: "20s" });
  const alone = await settings((text) => scoped(pool, { workshop }).execute(sql.raw(text)));
  expect(alone).toEqual(inside);
  expect(await settings((text) => pool.query(text))).toEqual({ workshop: "", most: "0" });
});

it("gives a connection back where a transaction could not even begin", async () => {
  const workshop = await test.workshop();
  // A value that the database does not take: more often than there are connections.
  const odd = scoped(pool, { workshop, through: "a\u0000b" });
  for (let i = 0; i < 3; i++) await expect(odd.transaction(async (tx) => tx.execute(sql`select 1`))).rejects.toThrow();
  const { rows } = await scoped(pool, { workshop }).execute<{ n: number }>(sql`select 1 as n`);
  expect(rows).toEqual([{ n: 1 }]);
});

it("refuses an id that is none, and takes what it is told as a value, never as a statement", async () => {
  expect(() => scoped(pool, { workshop: "x'; drop table batch; --" })).toThrow(/no id/);
  const workshop = await test.workshop();
  const through = "a device'; drop table batch; --";
  const db = scoped(pool, { workshop, through });
  const { rows } = await db.execute<{ through: string }>(sql`select current_setting('hearth.through', true) as through`);
  expect(rows).toEqual([{ through }]);
});
