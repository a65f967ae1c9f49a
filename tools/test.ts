import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { buildAsContainer } from "./container";
import { startInstruments } from "./instruments";
import { embeddedPostgres, PASSING } from "./postgres";
import { passingHome, run } from "./processes";
import { ROOT } from "./root";
import { serve } from "./serve";
import { FROZEN } from "./shots";
import { startStagehand } from "./stagehand";

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

/** Returns the browser tests of one kind, on a server, a clock, a database and instruments of their own. */
async function lane(name: "side by side" | "alone", program: string, port: number, reports: string, patterns: string[]): Promise<Tally> {
  const home = passingHome("e2e");
  const clockFile = join(home, "clock");
  writeFileSync(clockFile, FROZEN);
  const served = await serve({ home, port, demo: true, ownDatabase: true, clockFile, passing: true, program });
  const hand = await startStagehand(served, home);
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
