import { randomBytes } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import type pg from "pg";
import { migrateDatabase } from "../web/data/migrate";
import { binaries, type Embedded, PROGRAM_ROLE, withClient } from "./postgres";
import { Plain, run } from "./processes";

/** Returns the database as PostgreSQL's own programs are told of it: the password in their environment, not among their arguments. */
function toolOf(url: string, name: string) {
  const at = new URL(url);
  return {
    args: ["-h", at.hostname, "-p", at.port || "5432", "-U", decodeURIComponent(at.username), "-d", name],
    env: { ...process.env, PGPASSWORD: decodeURIComponent(at.password) },
  };
}
const nameOf = (url: string) => decodeURIComponent(new URL(url).pathname.slice(1));
const withName = (url: string, name: string) => Object.assign(new URL(url), { pathname: `/${name}` }).href;

/** Returns the row count and a hash of the rows of each table: two databases have the same fingerprint only if all their rows are the same. */
export async function fingerprint(client: pg.Client): Promise<Record<string, string>> {
  const { rows } = await client.query<{ name: string }>(
    "select quote_ident(schemaname) || '.' || quote_ident(tablename) as name from pg_tables where schemaname in ('public', 'drizzle') order by 1",
  );
  const out: Record<string, string> = {};
  for (const { name } of rows) {
    const [row] = (
      await client.query<{ says: string }>(
        `select count(*) || ' ' || coalesce(md5(string_agg(md5(t::text), '' order by md5(t::text))), '') as says from ${name} t`,
      )
    ).rows;
    out[name] = row?.says ?? "";
  }
  return out;
}

async function fill(url: string, file: string, name: string): Promise<void> {
  const { args, env } = toolOf(url, name);
  const { code, output } = await run(join(binaries(), "pg_restore"), [...args, "--no-owner", "--no-privileges", "--exit-on-error", file], { env });
  if (code !== 0) throw new Plain(`${file} cannot be read back as a backup:\n${output.trim().split("\n").slice(-3).join("\n")}`);
}

/** Returns what differs between two fingerprints, table by table. */
const differing = (a: Record<string, string>, b: Record<string, string>) =>
  [...new Set([...Object.keys(a), ...Object.keys(b)])].filter((name) => a[name] !== b[name]);

/**
 * Writes the whole database to one file while it goes on being used, reads the file back into a scratch database, and
 * compares every table with what was there at the moment of the backup. The file appears under its name only then.
 */
export async function backup(url: string, file: string): Promise<{ tables: number; bytes: number }> {
  const fresh = `${file}.${process.pid}.new`;
  mkdirSync(dirname(resolve(file)), { recursive: true, mode: 0o700 });
  const scratch = `hearth_check_${randomBytes(6).toString("hex")}`;
  try {
    return await withClient(url, async (client) => {
      await client.query("begin isolation level repeatable read read only");
      const { rows } = await client.query<{ id: string }>("select pg_export_snapshot() as id");
      const { args, env } = toolOf(url, nameOf(url));
      const { code, output } = await run(join(binaries(), "pg_dump"), [...args, "-Fc", `--snapshot=${rows[0]?.id}`, "-f", fresh], { env });
      if (code !== 0) throw new Plain(`The backup failed:\n${output.trim()}`);
      const there = await fingerprint(client);
      await client.query("commit");
      await withClient(withName(url, "postgres"), (other) => other.query(`create database "${scratch}"`));
      await fill(url, fresh, scratch);
      const back = await withClient(withName(url, scratch), fingerprint);
      const off = differing(there, back);
      if (off.length > 0) throw new Plain(`The backup was read back and differs in ${off.join(", ")}. It was not kept.`);
      renameSync(fresh, file);
      return { tables: Object.keys(there).length, bytes: statSync(file).size };
    });
  } finally {
    rmSync(fresh, { force: true });
    await withClient(withName(url, "postgres"), (other) => other.query(`drop database if exists "${scratch}" with (force)`)).catch(() => undefined);
  }
}

/** Nothing is written from now on, or is again; who is in is let go, and comes back by itself. */
async function setReadOnly(server: string, name: string, on: boolean): Promise<void> {
  await withClient(server, async (client) => {
    await client.query(on ? `alter database "${name}" set default_transaction_read_only = on` : `alter database "${name}" reset default_transaction_read_only`);
    await client.query("select pg_terminate_backend(pid) from pg_stat_activity where datname = $1", [name]);
  });
}

/**
 * Puts a backup in the place of the database, also while the program runs: it is read into a database beside it, brought
 * up to this version, and then the two change names. Meanwhile nothing is written, so that no entry is acknowledged that goes with the old one: devices keep
 * theirs. What was there before is kept under `before`, a name with its time.
 */
export async function restore(url: string, file: string, program: string = PROGRAM_ROLE, now = new Date()): Promise<{ tables: number; before: string }> {
  if (!existsSync(file)) throw new Plain(`There is no file ${file}.`);
  const name = nameOf(url);
  const [fresh, before] = [`${name}_restoring`, `${name}_before_restore_${now.toISOString().slice(0, 19).replace(/[-:]/g, "").toLowerCase()}`];
  const server = withName(url, "postgres");
  await withClient(server, async (client) => {
    await client.query(`drop database if exists "${fresh}" with (force)`);
    await client.query(`create database "${fresh}"`);
  });
  try {
    await setReadOnly(server, name, true);
    await fill(url, file, fresh);
    await migrateDatabase(withName(url, fresh), program);
  } catch (error) {
    await withClient(server, (client) => client.query(`drop database if exists "${fresh}" with (force)`));
    await setReadOnly(server, name, false);
    throw error;
  }
  const tables = Object.keys(await withClient(withName(url, fresh), fingerprint)).length;
  await withClient(server, async (client) => {
    // Nobody comes in between the two names; who was in is thrown out, and comes back by itself.
    await client.query(`alter database "${name}" allow_connections false`);
    try {
      await client.query("select pg_terminate_backend(pid) from pg_stat_activity where datname = $1", [name]);
      for (let tries = 0; ; tries++) {
        try {
          await client.query(`alter database "${name}" rename to "${before}"`);
          break;
        } catch (error) {
          if ((error as { code?: string }).code !== "55006" || tries > 50) throw error;
          await new Promise((next) => setTimeout(next, 100));
        }
      }
      await client.query(`alter database "${fresh}" rename to "${name}"`);
      await client.query(`alter database "${before}" allow_connections true`);
      await client.query(`alter database "${before}" reset default_transaction_read_only`);
    } catch (error) {
      await client.query(`alter database "${name}" allow_connections true`).catch(() => undefined);
      await client.query(`alter database "${name}" reset default_transaction_read_only`).catch(() => undefined);
      throw error;
    }
  });
  return { tables, before };
}

const DAY_MS = 86_400_000;
const DAILY = /^hearth-(\d{4}-\d\d-\d\d)\.dump$/;

/** Of daily backups, those to let go: kept are the last seven, then one a week for five weeks, then one a month for a year. */
export function outlived(names: readonly string[], today: string): string[] {
  const days = names
    .flatMap((name) => DAILY.exec(name)?.[1] ?? [])
    .sort()
    .reverse();
  const kept = new Set(days.slice(0, 7));
  const age = (day: string) => Math.floor((Date.parse(today) - Date.parse(day)) / DAY_MS);
  const first = (most: number, span: (day: string) => string) => {
    const seen = new Set<string>();
    for (const day of days) {
      if (age(day) > most || seen.has(span(day))) continue;
      seen.add(span(day));
      kept.add(day);
    }
  };
  first(35, (day) => String(Math.floor(Date.parse(day) / (7 * DAY_MS))));
  first(366, (day) => day.slice(0, 7));
  return names.filter((name) => DAILY.test(name) && !kept.has(DAILY.exec(name)?.[1] ?? ""));
}

/** Writes today's backup into the folder where there is none yet, and lets old ones go by their age. */
export async function backupDaily(url: string, folder: string, now = new Date()): Promise<string | null> {
  const today = now.toISOString().slice(0, 10);
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const file = join(folder, `hearth-${today}.dump`);
  if (existsSync(file)) return null;
  await backup(url, file);
  for (const name of outlived(readdirSync(folder), today)) rmSync(join(folder, name), { force: true });
  return file;
}

const FIRST_MS = 60_000;
const AGAIN_MS = 3_600_000;
/** Writes a backup every day while the program runs; reports failures and tries again. Returns a function that stops it. */
export function keepDaily(url: string, folder: string): () => void {
  let timer: NodeJS.Timeout;
  const look = () =>
    void backupDaily(url, folder)
      .catch((error: Error) => console.error(`Today's backup failed: ${error.message}`))
      .finally(() => {
        timer = setTimeout(look, AGAIN_MS);
      });
  timer = setTimeout(look, FIRST_MS);
  return () => clearTimeout(timer);
}

/** Returns where the running or stopped program's database is reached, for as long as it is used. */
export async function withDatabase<T>(reach: () => Promise<{ url: string; database: Embedded | null }>, use: (url: string) => Promise<T>): Promise<T> {
  const { url, database } = await reach();
  try {
    return await use(url);
  } finally {
    await database?.stop();
  }
}
