import { sql } from "drizzle-orm";
import pg from "pg";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { openDatabase } from "../web/data/client";
import { GLOBAL_TABLES } from "../web/data/row-level-security";
import { copyWorkshop } from "../web/testing/copy-workshop";
import { type TestDatabase, testDatabase } from "../web/testing/database";
import { putDemo } from "./load";

let test: TestDatabase;
let mine: string;
let yours: string;
let tables: { name: string; column: string; forced: boolean; rows: number }[];

beforeAll(async () => {
  test = await testDatabase();
  [mine, yours] = ["0190c0de-00aa-7000-8000-000000000001", "0190c0de-00aa-7000-8000-000000000002"];
  const owner = openDatabase(test.ownerUrl);
  await putDemo(owner.db, { id: mine, name: "Mine" }, new Date("2026-03-14T14:20:00Z"));
  await copyWorkshop(owner.pool, mine, yours);
  const { rows } = await owner.pool.query<{ name: string; column: string; forced: boolean }>(
    `select c.relname as name, case when c.relname = 'workshop' then 'id' else 'workshop_id' end as "column", c.relforcerowsecurity as forced
     from pg_class c where c.relnamespace = 'public'::regnamespace and c.relkind in ('r', 'p') order by 1`,
  );
  tables = [];
  for (const row of rows.filter((row) => !(row.name in GLOBAL_TABLES))) {
    const { rows: counted } = await owner.pool.query<{ n: number }>(`select count(*)::int as n from "${row.name}" where ${row.column} = $1`, [yours]);
    tables.push({ ...row, rows: counted[0]?.n ?? 0 });
  }
  await owner.pool.end();
}, 120_000);
afterAll(() => test.pool.end());

/** What the program gets by plain SQL while it works for a workshop. */
const inMine = (text: string) => test.as(mine).execute(sql.raw(text));
const codeOf = async (asked: Promise<unknown>): Promise<string> =>
  asked.then(
    (answer) => `${(answer as pg.QueryResult).rowCount} rows`,
    (error: { cause?: { code?: string }; code?: string }) => error.cause?.code ?? error.code ?? "?",
  );

describe("row-level security, tried by plain SQL as the program's own role", () => {
  it("is forced on every table, and a table that belongs to no workshop is named with its reason", () => {
    expect(tables.filter((table) => !table.forced).map((table) => table.name)).toEqual([]);
    expect(tables.length).toBeGreaterThan(45);
    for (const why of Object.values(GLOBAL_TABLES)) expect(why.length).toBeGreaterThan(20);
  });

  it("shows nothing where no workshop was named, nor of another than the one named", async () => {
    for (const { name, column } of tables) {
      expect((await test.program.query(`select 1 from "${name}" limit 1`)).rowCount, name).toBe(0);
      expect((await inMine(`select 1 from "${name}" where ${column} = '${yours}'`)).rowCount, name).toBe(0);
      expect((await inMine(`select 1 from "${name}" where ${column} <> '${mine}'`)).rowCount, name).toBe(0);
    }
    // There was something to be seen.
    expect(tables.filter((table) => table.rows > 0).length).toBeGreaterThan(30);
  });

  it("changes nothing of another, moves nothing over, and takes no row in for it", async () => {
    for (const { name, column, rows } of tables) {
      const changed = await codeOf(inMine(`update "${name}" set ${column} = ${column} where ${column} = '${yours}'`));
      expect(["0 rows", "42501"], `update ${name}`).toContain(changed);
      expect(["0 rows", "42501"], `delete ${name}`).toContain(await codeOf(inMine(`delete from "${name}" where ${column} = '${yours}'`)));
      if (rows === 0) continue;
      const moved = await codeOf(inMine(`update "${name}" set ${column} = '${yours}' where ${column} = '${mine}'`));
      expect(["42501", "P0001"], `move ${name}`).toContain(moved);
      // A row of one's own, told to be the other's: refused by the wall, whatever else may be wrong with it.
      const { rows: columns } = await test.owner.query<{ column: string }>(
        `select column_name as "column" from information_schema.columns where table_schema = 'public' and table_name = $1 and is_identity = 'NO' order by ordinal_position`,
        [name],
      );
      const names = columns.map((column) => pg.escapeIdentifier(column.column));
      const values = names.map((name) => (name === `"${column}"` ? `'${yours}'` : name));
      expect(await codeOf(inMine(`insert into "${name}" (${names}) select ${values} from "${name}" limit 1`)), `insert ${name}`).toBe("42501");
    }
    for (const { name, column, rows } of tables) {
      const { rows: left } = await test.owner.query<{ n: number }>(`select count(*)::int as n from "${name}" where ${column} = $1`, [yours]);
      expect(left[0]?.n, name).toBe(rows);
    }
  });

  it("is not passed by saying what its owner says, nor by switching it off, nor through a function", async () => {
    const said = await test.as(mine).transaction(async (tx) => {
      await tx.execute(sql`select set_config('hearth.everything', 'on', true)`);
      return tx.execute(sql`select distinct workshop_id from batch`);
    });
    expect(said.rows).toEqual([{ workshop_id: mine }]);
    expect(await codeOf(test.program.query("set row_security = off; select 1 from batch"))).toBe("42501");
    for (const attempt of [
      "alter table batch disable row level security",
      "drop policy of_workshop on batch",
      "set role hearth",
      "set session authorization hearth",
    ])
      expect(await codeOf(test.program.query(attempt)), attempt).toBe("42501");
    const [batch] = (await test.owner.query<{ id: string }>("select id from batch where workshop_id = $1 limit 1", [yours])).rows;
    expect((await inMine(`select undo_start('${yours}', '${batch?.id}') as undone`)).rows).toEqual([{ undone: false }]);
  });

  it("lasts no longer than the transaction, on a connection that others use next", async () => {
    await test.as(mine).execute(sql`select 1`);
    for (let n = 0; n < 4; n++) expect((await test.program.query("select current_setting('hearth.workshop', true) as at")).rows[0]?.at ?? "").toBe("");
    // One that failed leaves nothing open.
    expect(await codeOf(inMine("select 1 / 0"))).toBe("22012");
    expect(
      (await test.program.query("select pg_current_xact_id_if_assigned() as open, current_setting('hearth.workshop', true) as at")).rows[0]?.at ?? "",
    ).toBe("");
    expect(() => test.as("x', true), set_config('hearth.everything', 'on")).toThrow("no id");
  });
});
