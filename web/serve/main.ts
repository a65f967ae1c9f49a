import { readFileSync, writeFileSync } from "node:fs";
import { createServer, type RequestListener } from "node:http";
import { createServer as createSecureServer } from "node:https";
import { join } from "node:path";
import { setFlagsFromString } from "node:v8";
import { runInNewContext } from "node:vm";
import next from "next";
import { environmentSetting } from "@/server/operation/environment";
import { noteAddress } from "./address";
import { METHODS, oddRequest } from "./request-line";
import { requestTimes } from "./request-times";

/** On SIGUSR2 the server returns what it no longer needs, and notes what it holds: how a leak is looked for. */
function noteMemory(): void {
  setFlagsFromString("--expose-gc");
  const collect = runInNewContext("gc") as () => void;
  collect();
  collect();
  const { heapUsed, external, rss } = process.memoryUsage();
  if (process.env.HEARTH_HOME)
    writeFileSync(join(process.env.HEARTH_HOME, "memory.json"), JSON.stringify({ at: Date.now(), heapUsed, external, rss }), { mode: 0o600 });
}

/** Who stops waits so long for what was begun. */
const MAX_LEAVING_MS = 3_000;

/** The web server: the built pages, on loopback where nothing else was asked for. */
async function main(): Promise<void> {
  const port = Number(process.env.PORT);
  process.env.HEARTH_THREADS = new URL("../.next/", import.meta.url).pathname;
  const host = process.env.HEARTH_LISTEN || "127.0.0.1";
  const app = next({ dev: false, dir: new URL("..", import.meta.url).pathname, hostname: host, port });
  await app.prepare();
  const draw = app.getRequestHandler();
  const proxies = (environmentSetting("HEARTH_TRUSTED_PROXIES") ?? "").split(",").filter(Boolean);
  const answer: RequestListener = (request, response) => {
    noteAddress(request, proxies);
    const measured = requestTimes().measure(request.method ?? "", request.url ?? "");
    if (measured) response.once("close", () => measured(response.statusCode));
    const odd = oddRequest(request.method ?? "", request.url ?? "/");
    if (!odd) return void draw(request, response);
    response.writeHead(odd.status, {
      "content-type": "application/json",
      "x-content-type-options": "nosniff",
      ...(odd.status === 405 ? { allow: METHODS.join(", ") } : {}),
    });
    response.end(JSON.stringify({ error: { message: odd.message, fields: {} } }));
  };
  const { HEARTH_TLS_CERT: cert, HEARTH_TLS_KEY: key } = process.env;
  const server = cert && key ? createSecureServer({ cert: readFileSync(cert), key: readFileSync(key), minVersion: "TLSv1.2" }, answer) : createServer(answer);
  // A client that sends its headers slowly is let go; a body may be the file of a whole workshop over a slow line.
  server.headersTimeout = 10_000;
  server.requestTimeout = 15 * 60_000;
  server.keepAliveTimeout = 65_000;
  server.listen(port, host);
  process.on("SIGUSR2", noteMemory);
  process.on("SIGTERM", () => {
    // What was begun is answered; what listens is let go by the program itself (`instrumentation.ts`), and its pages turn to another server or wait.
    server.close(() => process.exit(0));
    server.closeIdleConnections();
    setTimeout(() => {
      server.closeAllConnections();
      process.exit(0);
    }, MAX_LEAVING_MS).unref();
  });
}

void main();
