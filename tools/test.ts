import { randomUUID } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:http";
import { join } from "node:path";
import { putDemo } from "../demo/load";
import { openDatabase } from "../web/data/client";
import { copyWorkshop } from "../web/testing/copy-workshop";
import { restore as restoreBackup, backup as takeBackup } from "./backup";
import { buildAsContainer } from "./container";
import { startInstruments } from "./instruments";
import { embeddedPostgres, PASSING } from "./postgres";
import { freePort, passingHome, run } from "./processes";
import { ROOT } from "./root";
import { type Served, serve } from "./serve";
import { FROZEN } from "./shots";

const TSC = "node_modules/typescript/bin/tsc";

interface Tally {
  passed: number;
  failed: number;
}

const add = (all: readonly Tally[]): Tally =>
  all.reduce((sum, tally) => ({ passed: sum.passed + tally.passed, failed: sum.failed + tally.failed }), { passed: 0, failed: 0 });

/** Returns a check that passes or fails as a whole. Its output is shown only where it fails. */
async function check(name: string, command: string, args: string[]): Promise<Tally> {
  const { code, output } = await run(command, args, { cwd: ROOT });
  console.log(`${code === 0 ? "passed" : "FAILED"}  ${name}`);
  if (code !== 0) console.log(output);
  return code === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 };
}

/** What failed, with its messages: repeated at the end of the run, where a log that was cut still has it. */
const failures: string[] = [];
/** Matches the codes by which a terminal shows colors. */
const COLORS = new RegExp(`${String.fromCharCode(27)}\\[[0-9;]*m`, "g");

/** Returns the title and messages of each failed test of a report of Vitest or Playwright. */
function failuresIn(report: unknown): string[] {
  if (Array.isArray(report)) return report.flatMap(failuresIn);
  if (typeof report !== "object" || report === null) return [];
  const node = report as { title?: string; file?: string; ok?: boolean; status?: string; failureMessages?: string[]; fullName?: string };
  if (node.status === "failed" && node.failureMessages) return [`${node.fullName}\n${node.failureMessages.join("\n")}`];
  const messages = node.ok === false && node.file ? JSON.stringify(report).match(/"message":"(?:[^"\\]|\\.)*"/g) : null;
  if (messages)
    return [`${node.file}: ${node.title}\n${[...new Set(messages)].map((message) => Object.values(JSON.parse(`{${message}}`) as object)[0]).join("\n")}`];
  return Object.values(report).flatMap(failuresIn);
}

/** Reads a runner's report; a run without a report, or without a test, has failed. */
function read(name: string, code: number, report: string, count: (json: never) => Tally, mayBeNone = false): Tally {
  if (!existsSync(report)) {
    console.log(`FAILED  ${name}: no report was written`);
    return { passed: 0, failed: 1 };
  }
  const json = JSON.parse(readFileSync(report, "utf8")) as never;
  failures.push(...failuresIn(json));
  const tally = count(json);
  if ((tally.passed + tally.failed === 0 && !mayBeNone) || (code !== 0 && tally.failed === 0)) tally.failed += 1;
  console.log(`${tally.failed === 0 ? "passed" : "FAILED"}  ${name}: ${tally.passed} passed, ${tally.failed} failed`);
  return tally;
}

async function unit(reports: string, patterns: string[]): Promise<Tally> {
  const home = passingHome("test");
  const database = await embeddedPostgres(home, PASSING);
  try {
    const report = join(reports, "unit.json");
    const env = {
      ...process.env,
      HEARTH_TEST_DATABASE_URL: await database.open("hearth_test"),
      HEARTH_TEST_PROGRAM_URL: await database.asProgram("hearth_test"),
      TZ: "UTC",
    };
    const { code } = await run("npx", ["vitest", "run", "--reporter=dot", "--reporter=json", `--outputFile.json=${report}`, ...patterns], {
      cwd: ROOT,
      env,
      show: true,
    });
    return read("unit and database tests", code, report, (json: { numPassedTests: number; numFailedTests: number }) => ({
      passed: json.numPassedTests,
      failed: json.numFailedTests,
    }));
  } finally {
    await database.stop();
    rmSync(home, { recursive: true, force: true });
  }
}

/** Returns what the browser tests ask for behind the scenes: a workshop of their own, and a database that goes away and comes back. */
async function stagehand(served: Served, home: string) {
  const { db, pool } = openDatabase(served.databaseUrl);
  // Made once, then copied: nobody works in it.
  const template = randomUUID();
  let first: Promise<void> | null = null;
  const does: Record<string, (workshop: string) => Promise<unknown>> = {
    "/stop": async () => served.database?.stop(),
    "/start": async () => served.database?.start(),
    "/take": async () => takeBackup(served.databaseUrl, join(home, "taken.dump")).then(() => "done"),
    "/restore": async () => restoreBackup(served.databaseUrl, join(home, "taken.dump")).then(() => "done"),
    // A row that no program wrote: what reads it fails, and goes on failing.
    "/spoil": async (workshop) =>
      pool.query("update batch set state = jsonb_build_object('format', state -> 'format') where workshop_id = $1", [workshop]).then(() => "done"),
    // Starts that cannot be read: of one batch in the log only, of another also where the plan is kept, in part, and of a third all of it. Gives their ids.
    "/damage": async (workshop) => {
      const { rows } = await pool.query<{ id: string }>("select id from batch where workshop_id = $1 order by number limit 3", [workshop]);
      const ids = rows.map((row) => row.id);
      await pool.query("alter table batch_event disable trigger user");
      await pool.query("update batch_event set payload = '{}' where workshop_id = $1 and kind = 'started' and batch_id = any($2)", [workshop, ids]);
      await pool.query("alter table batch_event enable trigger user");
      await pool.query("update batch set plan = plan #- '{products,0,count}' where workshop_id = $1 and id = $2", [workshop, ids[1]]);
      await pool.query("update batch set plan = '{}' where workshop_id = $1 and id = $2", [workshop, ids[2]]);
      return ids.join();
    },
    "/workshop": async () => {
      const id = randomUUID();
      first ??= putDemo(db, { id: template, name: "Quillfen candle shed" }, new Date(FROZEN));
      await first;
      await copyWorkshop(pool, template, id);
      return id;
    },
  };
  const port = await freePort();
  const server = createServer((request, response) => {
    const [what = "", workshop = ""] = (request.url ?? "").split("?");
    const run = does[what] ?? (async () => Promise.reject(new Error("That is not done here.")));
    run(workshop).then(
      (answer) => response.end(answer ?? "done"),
      (error: Error) => response.writeHead(500).end(error.message),
    );
  });
  await new Promise<void>((resolve) => server.listen(port, "127.0.0.1", resolve));
  return {
    url: `http://127.0.0.1:${port}`,
    close: async () => {
      server.close();
      await pool.end();
    },
  };
}

/** Returns the browser tests of one kind, on a server, a clock, a database and instruments of their own. */
async function lane(name: "side by side" | "alone", program: string, port: number, reports: string, patterns: string[]): Promise<Tally> {
  const home = passingHome("e2e");
  const clockFile = join(home, "clock");
  writeFileSync(clockFile, FROZEN);
  const served = await serve({ home, port, demo: true, ownDatabase: true, clockFile, passing: true, program });
  const hand = await stagehand(served, home);
  // A pot that goes so fast is hot within a test.
  const bench = await startInstruments({ home, speed: 60, seed: 5 });
  try {
    const report = join(reports, `browser ${name}.json`);
    const env = {
      ...process.env,
      HEARTH_URL: served.url,
      HEARTH_LANE: name,
      HEARTH_PROGRAM: program,
      HEARTH_CLOCK: clockFile,
      HEARTH_STAGEHAND: hand.url,
      PLAYWRIGHT_JSON_OUTPUT_FILE: report,
      TZ: "UTC",
    };
    const { code } = await run(
      "npx",
      ["playwright", "test", "--config", "e2e/playwright.config.ts", "--project", name, ...(patterns.length > 0 ? ["--pass-with-no-tests", ...patterns] : [])],
      { cwd: ROOT, env, show: true },
    );
    const count = (json: { stats: { expected: number; unexpected: number; flaky: number } }) => ({
      passed: json.stats.expected,
      failed: json.stats.unexpected + json.stats.flaky,
    });
    return read(`browser tests, ${name}`, code, report, count, patterns.length > 0);
  } finally {
    await hand.close();
    await bench.stop();
    await served.stop();
    rmSync(home, { recursive: true, force: true });
  }
}

/** The program that the browser tests are about, built as the Containerfile does it: once in a run. */
let built: Promise<string> | undefined;
const program = (): Promise<string> => (built ??= buildAsContainer());

async function browser(reports: string, patterns: string[]): Promise<Tally> {
  process.env.HEARTH_ZONE = "UTC";
  const folder = await program();
  const lanes = await Promise.all([lane("side by side", folder, 4_800, reports, patterns), lane("alone", folder, 4_820, reports, patterns)]);
  const sum = add(lanes);
  return sum.passed + sum.failed > 0 ? sum : { passed: 0, failed: 1 };
}

/** Runs every suite, or only `checks`, `unit` or `browser` with patterns for their runner; closes with the sum of all. */
export async function test(flags: string[]): Promise<number> {
  const [only, ...patterns] = flags;
  const reports = join(ROOT, ".hearth/reports");
  rmSync(reports, { recursive: true, force: true });
  mkdirSync(reports, { recursive: true });
  const tallies: Tally[] = [];
  const suite = async (name: string, run: () => Promise<Tally>) => {
    if (only && only !== name) return;
    tallies.push(
      await run().catch((error: unknown) => {
        console.log(`FAILED  ${name}:`, error instanceof Error ? error.message : error);
        return { passed: 0, failed: 1 };
      }),
    );
  };
  // What the browser tests are served from is built beside what comes before them; should it fail, they say so.
  if (!only) void program().catch(() => undefined);
  // Two at a time: each keeps one core busy.
  const checks: [string, string, string[]][] = [
    ["types", "node", [TSC, "-p", "tsconfig.json"]],
    ["types of core, without DOM and Node", "node", [TSC, "-p", "core/tsconfig.json"]],
    ["format and lint", "npx", ["biome", "ci", "."]],
    ["nothing unused, nothing undeclared", "npx", ["knip", "--no-progress"]],
    ["migrations match the tables", "bash", ["tools/lint/migrations.sh"]],
  ];
  const worker = async () => {
    for (let next = checks.shift(); next; next = checks.shift()) {
      const [name, command, args] = next;
      await suite("checks", () => check(name, command, args));
    }
  };
  await Promise.all([worker(), worker()]);
  await suite("unit", () => unit(reports, patterns));
  await suite("browser", () => browser(reports, patterns));
  const sum = add(tallies);
  for (const failure of failures) console.log(`\n${failure.replace(COLORS, "").slice(0, 3_000)}`);
  console.log(`${sum.passed} passed, ${sum.failed} failed`);
  return sum.failed === 0 && sum.passed > 0 ? 0 : 1;
}
