import { mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import pg from "pg";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { loadDemo } from "../demo/load";
import { openDatabase } from "../web/data/client";
import { migrateDatabase } from "../web/data/migrate";
import { archiveSettings, keepBase, makeArchive, restoreAt } from "./archive";
import { backup, backupDaily, fingerprint, outlived, restore } from "./backup";
import { type Embedded, embeddedPostgres, PROGRAM_ROLE } from "./postgres";
import { passingHome } from "./processes";
import { beforeUpdate, keepVersion } from "./versions";

let home: string;
let server: Embedded;
let url: string;
const asking = async <T>(at: string, use: (client: pg.Client) => Promise<T>) => {
  const client = new pg.Client({ connectionString: at });
  client.on("error", () => {});
  await client.connect();
  try {
    return await use(client);
  } finally {
    await client.end().catch(() => {});
  }
};
const print = () => asking(url, fingerprint);
const rename = (name: string) => asking(url, (client) => client.query("update workshop set name = $1", [name]));

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
    await pool.query("insert into person (workshop_id, id, name) select id, gen_random_uuid(), 'Later' from workshop");
    await rename("Changed since");
    expect(await print()).not.toEqual(before);
    await restore(url, file);
    expect(await print()).toEqual(before);
    // Who was working goes on by itself, with the same rights and no more.
    expect((await pool.query("select name from person where name = 'Later'")).rows).toEqual([]);
    await expect(pool.query("delete from batch_event")).rejects.toMatchObject({ code: "42501" });
    await pool.end();
    // What was there before the restore is not lost.
    const old = await asking(url.replace(/hearth$/, "hearth_before_restore"), (client) => client.query("select name from workshop"));
    expect(old.rows).toEqual([{ name: "Changed since" }]);
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
    const { rows } = await asking(url, (client) =>
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
    await asking(at, (client) => client.query("create table said (text text)"));
    expect(await keepBase(at, folder)).toContain("base");
    expect(await keepBase(at, folder)).toBeNull();
    const say = (text: string) => asking(at, (client) => client.query("insert into said values ($1)", [text]));
    await say("before");
    await new Promise((next) => setTimeout(next, 1_200));
    const moment = new Date();
    await new Promise((next) => setTimeout(next, 1_200));
    await say("after");
    await asking(at, (client) => client.query("select pg_switch_wal()"));
    await archived.stop();

    const { before } = await restoreAt(own, folder, moment);
    expect(before).not.toBeNull();
    archived = await embeddedPostgres(own);
    const back = await asking(await archived.open("hearth"), (client) => client.query("select text from said"));
    expect(back.rows).toEqual([{ text: "before" }]);
    await archived.stop();
    await expect(restoreAt(own, folder, new Date("2001-01-01"))).rejects.toThrow(/begins after/);
    for (const one of [own, folder]) rmSync(one, { recursive: true, force: true });
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
