import { rmSync } from "node:fs";
import { createServer, type Server, type Socket } from "node:net";
import { join } from "node:path";
import { SimulatedPot, SimulatedProbe, SimulatedScale, writeLine } from "@hearth/core";
import { writeWhole } from "./processes";

/** A line of somebody who says none of this is not read to its end. */
const LONGEST = 200;

export interface Instruments {
  port: number;
  stop(): Promise<void>;
}

/**
 * Starts a simulated thermometer and scale on a loopback port. A client sends PROBE or SCALE and receives a line a second; anything else
 * that it sends goes to the simulated pot or scale. The pot runs `speed` times as fast as the clock, 1 to 60.
 */
export async function startInstruments({
  home,
  port = 0,
  speed = 1,
  seed = Date.now() % 1_000_000,
}: {
  home: string;
  port?: number;
  speed?: number;
  seed?: number;
}): Promise<Instruments> {
  const pot = new SimulatedPot(21, 1_200, seed);
  const scale = new SimulatedScale();
  const probe = new SimulatedProbe(pot, seed + 1);
  const listeners = new Map<Socket, "PROBE" | "SCALE">();
  const server: Server = createServer((socket) => {
    socket.setEncoding("ascii");
    let text = "";
    socket.on("data", (piece: string) => {
      text += piece;
      const lines = text.split(/\r?\n/);
      text = (lines.pop() ?? "").slice(-LONGEST);
      for (const line of lines) {
        const name = line.trim();
        if (name === "PROBE" || name === "SCALE") {
          listeners.set(socket, name);
          socket.write(`${writeLine({ is: "name", name: name === "PROBE" ? "simulated probe" : "simulated scale" })}\r\n`);
        } else if (!pot.told(line)) scale.told(line);
      }
    });
    for (const gone of ["close", "error"] as const) socket.on(gone, () => listeners.delete(socket));
  });
  const beat = setInterval(() => {
    pot.step(speed);
    const said = { PROBE: writeLine(probe.read(speed)), SCALE: writeLine(scale.read(1)) };
    for (const [socket, which] of listeners) socket.write(`${said[which]}\r\n`);
  }, 1_000);
  await new Promise<void>((ready, failed) => {
    server.once("error", failed);
    server.listen(port, "127.0.0.1", ready);
  });
  const at = (server.address() as { port: number }).port;
  const file = join(home, "instruments.json");
  writeWhole(file, JSON.stringify({ port: at }));
  return {
    port: at,
    stop: async () => {
      clearInterval(beat);
      rmSync(file, { force: true });
      for (const socket of listeners.keys()) socket.destroy();
      await new Promise((done) => server.close(done));
    },
  };
}
