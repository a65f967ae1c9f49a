import { sql } from "drizzle-orm";
import { Pool } from "pg";
import { v7 } from "uuid";
import { scoped } from "@/data/tenant-scope";
import { openDatabase } from "../data/client";
import { migrateDatabase } from "../data/migrate";
import { grantProgram } from "../data/program-role";
import { workshops } from "../data/tables/workshop";

/** The role as which tests arrange and ask. Commands and routes open the database by its address, and work as the program. */
const TESTER = "hearth_tester";

/** Returns a database of the tests' own, brought up to the newest migration. The test command names it; `apart` is one beside it, empty at first. */
export async function testDatabase(apart?: string) {
  const shared = process.env.HEARTH_TEST_DATABASE_URL;
  if (!shared) throw new Error("Run the tests with ./hearth test: they bring a database of their own.");
  const named = (address: string) => (apart ? address.replace(/[^/]*$/, apart) : address);
  const url = named(shared);
  const programUrl = named(process.env.HEARTH_TEST_PROGRAM_URL ?? shared);
  if (apart) {
    const { pool } = openDatabase(shared);
    await pool.query(`create database ${apart}`);
    await pool.end();
  }
  // Test files run side by side; one of them migrates while the others wait.
  const owner = openDatabase(url, { lock_timeout: 60_000, statement_timeout: 60_000 });
  const client = await owner.pool.connect();
  await client.query("select pg_advisory_lock(4380)");
  // Once: rights that are taken and given again would fail a test that runs meanwhile.
  const { rows } = await client.query<{ ready: boolean }>(
    `select case when to_regclass('public.workshop') is null or to_regrole($2) is null then false
      else has_table_privilege($1, 'public.workshop', 'insert') and has_table_privilege($2, 'public.workshop', 'insert') end as ready`,
    [new URL(programUrl).username, TESTER],
  );
  if (!rows[0]?.ready) {
    await migrateDatabase(url, new URL(programUrl).username);
    const { rowCount } = await client.query("select 1 from pg_roles where rolname = $1", [TESTER]);
    if (!rowCount) await client.query(`create role ${TESTER} login bypassrls password '${new URL(programUrl).password}'`);
    await grantProgram(owner.pool, TESTER);
  }
  await client.query("select pg_advisory_unlock(4380)");
  client.release();
  // What is asked directly works with the program's rights, as a role that owns nothing; only that it sees all workshops at once, as a test does.
  const testCandleUrl = new URL(programUrl);
  testCandleUrl.username = TESTER;
  const { db, pool } = openDatabase(testCandleUrl.href);
  const program = new Pool({ connectionString: programUrl, max: 4 });
  const end = pool.end.bind(pool);
  pool.end = async () => {
    await owner.pool.end();
    await program.end();
    await end();
  };
  return {
    db,
    /** As the program reaches it. */
    url: programUrl,
    ownerUrl: url,
    pool,
    owner: owner.pool,
    /** Plain statements as the program's own role. */
    program,
    /** The database as the program sees it for one workshop. */
    as: (workshopId: string) => scoped(program, { workshop: workshopId }),
    /** A new, empty workshop: each test has its own, so that they cannot disturb one another. */
    workshop: async (): Promise<string> => {
      const id = v7();
      await db.insert(workshops).values({ id, name: `Test ${id.slice(-4)}`, massUnit: "g", temperatureUnit: "C", timeZone: "UTC", createdAt: sql`now()` });
      return id;
    },
  };
}
export type TestDatabase = Awaited<ReturnType<typeof testDatabase>>;
