import { join, resolve } from "node:path";
import { serve } from "./serve";

const ROOT = new URL("..", import.meta.url).pathname;
const [command = "help", ...flags] = process.argv.slice(2);

const HELP = `./hearth demo [--fresh]   build, start the database, load the made-up workshop, serve
./hearth dev              the same from the sources, reloading as they change
./hearth test             format, lint, types, import rules, unit, database and browser tests
./hearth bench            speed, as a ratio to a reference measured in the same run
./hearth shots            take the pictures in docs/screenshots again

PORT          the port to begin looking from (4380)
HEARTH_HOME   the data directory (.hearth/home)
DATABASE_URL  a PostgreSQL of your own in place of the one in the data directory`;

function portWanted(): number | undefined {
  if (!process.env.PORT) return undefined;
  const port = Number(process.env.PORT);
  if (!Number.isInteger(port) || port < 1 || port > 65_535) throw new Error(`PORT is “${process.env.PORT}”; it must be a whole number from 1 to 65535.`);
  return port;
}

async function main(): Promise<number> {
  switch (command) {
    case "demo":
    case "dev": {
      const unknown = flags.filter((flag) => flag !== "--fresh");
      if (unknown.length > 0) throw new Error(`${unknown.join(" ")} is not known here.\n\n${HELP}`);
      // Listened for from the start, so that a Ctrl-C while things come up still stops them in order.
      const asked = new Promise<number>((done) => {
        for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const) process.on(signal, () => done(0));
      });
      const served = await serve({
        home: resolve(process.env.HEARTH_HOME ?? join(ROOT, ".hearth/home")),
        port: portWanted() ?? 4380,
        dev: command === "dev",
        demo: true,
        fresh: flags.includes("--fresh"),
      });
      console.log(`\nHearth Jar is at ${served.url}\nCtrl-C stops it; nothing is lost.`);
      const code = await Promise.race([asked, served.ended]);
      await served.stop();
      return code;
    }
    case "test":
      return (await import("./test")).test(flags);
    case "bench":
      return (await import("./bench")).bench();
    case "shots":
      return (await import("./shots")).shots();
    default:
      console.log(HELP);
      return command === "help" || command === "--help" ? 0 : 2;
  }
}

main().then(
  (code) => process.exit(code),
  (error: unknown) => {
    console.error(error instanceof Error ? error.message : error);
    process.exit(1);
  },
);
