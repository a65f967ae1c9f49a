import { existsSync, mkdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { backup } from "./backup";
import { writeWhole } from "./processes";

const FILE = "program-version";

/** The version that last worked with this data; null if that is not known. */
export function versionOf(home: string): string | null {
  try {
    return readFileSync(join(home, FILE), "utf8").trim() || null;
  } catch {
    return null;
  }
}

const parts = (version: string) => version.split(".").map(Number);
/** Returns whether the first is the newer of two versions, part by part. */
export function isNewer(a: string, b: string): boolean {
  const [left, right] = [parts(a), parts(b)];
  for (let at = 0; at < 3; at++) if ((left[at] ?? 0) !== (right[at] ?? 0)) return (left[at] ?? 0) > (right[at] ?? 0);
  return false;
}

/** Returns what the changelog says of the versions after `from` up to `to`, as it stands there. */
export function changesBetween(changelog: string, from: string, to: string): string {
  return changelog
    .split(/^(?=## )/m)
    .filter((section) => {
      const version = /^## (\d+\.\d+\.\d+)/.exec(section)?.[1];
      return version !== undefined && isNewer(version, from) && !isNewer(version, to);
    })
    .join("")
    .trim();
}

/**
 * Before a newer program changes the data of an older one: takes a backup, read back, and says where it is. Gives what has
 * changed since, or null if the data is new or of this version.
 */
export async function beforeUpdate(home: string, databaseUrl: string, version: string, changelog: string): Promise<{ file: string; changes: string } | null> {
  const before = versionOf(home);
  if (before === null || !isNewer(version, before)) return null;
  const folder = join(home, "backups");
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const file = join(folder, `before-${version}.dump`);
  if (!existsSync(file)) await backup(databaseUrl, file);
  return { file, changes: changesBetween(changelog, before, version) };
}

export const keepVersion = (home: string, version: string): void => writeWhole(join(home, FILE), version);
