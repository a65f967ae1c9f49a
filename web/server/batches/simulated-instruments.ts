import { readFileSync } from "node:fs";
import { connect, type Socket } from "node:net";
import { join } from "node:path";

/** Returns where the simulated bench of this data listens; null if it does not run. */
function portOfBench(): number | null {
  try {
    const { port } = JSON.parse(readFileSync(join(process.env.HEARTH_HOME ?? "", "instruments.json"), "utf8")) as { port?: unknown };
    return typeof port === "number" && Number.isInteger(port) ? port : null;
  } catch {
    return null;
  }
}

/** Returns a line to the simulated bench; null if it cannot be reached. */
export async function reachBench(): Promise<Socket | null> {
  const port = portOfBench();
  if (port === null) return null;
  return new Promise((done) => {
    const socket = connect(port, "127.0.0.1", () => done(socket));
    socket.once("error", () => done(null));
  });
}

/** Returns what the bench says on a line, as it comes. */
export function linesOf(socket: Socket, signal: AbortSignal): ReadableStream<Uint8Array> {
  return new ReadableStream<Uint8Array>({
    start(controller) {
      const end = () => {
        socket.destroy();
        try {
          controller.close();
        } catch {
          // It was closed by the other end.
        }
      };
      socket.on("data", (piece) => {
        // Somebody who does not read what is said is not waited for.
        if ((controller.desiredSize ?? 0) < -64) end();
        else controller.enqueue(new Uint8Array(piece as Buffer));
      });
      socket.on("close", end);
      socket.on("error", end);
      signal.addEventListener("abort", end);
    },
    cancel: () => void socket.destroy(),
  });
}
