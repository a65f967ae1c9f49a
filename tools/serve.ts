import { type ChildProcess, spawn } from "node:child_process";
import { readFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { openDatabase } from "../web/data/client";
import { migrateDatabase } from "../web/data/migrate";
import { freshCode, hashOf } from "../web/server/auth/secrets";
import { archiveSettings, keepBase, makeArchive } from "./archive";
import { keepDaily } from "./backup";
import { ensureBuild } from "./build";
import { keepPort, keptPort, takeHome, writeRunning } from "./home";
import { isWell, type Listening, listeningEnv } from "./listen";
import { type Embedded, embeddedPostgres, PASSING } from "./postgres";
import { fewEnds, freePort, until, withParent } from "./processes";
import { ROOT } from "./root";
import { beforeUpdate, keepVersion } from "./versions";

export interface Served {
  url: string;
  /** What the first account is made with, where people sign in and nobody has one. */
  firstCode: string | null;
  databaseUrl: string;
  /** The same as the program reaches it. */
  programUrl: string;
  database: Embedded | null;
  stop(): Promise<void>;
  /** Resolves with the exit code should the web server end by itself. */
  ended: Promise<number>;
}

/** Others reach the server only where that was asked for by --listen, which demands a sign-in: an address left in the environment does not. */
export function refuseOtherAddresses(host = process.env.HEARTH_HOST ?? process.env.HOST): void {
  if (host && !["127.0.0.1", "localhost", "::1"].includes(host)) {
    throw new Error(
      `Hearth Jar will not listen on ${host} because of HOST: anybody who could reach it could change your records. ./hearth start --listen ${host} opens it, with a sign-in.`,
    );
  }
}

/** A code for the first account, where nobody has one yet; only its hash is handed on. */
async function firstCode(databaseUrl: string): Promise<{ code: string; hash: string } | null> {
  const { pool } = openDatabase(databaseUrl);
  try {
    const { rowCount } = await pool.query("select 1 from auth_user limit 1");
    if (rowCount) return null;
    const code = freshCode(3);
    return { code, hash: hashOf(code) };
  } finally {
    await pool.end();
  }
}

/** A web server that ends oftener than this is not started again. */
const MAX_ENDS = 4;
const ENDS_WITHIN_MS = 120_000;

export interface ServeOptions {
  home: string;
  /** The port to begin looking from. */
  port?: number;
  dev?: boolean;
  /** The folder that the program was built in; the checkout's own, which is built where it is not current, where none is given. */
  program?: string;
  /** Work on this database of another program that runs: a second server beside it. */
  beside?: { databaseUrl: string; programUrl: string };
  /** The data passes with the run. */
  passing?: boolean;
  /** Load the demo where there is none. */
  demo?: boolean;
  /** So many years of a busy workshop lie behind the demo. */
  years?: number;
  /** Start the demo anew. */
  fresh?: boolean;
  /** Ignore DATABASE_URL: tests never touch a database that is not their own. */
  ownDatabase?: boolean;
  clockFile?: string;
  /** Write a daily backup, and an archive where HEARTH_ARCHIVE names its folder. */
  keepBackups?: boolean;
  /** Keep which version worked with the data, and take a backup before a newer one does. */
  keepVersion?: boolean;
  /** Others may reach it, and say who they are. */
  listening?: Listening | null;
  /** The port to begin looking from where this data was never served before. */
  usualPort?: number;
}

/** Loads the demo where there is none, and says so. */
async function loadDemoData(databaseUrl: string, { years, clockFile, passing }: ServeOptions): Promise<void> {
  if (!passing)
    console.log(
      years
        ? `Generating a demo workshop that is ${years} ${years === 1 ? "year" : "years"} old, unless it is there already: about a quarter of a minute for each year`
        : "Loading the demo workshop, unless it is there already: a few seconds",
    );
  const now = clockFile ? new Date(readFileSync(clockFile, "utf8").trim()) : new Date();
  const { loadDemo } = await import("../demo/load");
  await loadDemo(databaseUrl, now, years ? { years, onYear: (year) => console.log(`Year ${year} of ${years}`) } : true);
}

/** The port to listen on: the one that was asked for or that this data was served on before, or the next that is free, which is said. */
async function choosePort(options: ServeOptions): Promise<number> {
  const usual = keptPort(options.home);
  const wanted = options.port ?? usual ?? options.usualPort ?? 4380;
  const port = await freePort(wanted);
  if (port !== wanted)
    console.log(
      `Port ${wanted} is taken; using ${port}.${usual === wanted ? " Entries waiting in a browser at the old address are sent once Hearth Jar is served there again." : ""}`,
    );
  if (usual === null || (options.port !== undefined && port === wanted)) keepPort(options.home, port);
  return port;
}

/** Runs the web server, and starts it again should it end; after it ended too often `ended` resolves with 1. */
function superviseWeb(home: string, folder: string, url: string, [command, args]: [string, string[]], env: NodeJS.ProcessEnv, isDev: boolean) {
  let web: ChildProcess | undefined;
  let running = true;
  let end: (code: number) => void = () => undefined;
  const ended = new Promise<number>((resolve) => {
    end = resolve;
  });
  const few = fewEnds(MAX_ENDS, ENDS_WITHIN_MS);
  const launch = () => {
    web = spawn(command, args, {
      cwd: folder,
      // A group of its own: Ctrl-C reaches this process, which then stops the parts in order.
      detached: true,
      stdio: isDev ? "inherit" : ["ignore", "ignore", "inherit"],
      env,
    });
    writeRunning(home, { pid: process.pid, ...(web.pid ? { web: web.pid } : {}), url });
    web.once("exit", () => {
      if (!running) return;
      if (few()) {
        console.error("The web server stopped and is being restarted.");
        setTimeout(() => running && launch(), 500);
      } else {
        console.error(
          `The web server stopped ${MAX_ENDS + 1} times within ${ENDS_WITHIN_MS / 60_000} minutes, so it is not restarted again. See its messages above.`,
        );
        end(1);
      }
    });
  };
  const stop = async () => {
    running = false;
    const child = web;
    if (child && child.exitCode === null && child.signalCode === null && child.pid) {
      const gone = new Promise((resolve) => child.once("exit", resolve));
      const signal = (name: NodeJS.Signals) => {
        try {
          process.kill(-(child.pid as number), name);
        } catch {
          // It ended by itself in between.
        }
      };
      signal("SIGTERM");
      await Promise.race([gone, new Promise((resolve) => setTimeout(resolve, 5_000))]);
      if (child.exitCode === null && child.signalCode === null) signal("SIGKILL");
    }
  };
  return { start: launch, stop, ended, end };
}

/** Brings up database, schema, demo data and web server; gives the address. */
export async function serve(options: ServeOptions): Promise<Served> {
  refuseOtherAddresses();
  const external = options.beside?.programUrl ?? (options.ownDatabase ? undefined : process.env.DATABASE_URL || undefined);
  if (external && options.fresh)
    throw new Error("--fresh would erase a database that Hearth Jar did not make (DATABASE_URL is set). Empty it yourself, or unset DATABASE_URL.");
  const giveBack = takeHome(options.home);
  let halt: () => Promise<void> = async () => undefined;
  let database: Embedded | null = null;
  try {
    if (!options.dev && !options.program) await ensureBuild();
    const program = options.program ?? ROOT;
    const say = (text: string) => options.passing || console.log(text);
    if (!external) say("Starting the database");
    const archive = external || !options.keepBackups ? undefined : process.env.HEARTH_ARCHIVE;
    if (archive) makeArchive(resolve(archive));
    database = external ? null : await embeddedPostgres(options.home, archive ? archiveSettings(resolve(archive)) : options.passing ? PASSING : []);
    if (options.fresh) await database?.drop("hearth");
    // Of a database that somebody else keeps, the owner may be another role than the one that the program works as.
    const owner = options.beside?.databaseUrl ?? process.env.DATABASE_OWNER_URL;
    const databaseUrl = owner && external ? owner : (external ?? (await database?.open("hearth")) ?? "");
    const programUrl = external ?? (await database?.asProgram("hearth")) ?? "";
    const owned = new URL(databaseUrl).username !== new URL(programUrl).username;
    const { version } = JSON.parse(readFileSync(join(ROOT, "package.json"), "utf8")) as { version: string };
    const update =
      database && options.keepVersion ? await beforeUpdate(options.home, databaseUrl, version, readFileSync(join(ROOT, "CHANGELOG.md"), "utf8")) : null;
    if (update) console.log(`A backup was taken before this update: ${update.file}\n\n${update.changes}\n`);
    await migrateDatabase(databaseUrl, owned ? new URL(programUrl).username : undefined);
    if (options.demo) await loadDemoData(databaseUrl, options);

    const port = await choosePort(options);
    const { url, reach, env: listens } = await listeningEnv(options.listening ?? null, options.home, port);
    const first = options.listening ? await firstCode(databaseUrl) : null;
    if (options.keepVersion) keepVersion(options.home, version);
    const next = [join(ROOT, "node_modules/next/dist/bin/next"), "dev", join(ROOT, "web"), "-H", "127.0.0.1", "-p", String(port)];
    const web = superviseWeb(
      options.home,
      program,
      url,
      withParent("TERM", process.execPath, options.dev ? next : [join(program, "web/.next/main.mjs")]),
      {
        ...process.env,
        NODE_ENV: options.dev ? "development" : "production",
        DATABASE_URL: programUrl,
        DATABASE_OWNER_URL: "",
        HEARTH_HOME: options.home,
        PORT: String(port),
        ...listens,
        HEARTH_FIRST_CODE: first?.hash ?? "",
        HEARTH_VERSION: version,
        HEARTH_WORKER: join(program, "web/.next/worker.js"),
        ...(options.clockFile ? { HEARTH_CLOCK_FILE: options.clockFile } : {}),
      },
      options.dev ?? false,
    );
    halt = web.stop;
    web.start();
    void database?.failed.then((why) => {
      console.error(why);
      web.end(1);
    });
    await until(() => isWell(reach), 60_000, "The web server did not answer within a minute.");
    const noMore = database && options.keepBackups ? keepDaily(databaseUrl, join(options.home, "backups")) : () => undefined;
    if (archive) await keepBase(databaseUrl, resolve(archive));
    return {
      url,
      firstCode: first?.code ?? null,
      databaseUrl,
      programUrl,
      database,
      ended: web.ended,
      stop: async () => {
        noMore();
        await web.stop();
        await database?.stop();
        giveBack();
      },
    };
  } catch (error) {
    await halt();
    await database?.stop();
    giveBack();
    throw error;
  }
}
