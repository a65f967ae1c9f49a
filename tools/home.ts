import { chmodSync, existsSync, mkdirSync, readFileSync, rmSync, statSync } from "node:fs";
import { join } from "node:path";
import { isAlive, Plain, writeWhole } from "./processes";

interface Running {
  pid?: number;
  web?: number;
  url?: string;
}

/** Returns what a running program wrote of itself; a file that was torn or spoiled says nothing. */
export function readRunning(home: string): Running {
  try {
    const read = JSON.parse(readFileSync(join(home, "running.json"), "utf8")) as Running | null;
    return read && typeof read === "object" ? read : {};
  } catch {
    return {};
  }
}

export const writeRunning = (home: string, running: Running): void => writeWhole(join(home, "running.json"), JSON.stringify(running));

/** Returns whether a process of this number runs, and is what it is taken for. */
const isOurs = (pid: number | undefined, what: string): pid is number =>
  typeof pid === "number" && isAlive(pid) && existsSync(`/proc/${pid}/cmdline`) && readFileSync(`/proc/${pid}/cmdline`, "utf8").includes(what);

/** What `./hearth` runs, and what earlier versions ran. */
const PROGRAMS = [".hearth/tools/hearth.mjs", "tools/hearth.ts"];

/** Makes the data directory, or says in one sentence why it cannot be used. Only its owner reads in it; as root the database's user passes through. */
export function makeHome(home: string): void {
  try {
    mkdirSync(home, { recursive: true });
    if (!statSync(home).isDirectory()) throw new Error("it is not a directory");
    chmodSync(home, process.getuid?.() === 0 ? 0o711 : 0o700);
    writeWhole(join(home, "written"), new Date().toISOString());
  } catch (error) {
    const { code, message } = error as NodeJS.ErrnoException;
    const why =
      code === "ENOSPC"
        ? "the disk is full: free some space"
        : code === "EACCES" || code === "EPERM" || code === "EROFS"
          ? "it is not writable: choose another with HEARTH_HOME, or make it yours"
          : code === "ENOTDIR" || code === "EEXIST"
            ? "there is a file of that name: choose another with HEARTH_HOME"
            : message;
    throw new Plain(`The data directory ${home} cannot be used: ${why}.`);
  }
}

/** Takes the data directory for this process; two programs on one set of data would spoil it. Gives the way to give it back. */
export function takeHome(home: string): () => void {
  makeHome(home);
  const other = readRunning(home);
  if (other.pid !== process.pid && PROGRAMS.some((name) => isOurs(other.pid, name))) {
    throw new Plain(
      `Hearth Jar is already running on this data (${home})${other.url ? ` at ${other.url}` : ""}. Set HEARTH_HOME to another directory to run a second one.`,
    );
  }
  // Earlier versions served from the source.
  if (isOurs(other.web, ".next/main.mjs") || isOurs(other.web, "serve/main.ts")) process.kill(other.web, "SIGTERM");
  writeRunning(home, { pid: process.pid });
  return () => rmSync(join(home, "running.json"), { force: true });
}

/** Returns the port that this data is served on: browsers keep what waits under the address, so it stays the same. */
export function keptPort(home: string): number | null {
  try {
    const port = Number(readFileSync(join(home, "port"), "utf8"));
    return Number.isInteger(port) && port > 0 && port < 65_536 ? port : null;
  } catch {
    return null;
  }
}
export const keepPort = (home: string, port: number): void => writeWhole(join(home, "port"), String(port));
