import { spawn } from "node:child_process";
import { readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { afterEach, describe, expect, it, vi } from "vitest";
import { keepPort, keptPort, makeHome, readRunning, takeHome, writeRunning } from "./home";
import { fewEnds, passingHome } from "./processes";

const homes: string[] = [];
const home = () => {
  const made = passingHome("hometest");
  homes.push(made);
  return made;
};
afterEach(() => {
  vi.useRealTimers();
  for (const home of homes.splice(0)) rmSync(home, { recursive: true, force: true });
});

describe("a data directory", () => {
  it("is taken though its state file is torn, empty or nonsense, and given back", () => {
    for (const torn of ["", '{"pid":', "null", "[]", '{"pid":"x","web":-4}', "\u0000\u0000"]) {
      const folder = home();
      writeFileSync(join(folder, "running.json"), torn);
      const giveBack = takeHome(folder);
      expect(readRunning(folder)).toEqual({ pid: process.pid });
      giveBack();
      expect(readRunning(folder)).toEqual({});
    }
  });

  it("is refused while the program that ./hearth runs is at work on it, also one of an earlier version", () => {
    const run = /^exec node (\S+)/m.exec(readFileSync(`${process.cwd()}/hearth`, "utf8"))?.[1] ?? "";
    expect(run).not.toBe("");
    for (const program of [run, "tools/hearth.ts"]) {
      const other = spawn(process.execPath, ["-e", "setTimeout(() => undefined, 60_000)", `/somewhere/${program}`, "start"]);
      try {
        const folder = home();
        writeRunning(folder, { ...(other.pid ? { pid: other.pid } : {}), url: "http://127.0.0.1:1" });
        expect(() => takeHome(folder), program).toThrow(/already running on this data .* at http:\/\/127\.0\.0\.1:1/);
        expect(readRunning(folder).pid).toBe(other.pid);
      } finally {
        other.kill("SIGKILL");
      }
    }
  });

  it("is for its owner only, and says in one sentence why it cannot be used", () => {
    const folder = home();
    makeHome(join(folder, "in", "side"));
    expect(statSync(join(folder, "in", "side")).mode & 0o066).toBe(0);
    writeRunning(folder, { pid: 1, url: "http://127.0.0.1:1" });
    expect(statSync(join(folder, "running.json")).mode & 0o777).toBe(0o600);
    writeFileSync(join(folder, "file"), "");
    expect(() => makeHome(join(folder, "file"))).toThrow(/^The data directory .* cannot be used: there is a file of that name/);
    expect(() => makeHome(join(folder, "file", "below"))).toThrow(/there is a file of that name/);
    expect(readFileSync(join(folder, "file"), "utf8")).toBe("");
  });

  it("keeps the port that it is served on", () => {
    const folder = home();
    expect(keptPort(folder)).toBeNull();
    keepPort(folder, 4_444);
    expect(keptPort(folder)).toBe(4_444);
    for (const odd of ["", "http", "0", "70000", "4.5"]) {
      writeFileSync(join(folder, "port"), odd);
      expect(keptPort(folder), odd).toBeNull();
    }
  });
});

describe("what ends by itself", () => {
  it("is started again a few times in a while, and then left alone", () => {
    vi.useFakeTimers({ now: 0 });
    const few = fewEnds(3, 60_000);
    expect([few(), few(), few(), few()]).toEqual([true, true, true, false]);
    // After a quiet while it may again.
    vi.setSystemTime(120_000);
    expect(few()).toBe(true);
  });
});
