import { sql } from "drizzle-orm";
import { Pool } from "pg";
import { afterAll, afterEach, beforeAll, expect, it, vi } from "vitest";
import { type TestDatabase, testDatabase } from "../testing/database";
import { databaseOf, databaseOfNone } from "./client";
import { scoped } from "./scope";

let test: TestDatabase;
let pool: Pool;
beforeAll(async () => {
  test = await testDatabase();
  pool = new Pool({ connectionString: test.url, max: 1 });
});
afterAll(async () => {
  await pool.end();
  await test.pool.end();
});
afterEach(() => vi.unstubAllEnvs());

/** What the one connection keeps planned. */
const planned = async (what: string) => (await pool.query("select name from pg_prepared_statements where statement like $1", [`%${what}%`])).rowCount;

it("plans a statement once where it is asked often, and gives up a connection whose plan no longer fits the tables", async () => {
  const workshop = await test.workshop();
  await test.owner.query(`create schema elsewhere; create table elsewhere.changing (n integer); insert into elsewhere.changing values (7);
    grant usage on schema elsewhere to public; grant select on elsewhere.changing to public`);
  const ask = (n: number) =>
    scoped(pool, { workshop }).transaction(
      async (tx) => (await tx.execute<{ n: unknown }>(sql`select n from elsewhere.changing where n::text = ${String(n)}`)).rows,
    );
  try {
    for (let i = 0; i < 19; i++) expect(await ask(7)).toEqual([{ n: 7 }]);
    expect(await planned("elsewhere.changing")).toBe(0);
    for (let i = 0; i < 3; i++) expect(await ask(7)).toEqual([{ n: 7 }]);
    expect(await ask(8)).toEqual([]);
    expect(await planned("elsewhere.changing")).toBe(1);
    // Another server brings the tables up meanwhile.
    await test.owner.query("alter table elsewhere.changing alter n type text");
    await expect(ask(7)).rejects.toThrow();
    expect(await ask(7)).toEqual([{ n: "7" }]);
    // A single statement is simply asked again.
    const alone = async () => (await scoped(pool, { workshop }).execute(sql`select n, ${"x"}::text as x from elsewhere.changing`)).rows;
    for (let i = 0; i < 22; i++) expect(await alone()).toEqual([{ n: "7", x: "x" }]);
    await test.owner.query("alter table elsewhere.changing alter n type integer using n::integer");
    expect(await alone()).toEqual([{ n: 7, x: "x" }]);
    // What the database does not do at all is not asked for ever.
    const never = scoped(pool, { workshop }).execute(sql`select count(*) from elsewhere.changing for update`);
    await expect(never).rejects.toMatchObject({ cause: { code: "0A000" } });
  } finally {
    await test.owner.query("drop schema elsewhere cascade");
  }
});

it("takes a transaction's words together where the connection does, and what fails takes all of it back and leaves the connection to the next", async () => {
  const workshop = await test.workshop();
  vi.stubEnv("DATABASE_URL", test.url);
  vi.stubEnv("HEARTH_CONNECTIONS", "1");
  const db = databaseOf(workshop);
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
  expect((await databaseOf(crypto.randomUUID()).execute(sql`select name from workshop`)).rows).toEqual([]);
  expect((await databaseOfNone().execute(sql`select name from workshop`)).rows).toEqual([]);
  // A connection that ends in the middle says why, and another takes its place.
  await expect(db.transaction(async (tx) => void (await tx.execute(sql`select pg_terminate_backend(pg_backend_pid())`)))).rejects.toThrow();
  expect(await named()).toEqual([{ name: "After" }]);
});

it("keeps nothing with a connection that a pooler hands on", async () => {
  vi.stubEnv("DATABASE_LISTEN_URL", test.url);
  const workshop = await test.workshop();
  for (let i = 0; i < 30; i++)
    await scoped(pool, { workshop }).transaction(async (tx) => (await tx.execute(sql`select 'handed on' as what where ${i}::int >= 0`)).rows);
  expect(await planned("handed on")).toBe(0);
});

it("names no two statements alike, though the build holds this module several times over one pool", async () => {
  const workshop = await test.workshop();
  for (const what of ["one copy", "another copy"]) {
    vi.resetModules();
    const { scoped: anew } = await import("./scope");
    const ask = () =>
      anew(pool, { workshop }).transaction(
        async (tx) => (await tx.execute<{ n: number }>(sql`select 1 as n, ${sql.raw(`'${what}'`)} as copy where ${1}::int = 1`)).rows,
      );
    for (let i = 0; i < 25; i++) expect(await ask()).toEqual([{ n: 1, copy: what }]);
    expect(await planned(what)).toBe(1);
  }
});
