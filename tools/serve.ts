import { spawn } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { loadDemo } from "../demo/load";
import { migrateDatabase } from "../web/data/migrate";
import { ensureBuild } from "./build";
import { type Embedded, embeddedPostgres } from "./postgres";
import { freePort, isAlive, until } from "./processes";

const ROOT = new URL("..", import.meta.url).pathname;

export interface Served {
  url: string;
  databaseUrl: string;
  database: Embedded | null;
  stop(): Promise<void>;
  /** Resolves with the exit code should the web server end by itself. */
  ended: Promise<number>;
}

/** There are no accounts yet, so nothing but this machine may reach the server. */
export function refuseOtherAddresses(host = process.env.HEARTH_HOST ?? process.env.HOST): void {
  if (host && !["127.0.0.1", "localhost", "::1"].includes(host)) {
    throw new Error(
      `Hearth Jar will not listen on ${host}: it has no accounts yet, so anybody who could reach it could change your records. It listens on 127.0.0.1 only.`,
    );
  }
}

/** Takes the data directory for this process; two programs on one set of data would spoil it. */
function takeHome(home: string): () => void {
  mkdirSync(home, { recursive: true });
  const file = join(home, "running.json");
  if (existsSync(file)) {
    const other = JSON.parse(readFileSync(file, "utf8") || "{}") as { pid?: number; web?: number; url?: string };
    const named = (pid: number | undefined, what: string) =>
      pid !== undefined && isAlive(pid) && existsSync(`/proc/${pid}/cmdline`) && readFileSync(`/proc/${pid}/cmdline`, "utf8").includes(what);
    if (other.pid !== process.pid && named(other.pid, "hearth.ts")) {
      throw new Error(
        `Hearth Jar is already running on this data (${home})${other.url ? ` at ${other.url}` : ""}. Set HEARTH_HOME to another directory to run a second one.`,
      );
    }
    if (other.web !== undefined && named(other.web, "next")) process.kill(other.web, "SIGTERM");
  }
  writeFileSync(file, JSON.stringify({ pid: process.pid }));
  return () => rmSync(file, { force: true });
}

export interface ServeOptions {
  home: string;
  /** The port to begin looking from. */
  port?: number;
  dev?: boolean;
  /** Load the demo where there is none. */
  demo?: boolean;
  /** Start the demo anew. */
  fresh?: boolean;
  /** Ignore DATABASE_URL: tests never touch a database that is not their own. */
  ownDatabase?: boolean;
  clockFile?: string;
}

/** Brings up database, schema, demo data and web server; gives the address. */
export async function serve(options: ServeOptions): Promise<Served> {
  refuseOtherAddresses();
  const giveBack = takeHome(options.home);
  if (!options.dev) await ensureBuild();
  const external = options.ownDatabase ? undefined : process.env.DATABASE_URL;
  if (external && options.fresh)
    throw new Error("--fresh would erase a database that Hearth Jar did not make (DATABASE_URL is set). Empty it yourself, or unset DATABASE_URL.");
  const database = external ? null : await embeddedPostgres(options.home);
  try {
    if (options.fresh) await database?.drop("hearth");
    const databaseUrl = external ?? (await database?.open("hearth")) ?? "";
    await migrateDatabase(databaseUrl);
    if (options.demo) await loadDemo(databaseUrl, options.clockFile ? new Date(readFileSync(options.clockFile, "utf8").trim()) : new Date());

    const wanted = options.port ?? 4380;
    const port = await freePort(wanted);
    if (port !== wanted && options.port !== undefined) console.log(`Port ${wanted} is taken; using ${port}.`);
    const url = `http://127.0.0.1:${port}`;
    const { version } = JSON.parse(readFileSync(join(ROOT, "package.json"), "utf8")) as { version: string };
    const web = spawn(
      process.execPath,
      [join(ROOT, "node_modules/next/dist/bin/next"), options.dev ? "dev" : "start", join(ROOT, "web"), "-H", "127.0.0.1", "-p", String(port)],
      {
        cwd: ROOT,
        // A group of its own: Ctrl-C reaches this process, which then stops the parts in order.
        detached: true,
        stdio: options.dev ? "inherit" : ["ignore", "ignore", "inherit"],
        env: {
          ...process.env,
          NODE_ENV: options.dev ? "development" : "production",
          DATABASE_URL: databaseUrl,
          HEARTH_VERSION: version,
          ...(options.clockFile ? { HEARTH_CLOCK_FILE: options.clockFile } : {}),
        },
      },
    );
    const ended = new Promise<number>((resolve) => web.once("exit", (code) => resolve(code ?? 1)));
    writeFileSync(join(options.home, "running.json"), JSON.stringify({ pid: process.pid, web: web.pid, url }));
    await until(
      async () => {
        if (web.exitCode !== null) throw new Error("The web server ended at its start.");
        return fetch(`${url}/api/health`).then(
          (answer) => answer.ok,
          () => false,
        );
      },
      60_000,
      "The web server did not answer within a minute.",
    );
    return {
      url,
      databaseUrl,
      database,
      ended,
      stop: async () => {
        if (web.exitCode === null && web.pid) {
          try {
            process.kill(-web.pid, "SIGTERM");
          } catch {
            // It ended by itself in between.
          }
          await Promise.race([ended, new Promise((resolve) => setTimeout(resolve, 5_000))]);
          if (web.exitCode === null && web.signalCode === null) process.kill(-web.pid, "SIGKILL");
        }
        await database?.stop();
        giveBack();
      },
    };
  } catch (error) {
    await database?.stop();
    giveBack();
    throw error;
  }
}
