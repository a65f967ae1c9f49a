import { mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { loadDemo } from "../demo/load";
import { WORKSHOP } from "../demo/workshop";
import { codeOf, isUnavailable, openDatabase } from "../web/data/client";
import { readEpoch } from "../web/data/epoch";
import { migrateDatabase } from "../web/data/migrate";
import { scoped } from "../web/data/tenant-scope";
import { archiveSettings, keepBase, makeArchive, restoreAt } from "./archive";
import { backup, backupDaily, fingerprint, outlived, restore } from "./backup";
import { type Embedded, embeddedPostgres, PROGRAM_ROLE, withClient } from "./postgres";
import { passingHome } from "./processes";
import { beforeUpdate, keepVersion } from "./versions";

let home: string;
let server: Embedded;
let url: string;
const print = () => withClient(url, fingerprint);
const firstWorkshop = async () =>
  (await withClient(url, (client) => client.query<{ id: string }>("select id from workshop order by id limit 1"))).rows[0]?.id ?? "";
const rename = (name: string) => withClient(url, (client) => client.query("update workshop set name = $1 where id = $2", [name, WORKSHOP.id]));

beforeAll(async () => {
  home = passingHome("backup");
  server = await embeddedPostgres(home);
  url = await server.open("hearth");
  await server.asProgram("hearth");
  await migrateDatabase(url, PROGRAM_ROLE);
  await loadDemo(url, new Date("2026-03-14T10:00:00Z"));
});
afterAll(async () => {
  await server.stop();
  rmSync(home, { recursive: true, force: true });
});

describe("a backup", () => {
  it("brings everything back to the byte, while the program goes on working", async () => {
    const file = join(home, "all.dump");
    const before = await print();
    expect(Object.keys(before).length).toBeGreaterThan(15);
    expect(await backup(url, file)).toMatchObject({ tables: Object.keys(before).length });
    expect(statSync(file).mode & 0o077).toBe(0);

    const { pool } = openDatabase(await server.asProgram("hearth"));
    const shop = await firstWorkshop();
    await scoped(pool, { workshop: shop }).execute(sql`insert into person (workshop_id, id, name) values (${shop}, gen_random_uuid(), 'Later')`);
    const later = () => withClient(url, (client) => client.query("select name from person where name = 'Later'"));
    expect((await later()).rows).toHaveLength(1);
    await rename("Changed since");
    expect(await print()).not.toEqual(before);
    const first = await restore(url, file, PROGRAM_ROLE, new Date("2026-03-14T10:00:00Z"));
    expect(await print()).toEqual(before);
    // Who was working goes on by itself, with the same rights and no more.
    expect((await later()).rows).toEqual([]);
    await expect(pool.query("delete from batch_event")).rejects.toMatchObject({ code: "42501" });
    await pool.end();
    // What was there before the restore is not lost.
    const nameIn = (database: string) =>
      withClient(url.replace(/hearth$/, database), (client) => client.query("select name from workshop where id = $1", [WORKSHOP.id]));
    expect((await nameIn(first.before)).rows).toEqual([{ name: "Changed since" }]);
    // Nor by a second restore, and the kept one can be written to, as when it is the right one after all.
    const second = await restore(url, file, PROGRAM_ROLE, new Date("2026-03-14T10:05:00Z"));
    expect(second.before).not.toBe(first.before);
    expect((await nameIn(first.before)).rows).toEqual([{ name: "Changed since" }]);
    await withClient(url.replace(/hearth$/, first.before), (client) => client.query("update workshop set name = 'Written to'"));
  });

  it("that is restored while entries come in takes none of them along: what was acknowledged before is kept aside, and nothing is meanwhile", async () => {
    const file = join(home, "under-load.dump");
    await backup(url, file);
    const { pool } = openDatabase(await server.asProgram("hearth"));
    const shop = await firstWorkshop();
    const db = scoped(pool, { workshop: shop });
    const epoch = await readEpoch(db);
    const acknowledged: number[] = [];
    const refused: unknown[] = [];
    let ended = false;
    const write = async () => {
      for (let n = 0; !ended; n++) {
        const at = acknowledged.length;
        await db
          .execute(sql`insert into person (workshop_id, id, name) values (${shop}, gen_random_uuid(), ${`Under load ${n}`})`)
          .then(() => acknowledged.push(n))
          .catch((error: unknown) => refused.push(error));
        if (acknowledged.length === at) await new Promise((next) => setTimeout(next, 5));
      }
    };
    const writing = write();
    await new Promise((next) => setTimeout(next, 200));
    const { before } = await restore(url, file);
    const restored = acknowledged.length;
    while (acknowledged.length < restored + 20) await new Promise((next) => setTimeout(next, 10));
    ended = true;
    await writing;
    const count = async (at: string) =>
      withClient(
        at,
        async (client) => (await client.query<{ n: number }>("select count(*)::int as n from person where name like 'Under load%'")).rows[0]?.n ?? 0,
      );
    // Each that was acknowledged is in the one or the other.
    expect((await count(url)) + (await count(url.replace(/hearth$/, before)))).toBe(acknowledged.length);
    expect(refused.length).toBeGreaterThan(0);
    expect(refused.filter((error) => !isUnavailable(error))).toEqual([]);
    expect(refused.some((error) => codeOf(error) === "25006")).toBe(true);
    expect(await readEpoch(db)).not.toBe(epoch);
    await pool.end();
  });

  it("that is torn or foreign is refused, and nothing is touched", async () => {
    const before = await print();
    const whole = join(home, "whole.dump");
    await backup(url, whole);
    const torn = join(home, "torn.dump");
    writeFileSync(torn, readFileSync(whole).subarray(0, 20_000));
    await expect(restore(url, torn)).rejects.toThrow(/cannot be read back as a backup/);
    writeFileSync(torn, "a shopping list");
    await expect(restore(url, torn)).rejects.toThrow(/cannot be read back as a backup/);
    await expect(restore(url, join(home, "none.dump"))).rejects.toThrow("There is no file");
    expect(await print()).toEqual(before);
    const { rows } = await withClient(url, (client) =>
      client.query("select datname from pg_database where datname like 'hearth_check%' or datname like '%restoring'"),
    );
    expect(rows).toEqual([]);
  });

  it("is written daily, once a day, and old ones go by their age", async () => {
    const folder = join(home, "backups");
    const noon = new Date("2026-03-14T12:00:00Z");
    expect(await backupDaily(url, folder, noon)).toContain("hearth-2026-03-14.dump");
    expect(await backupDaily(url, folder, noon)).toBeNull();
    mkdirSync(folder, { recursive: true });
    const day = (back: number) => new Date(noon.getTime() - back * 86_400_000).toISOString().slice(0, 10);
    const names = Array.from({ length: 500 }, (_, back) => `hearth-${day(back)}.dump`);
    const gone = new Set(outlived([...names, "mine.dump"], day(0)));
    const kept = names.filter((name) => !gone.has(name));
    expect(kept.slice(0, 7)).toEqual(names.slice(0, 7));
    expect(gone.has("mine.dump")).toBe(false);
    expect(kept.length).toBeGreaterThan(7 + 3 + 10);
    expect(kept.length).toBeLessThan(27);
    // None older than a year, and between two that are kept in the last five weeks never more than a fortnight.
    expect(kept.every((name) => name >= `hearth-${day(367)}.dump`)).toBe(true);
    expect(readdirSync(folder)).toEqual(["hearth-2026-03-14.dump"]);
  });
});

describe("an archive", () => {
  it("brings everything back to how it stood at a moment", async () => {
    const [own, folder] = [passingHome("archived"), join(passingHome("archive"), "changes")];
    makeArchive(folder);
    let archived = await embeddedPostgres(own, archiveSettings(folder));
    const at = await archived.open("hearth");
    await withClient(at, (client) => client.query("create table said (text text)"));
    expect(await keepBase(at, folder)).toContain("base");
    expect(await keepBase(at, folder)).toBeNull();
    const say = (text: string) => withClient(at, (client) => client.query("insert into said values ($1)", [text]));
    await say("before");
    await new Promise((next) => setTimeout(next, 1_200));
    const moment = new Date();
    await new Promise((next) => setTimeout(next, 1_200));
    await say("after");
    await withClient(at, (client) => client.query("select pg_switch_wal()"));
    await archived.stop();

    const { before } = await restoreAt(own, folder, moment);
    expect(before).not.toBeNull();
    archived = await embeddedPostgres(own);
    const back = await withClient(await archived.open("hearth"), (client) => client.query("select text from said"));
    expect(back.rows).toEqual([{ text: "before" }]);
    await archived.stop();
    await expect(restoreAt(own, folder, new Date("2001-01-01"))).rejects.toThrow(/begins after/);
    for (const path of [own, folder]) rmSync(path, { recursive: true, force: true });
  });
});

describe("an update of the program", () => {
  const LOG = "# Changes\n\n## 9.9.0\n\n- New.\n\n## 9.8.0\n\n- Old.\n";

  it("takes a backup before a newer program changes the data of an older one, once, and says what changed", async () => {
    // Data of which nobody knows the version, or of this version, is left as it is.
    expect(await beforeUpdate(home, url, "9.9.0", LOG)).toBeNull();
    keepVersion(home, "9.9.0");
    expect(await beforeUpdate(home, url, "9.9.0", LOG)).toBeNull();
    keepVersion(home, "9.8.0");
    const update = await beforeUpdate(home, url, "9.9.0", LOG);
    expect(update?.changes).toBe("## 9.9.0\n\n- New.");
    const before = await print();
    await rename("changed by the newer one");
    await restore(url, update?.file ?? "");
    expect(await print()).toEqual(before);
    // A start that broke off is not backed up over what was there before it.
    const made = statSync(update?.file ?? "").mtimeMs;
    await beforeUpdate(home, url, "9.9.0", LOG);
    expect(statSync(update?.file ?? "").mtimeMs).toBe(made);
  });
});
