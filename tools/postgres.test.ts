import { execFileSync } from "node:child_process";
import { chmodSync, existsSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { connect } from "node:net";
import { networkInterfaces } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Embedded, embeddedPostgres, withClient } from "./postgres";
import { freePort, isAlive, passingHome, until } from "./processes";

let home: string;
let server: Embedded;
let url: string;

const ask = (at: string, query: string) => withClient(at, async (client) => (await client.query(query)).rows);
const pid = () => Number(readFileSync(join(home, "postgres/postmaster.pid"), "utf8").split("\n")[0]);

beforeAll(async () => {
  home = passingHome("pgtest");
  server = await embeddedPostgres(home);
  url = await server.open("shed");
});
afterAll(async () => {
  await server.stop();
  rmSync(home, { recursive: true, force: true });
});

describe("the database that comes along", () => {
  it("asks for the password in a file that only its owner can read", async () => {
    expect(statSync(join(home, "database-password")).mode & 0o777).toBe(0o600);
    await expect(ask(url.replace(/:[^:@]+@/, ":wrong@"), "select 1")).rejects.toThrow(/password authentication failed/);
    await expect(ask(url.replace(/:[^:@]+@/, "@"), "select 1")).rejects.toThrow();
  });

  it("listens on loopback only", async () => {
    const port = Number(new URL(url).port);
    expect(await ask(url, "show listen_addresses")).toEqual([{ listen_addresses: "127.0.0.1" }]);
    const others = Object.values(networkInterfaces())
      .flat()
      .filter((interfaceInfo) => interfaceInfo && !interfaceInfo.internal && interfaceInfo.family === "IPv4");
    for (const other of others) {
      const reached = await new Promise((resolve) => {
        const socket = connect(port, other?.address);
        socket.once("connect", () => resolve(true)).once("error", () => resolve(false));
      });
      expect(reached).toBe(false);
    }
  });

  it("does not run as root", () => {
    expect(execFileSync("ps", ["-o", "uid=", "-p", String(pid())], { encoding: "utf8" }).trim()).not.toBe("0");
  });

  it("comes back by itself when it is killed, and still has what was written", async () => {
    await ask(url, "create table jar as select 42 as wicks");
    const before = pid();
    process.kill(before, "SIGKILL");
    await until(
      () =>
        ask(url, "select wicks from jar").then(
          (rows) => rows.length === 1,
          () => false,
        ),
      20_000,
      "It did not come back.",
    );
    expect(pid()).not.toBe(before);
  });

  it("stops without a process left, and starts again on the same data", async () => {
    const running = pid();
    await server.stop();
    expect(isAlive(running)).toBe(false);
    await server.start();
    expect(await ask(url, "select wicks from jar")).toEqual([{ wicks: 42 }]);
  });

  it("takes over from a server that an interrupted run left behind", async () => {
    const left = pid();
    const second = await embeddedPostgres(home);
    try {
      expect(isAlive(left)).toBe(false);
      expect(await ask(await second.open("shed"), "select wicks from jar")).toEqual([{ wicks: 42 }]);
    } finally {
      await server.stop();
      await second.stop();
      server = await embeddedPostgres(home);
      url = await server.open("shed");
    }
  });

  it("says what to do where the password file is gone", async () => {
    const other = passingHome("pgtest");
    try {
      await (await embeddedPostgres(other)).stop();
      rmSync(join(other, "database-password"));
      await expect(embeddedPostgres(other)).rejects.toThrow(/database-password is missing.*Restore that file/);
    } finally {
      rmSync(other, { recursive: true, force: true });
    }
  });

  it("works in a directory that its own user cannot enter, also where it is the first", async () => {
    // A program that makes nothing for others made this directory, on a machine that has had none.
    if (process.getuid?.() === 0 && existsSync("/var/lib/hearth-jar")) chmodSync("/var/lib/hearth-jar", 0o700);
    const closed = passingHome("pgtest");
    const inner = join(closed, "closed/home");
    execFileSync("mkdir", ["-p", "-m", "700", join(closed, "closed"), inner]);
    writeFileSync(join(inner, "keep"), "");
    const there = await embeddedPostgres(inner);
    try {
      expect(await ask(await there.open("shed"), "select 1 as one")).toEqual([{ one: 1 }]);
    } finally {
      const folder = String((await ask(await there.open("shed"), "show data_directory"))[0]?.data_directory);
      await there.stop();
      rmSync(folder, { recursive: true, force: true });
      rmSync(closed, { recursive: true, force: true });
    }
  });
});

describe("ports", () => {
  it("gives a port that nothing listens on", async () => {
    const port = await freePort();
    expect(port).toBeGreaterThan(1_023);
    expect(await freePort(port)).toBe(port);
  });
});
