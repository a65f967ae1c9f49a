import { spawn } from "node:child_process";
import { chmodSync, existsSync, mkdtempSync, renameSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";

/** Returns whether nothing listens on this loopback port. */
const portIsFree = (port: number): Promise<boolean> =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.once("error", () => resolve(false));
    probe.listen(port, "127.0.0.1", () => probe.close(() => resolve(true)));
  });

/** A free loopback port; the first free one from `from` on where that is given. */
export async function freePort(from?: number): Promise<number> {
  if (from !== undefined) {
    for (let port = from; port < from + 200; port++) if (await portIsFree(port)) return port;
    throw new Error(`No port between ${from} and ${from + 199} is free.`);
  }
  return new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, "127.0.0.1", () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });
}

/** Runs a command to its end and gives its exit code and output; `show` passes the output through. */
export function run(
  command: string,
  args: string[],
  options: { env?: NodeJS.ProcessEnv; show?: boolean; cwd?: string } = {},
): Promise<{ code: number; output: string }> {
  return new Promise((resolve) => {
    const child = spawn(command, args, { env: options.env ?? process.env, cwd: options.cwd, stdio: options.show ? "inherit" : ["ignore", "pipe", "pipe"] });
    let output = "";
    child.stdout?.on("data", (data) => (output += data));
    child.stderr?.on("data", (data) => (output += data));
    child.on("error", (error) => resolve({ code: 127, output: output + error.message }));
    child.on("close", (code) => resolve({ code: code ?? 1, output }));
  });
}

export const isAlive = (pid: number): boolean => {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === "EPERM";
  }
};

/** Waits until `check` holds; throws what `late` says after `milliseconds`. */
export async function until(check: () => Promise<boolean> | boolean, milliseconds: number, late: string): Promise<void> {
  const end = Date.now() + milliseconds;
  while (!(await check())) {
    if (Date.now() > end) throw new Error(late);
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

/** An error whose message is all that a person needs to read: no stack is printed. */
export class Plain extends Error {}

/**
 * Returns a command that ends with its parent, however that ends: the kernel sends it the signal. Both are of Debian's base.
 */
export const withParent = (signal: "INT" | "TERM", command: string, args: string[]): [string, string[]] =>
  existsSync("/usr/bin/setpriv") ? ["/usr/bin/setpriv", ["--pdeathsig", signal, "--", command, ...args]] : [command, args];

/** Returns a function that counts unexpected ends of a process: true while they are few enough to start it again. */
export function fewEnds(most: number, withinMs: number): () => boolean {
  const ends: number[] = [];
  return () => {
    ends.push(Date.now());
    while (ends.length > 0 && Date.now() - (ends[0] as number) > withinMs) ends.shift();
    return ends.length <= most;
  };
}

/** Writes a file whole or not at all, for its owner only. */
export function writeWhole(file: string, text: string): void {
  const fresh = `${file}.${process.pid}.new`;
  writeFileSync(fresh, text, { mode: 0o600 });
  renameSync(fresh, file);
}

/** A new data directory that goes with its run; the database's own user may pass through it. */
export function passingHome(what: string): string {
  const home = mkdtempSync(join(tmpdir(), `hearth-${what}-`));
  chmodSync(home, 0o711);
  return home;
}
