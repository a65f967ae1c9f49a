import { spawnSync } from "node:child_process";
import { chmodSync, chownSync, cpSync, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { account, binaries, clusterPlace, embeddedPostgres, withClient } from "./postgres";
import { Plain, run } from "./processes";

const WEEK_MS = 7 * 86_400_000;

/** Makes a folder for the log of all changes, which the database's own user writes. */
export function makeArchive(folder: string): void {
  const as = account();
  for (const part of [folder, join(folder, "wal"), join(folder, "base")]) {
    mkdirSync(part, { recursive: true, mode: 0o700 });
    chmodSync(part, 0o700);
    if (as.uid !== undefined && as.gid !== undefined) chownSync(part, as.uid, as.gid);
  }
  if (spawnSync("test", ["-w", join(folder, "wal")], { ...as, cwd: "/" }).status !== 0)
    throw new Plain(`The archive ${folder} cannot be written by the database's own user: choose a folder that it can reach.`);
}

/** Returns what the server is told so that it copies its log away, at the latest once a minute; a copy appears whole or not at all. */
export const archiveSettings = (folder: string): string[] => [
  "-c",
  "archive_mode=on",
  "-c",
  "archive_timeout=60",
  "-c",
  `archive_command=test -f "${folder}/wal/%f" || { cp "%p" "${folder}/wal/.%f" && mv "${folder}/wal/.%f" "${folder}/wal/%f"; }`,
];

/** Copies the whole cluster, where the newest copy is older than a week: changes are played back onto it. */
export async function keepBase(url: string, folder: string, now = new Date()): Promise<string | null> {
  const bases = readdirSync(join(folder, "base"))
    .filter((name) => /^\d{8}T\d{6}Z$/.test(name))
    .sort();
  const stamp = now.toISOString().replace(/[-:]|\.\d+/g, "");
  const newest = bases.at(-1);
  if (newest && now.getTime() - momentOf(newest) < WEEK_MS) return null;
  const at = new URL(url);
  const place = join(folder, "base", stamp);
  const { code, output } = await run(
    join(binaries(), "pg_basebackup"),
    ["-h", at.hostname, "-p", at.port, "-U", at.username, "-D", `${place}.new`, "-X", "stream", "-c", "fast"],
    { env: { ...process.env, PGPASSWORD: at.password } },
  );
  if (code !== 0) throw new Plain(`The copy for the archive failed:\n${output.trim()}`);
  renameSync(`${place}.new`, place);
  return place;
}

const momentOf = (stamp: string): number => Date.parse(stamp.replace(/(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)Z/, "$1-$2-$3T$4:$5:$6Z"));

/**
 * Brings a data directory whose program is stopped back to how it stood at a moment: the last copy before it, and the
 * changes until then. What was there is kept beside it, and named.
 */
export async function restoreAt(home: string, folder: string, at: Date): Promise<{ from: string; before: string | null }> {
  if (!existsSync(join(folder, "base"))) throw new Plain(`${folder} is no archive: it holds no copy.`);
  const base = readdirSync(join(folder, "base"))
    .filter((name) => /^\d{8}T\d{6}Z$/.test(name) && momentOf(name) <= at.getTime())
    .sort()
    .at(-1);
  if (!base) throw new Plain(`The archive in ${folder} begins after ${at.toISOString()}.`);
  const as = account();
  const place = clusterPlace(home, as);
  let before: string | null = null;
  if (existsSync(place)) {
    before = `${place}-before-${new Date().toISOString().replace(/[-:]|\.\d+/g, "")}`;
    renameSync(place, before);
  }
  cpSync(join(folder, "base", base), place, { recursive: true });
  const own = (path: string) => {
    if (as.uid !== undefined && as.gid !== undefined) chownSync(path, as.uid, as.gid);
  };
  const all = (path: string): void => {
    own(path);
    for (const dirent of readdirSync(path, { withFileTypes: true })) {
      const inner = join(path, dirent.name);
      if (dirent.isDirectory()) all(inner);
      else own(inner);
    }
  };
  writeFileSync(join(place, "recovery.signal"), "");
  const auto = join(place, "postgresql.auto.conf");
  writeFileSync(
    auto,
    `${existsSync(auto) ? readFileSync(auto, "utf8") : ""}\nrestore_command = 'cp "${folder}/wal/%f" "%p"'\nrecovery_target_time = '${at.toISOString().replace("T", " ").replace("Z", "+00")}'\nrecovery_target_action = 'promote'\n`,
  );
  chmodSync(place, 0o700);
  all(place);
  const server = await embeddedPostgres(home);
  try {
    await withClient(await server.open("postgres"), async (client) => {
      for (let tries = 0; ; tries++) {
        const { rows } = await client.query<{ still: boolean }>("select pg_is_in_recovery() as still");
        if (!rows[0]?.still) break;
        if (tries > 600) throw new Plain("The archived changes could not be replayed within a minute.");
        await new Promise((next) => setTimeout(next, 100));
      }
      // Done once: a later start begins from what is here.
      for (const name of ["restore_command", "recovery_target_time", "recovery_target_action"]) await client.query(`alter system reset ${name}`);
    });
  } finally {
    await server.stop();
  }
  return { from: base, before };
}
