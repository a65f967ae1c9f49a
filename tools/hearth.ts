import { existsSync } from "node:fs";
import { homedir } from "node:os";
import { join, resolve } from "node:path";
import { causesOf } from "../web/data/causes";
import { restoreAt } from "./archive";
import { backup, restore, withDatabase } from "./backup";
import { ensureBuild } from "./build";
import { makeHome } from "./home";
import { readListening } from "./listen";
import { embeddedPostgres, runningUrl } from "./postgres";
import { Plain } from "./processes";
import { ROOT } from "./root";
import { serve } from "./serve";

const [command = "help", ...flags] = process.argv.slice(2);

/** A maker's own data lives outside the program, so that it stays where the program is replaced; the demo's lives within. */
const OWN_HOME = join(homedir(), ".local/share/hearth-jar");
const DEMO_HOME = join(ROOT, ".hearth/home");
const HOME = resolve(
  process.env.HEARTH_HOME ?? (command === "demo" || command === "dev" || (command !== "start" && !existsSync(OWN_HOME)) ? DEMO_HOME : OWN_HOME),
);
/** The demo looks for a port from 4380 on; a workshop of one's own from here. */
const OWN_PORT = 4_390;

const HELP = `./hearth start            your own workshop: build, start the database, serve
         --listen ADDRESS   for phones and other machines too, with a sign-in and TLS; docs/deploy.md
./hearth demo [--fresh]   build, start the database, load the demo workshop, serve; --years 10: ten years of it
./hearth dev              the demo from the sources, reloading as they change
./hearth build            build the program, and start nothing
./hearth instruments      a simulated probe and scale for the bench; --speed 1 to 60
./hearth test             format, lint, types, import rules, unit, database and browser tests
./hearth bench            speed, as a ratio to a reference measured in the same run
./hearth backup FILE      back everything up to one file, and verify it; the program may be running
./hearth restore FILE     restore a backup; the program may be running, and the present database is kept
./hearth restore --at TIME FOLDER   restore to a point in time from the archive
./hearth stress books     random operations on a workshop, with its stock and sales checked after each; --minutes N, --steps N, --seeds N, --seed N
./hearth stress devices   faulty network, update, restore, full and cleared storage and clock changes under open pages; --rounds N, --seed N
./hearth stress NAME      other fault tests: load, entries, two, hostile, …
./hearth shots            retake the pictures in docs/screenshots

PORT          the first port to try (4380; later the port that the data was served on)
HEARTH_HOME   the data directory (of start: ~/.local/share/hearth-jar; of demo: .hearth/home)
DATABASE_URL  a PostgreSQL server of your own instead of the one in the data directory
DATABASE_OWNER_URL  the same with the role that owns its tables, if the program uses another role
HEARTH_ARCHIVE      a folder to which every change is copied within a minute
HEARTH_LOG          log level: debug, info, warn, error, silent`;

function portWanted(): number | undefined {
  if (!process.env.PORT) return undefined;
  const port = Number(process.env.PORT);
  if (!Number.isInteger(port) || port < 1 || port > 65_535) throw new Error(`PORT is “${process.env.PORT}”; it must be a whole number from 1 to 65535.`);
  return port;
}

/** Returns how many years of a busy workshop the demo has behind it; none if nothing is asked. */
function yearsWanted(): number | undefined {
  const at = flags.indexOf("--years");
  if (at < 0) return undefined;
  const years = Number(flags[at + 1]);
  if (!(Number.isInteger(years) && years >= 1 && years <= 20)) throw new Plain("Give the number of years, from 1 to 20: ./hearth demo --years 10");
  return years;
}

/** The database that the program runs with, or, where it does not run, one started for as long as it is needed. */
async function reach() {
  if (process.env.DATABASE_URL) return { url: process.env.DATABASE_OWNER_URL ?? process.env.DATABASE_URL, database: null };
  makeHome(HOME);
  const url = runningUrl(HOME);
  if (url) return { url, database: null };
  const database = await embeddedPostgres(HOME);
  await database.asProgram("hearth");
  return { url: await database.open("hearth"), database };
}

async function main(): Promise<number> {
  // What is made here is for its owner only.
  process.umask(0o077);
  switch (command) {
    case "start":
    case "demo":
    case "dev": {
      const years = yearsWanted();
      const { listening, rest } = command === "start" ? readListening(flags) : { listening: null, rest: flags };
      const unknown = rest.filter((flag, index) => command === "start" || (flag !== "--fresh" && flag !== "--years" && flags[index - 1] !== "--years"));
      if (unknown.length > 0) throw new Error(`${unknown.join(" ")} is not an option of ./hearth ${command}.\n\n${HELP}`);
      const port = portWanted();
      // Listened for from the start, so that a Ctrl-C while things come up still stops them in order.
      const asked = new Promise<number>((done) => {
        for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const) process.on(signal, () => done(0));
      });
      const served = await serve({
        // Ten years are kept beside the ordinary demo, not in its place.
        home: years ? join(HOME, `years-${years}`) : HOME,
        ...(years ? { years } : {}),
        ...(port === undefined ? {} : { port }),
        dev: command === "dev",
        demo: command !== "start",
        keepVersion: command === "start",
        ...(command === "start" ? { usualPort: OWN_PORT } : {}),
        keepBackups: true,
        listening,
        fresh: flags.includes("--fresh"),
      });
      console.log(`\nHearth Jar is at ${served.url}\nCtrl-C stops it; nothing is lost.`);
      if (listening) console.log("Everyone signs in. Pair a phone with a code from the page “People and devices”.");
      if (served.firstCode) console.log(`Nobody has an account yet. Make the first at ${served.url}/sign-in/first with this code: ${served.firstCode}`);
      const code = await Promise.race([asked, served.ended]);
      await served.stop();
      return code;
    }
    case "build":
      await ensureBuild();
      return 0;
    case "instruments": {
      const speed = flags[0] === "--speed" ? Number(flags[1]) : 1;
      if (!(speed >= 1 && speed <= 60))
        throw new Plain("Give how many times faster than real time the pot runs, from 1 to 60: ./hearth instruments --speed 10");
      makeHome(HOME);
      const { port, stop } = await (await import("./instruments")).startInstruments({ home: HOME, speed });
      console.log(`A simulated probe and scale are listening on loopback port ${port}. Choose them at the bench, “Connect an instrument”. Ctrl-C stops them.`);
      await new Promise<void>((done) => {
        for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const) process.on(signal, () => done());
      });
      await stop();
      return 0;
    }
    case "test":
      return (await import("./test")).test(flags);
    case "bench":
      return (await import("./bench")).bench(flags[0], flags[1]);
    case "backup": {
      const [file] = flags;
      if (!file) throw new Plain("Name the file to write: ./hearth backup FILE");
      const { tables, bytes } = await withDatabase(reach, (url) => backup(url, resolve(file)));
      console.log(`${resolve(file)}: ${tables} tables, ${(bytes / 1_024).toFixed(0)} kB; verified by reading it back.`);
      return 0;
    }
    case "restore": {
      if (flags[0] === "--at") {
        const [, moment, folder] = flags;
        const at = new Date(moment ?? "");
        if (!folder || Number.isNaN(at.getTime())) throw new Plain('Say the moment and the archive: ./hearth restore --at "2026-03-14T14:20Z" FOLDER');
        if (runningUrl(HOME)) throw new Plain("Stop Hearth Jar first (Ctrl-C where it runs): this restores its whole data directory to that moment.");
        const { from, before } = await restoreAt(HOME, resolve(folder), at);
        console.log(`Restored to ${at.toISOString()} from the copy of ${from}.${before ? ` What was there before is in ${before}.` : ""}`);
        return 0;
      }
      const [file] = flags;
      if (!file) throw new Plain("Name the backup: ./hearth restore FILE");
      if (process.env.DATABASE_URL) throw new Plain("DATABASE_URL is set: restore a database of your own with pg_restore, or unset it.");
      const { tables, before } = await withDatabase(reach, (url) => restore(url, resolve(file)));
      console.log(`${tables} tables are restored from ${resolve(file)}. The previous database is kept as ${before}.`);
      return 0;
    }
    case "stress":
    // The name of the command up to 0.13.
    case "trial":
      if (flags[0] === "books") return (await import("./stress/books")).books(flags.slice(1));
      if (flags[0] === "devices") return (await import("./stress/devices")).devices(flags.slice(1));
      return (await import("./stress/run")).runStressTest(flags);
    case "shots":
      return (await import("./shots")).shots();
    default:
      console.log(HELP);
      return command === "help" || command === "--help" ? 0 : 2;
  }
}

/** A failed statement brings its whole SQL along: so much of each message is enough. */
const MESSAGE_LETTERS = 400;
const messageOf = (error: unknown): string => [...causesOf(error)].map(({ message }) => String(message).slice(0, MESSAGE_LETTERS)).join("\nBecause: ");

main().then(
  (code) => process.exit(code),
  (error: unknown) => {
    console.error(error instanceof Error ? messageOf(error) : error);
    process.exit(1);
  },
);
