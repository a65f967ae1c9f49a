import { existsSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { connect } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { LineReader, type Message } from "@hearth/core";
import { afterEach, beforeEach, expect, it } from "vitest";
import { type Instruments, startInstruments } from "./instruments";

let home: string;
let bench: Instruments;
beforeEach(async () => {
  home = mkdtempSync(join(tmpdir(), "hearth-bench-"));
  bench = await startInstruments({ home, speed: 60, seed: 5 });
});
afterEach(async () => {
  await bench.stop();
  rmSync(home, { recursive: true, force: true });
});

/** Says lines to the bench, and listens until it has heard enough. */
function hear(said: string, enough: (heard: Message[]) => boolean): Promise<{ heard: Message[]; bad: number }> {
  return new Promise((done, failed) => {
    const lines = new LineReader();
    const heard: Message[] = [];
    let bad = 0;
    const socket = connect(bench.port, "127.0.0.1", () => socket.write(said));
    socket.on("data", (piece) => {
      const told = lines.take(piece.toString("latin1"));
      heard.push(...told.messages);
      bad += told.bad;
      if (!enough(heard)) return;
      socket.destroy();
      done({ heard, bad });
    });
    socket.on("error", failed);
  });
}
const warmest = (heard: Message[]) => Math.max(0, ...heard.map((message) => (message.is === "temperature" ? message.celsius : 0)));

it("a simulated probe says who it is and warms when heat is on; noise that is sent to it does no harm", async () => {
  expect(JSON.parse(readFileSync(join(home, "instruments.json"), "utf8"))).toEqual({ port: bench.port });
  await hear(`\u0000\u00ff${"HEAT ".repeat(500)}\nconstructor 1\nOIL x\n__proto__\nPROBE\n`, (heard) => heard.length > 1);
  const { heard, bad } = await hear("PROBE\nHEAT 1\n", (all) => warmest(all) > 3_500);
  expect(heard[0]).toEqual({ is: "name", name: "simulated probe" });
  expect(bad).toBe(0);
}, 60_000);

it("a simulated scale shows what is put on, can be tared, and is gone with its place when it is stopped", async () => {
  const weights = (heard: Message[]) => heard.flatMap((message) => (message.is === "weight" && message.settled ? [message.mg] : []));
  await hear("SCALE\nPUT 127\n", (heard) => weights(heard).some((mg) => mg === 127_000));
  await hear("SCALE\nZ\n", (heard) => weights(heard).some((mg) => mg === 0));
  await hear("SCALE\nPUT 9000\n", (heard) => heard.some((message) => message.is === "fault"));
  await bench.stop();
  expect(existsSync(join(home, "instruments.json"))).toBe(false);
  await expect(hear("SCALE\n", () => true)).rejects.toThrow();
  bench = await startInstruments({ home });
}, 60_000);
