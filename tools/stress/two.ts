import { createServer, request } from "node:http";
import { v7 } from "uuid";
import { demoId, WORKSHOP } from "../../demo/workshop";
import { openDatabase } from "../../web/data/client";
import { readRunning } from "../home";
import { freePort, passingHome } from "../processes";
import { type Served, serve } from "../serve";

const CLIENTS = 20;
const SECONDS = 20;
const MAX_MS = 5_000;
const POT = demoId(8, 6);
const EVENTS = `/api/workshops/${WORKSHOP.id}/batches/${POT}/events`;

/** A plain proxy before several servers, by turns; where one refuses, the next is asked. It keeps nothing and knows nothing of the program. */
async function proxyTo(ports: readonly number[]): Promise<{ url: string; close: () => void }> {
  let turn = 0;
  const server = createServer((asked, response) => {
    const parts: Buffer[] = [];
    asked.on("data", (piece: Buffer) => parts.push(piece));
    asked.on("end", () => {
      const body = Buffer.concat(parts);
      const go = (left: number) => {
        const port = ports[turn++ % ports.length] as number;
        const forward = request({ port, host: "127.0.0.1", method: asked.method, path: asked.url, headers: asked.headers }, (answer) => {
          response.writeHead(answer.statusCode ?? 502, answer.headers);
          answer.pipe(response);
          answer.on("error", () => response.destroy());
          answer.on("aborted", () => response.destroy());
        });
        response.on("close", () => forward.destroy());
        forward.on("error", () => {
          if (response.headersSent) response.destroy();
          else if (left > 0) go(left - 1);
          else response.writeHead(502).end();
        });
        forward.end(body);
      };
      go(ports.length - 1);
    });
  });
  const port = await freePort();
  await new Promise<void>((ready) => server.listen(port, "127.0.0.1", ready));
  return { url: `http://127.0.0.1:${port}`, close: () => void server.closeAllConnections() };
}

/** A page that waits for what others enter: how long it heard nothing at most, while something was entered all the time. */
function listener(url: string, until: () => boolean) {
  let longest = 0;
  let last = Date.now();
  const heard = new Set<string>();
  const run = (async () => {
    while (!until()) {
      try {
        const answer = await fetch(`${url}/api/workshops/${WORKSHOP.id}/live`, { signal: AbortSignal.timeout(SECONDS * 2_000) });
        const decoder = new TextDecoder();
        for await (const piece of answer.body as unknown as AsyncIterable<Uint8Array>) {
          longest = Math.max(longest, Date.now() - last);
          last = Date.now();
          heard.add(decoder.decode(piece).slice(0, 40));
          if (until()) return;
        }
      } catch {
        // As a browser does: it asks again.
      }
      await new Promise((again) => setTimeout(again, 250));
    }
  })();
  return { longest: () => longest, run };
}

/** Returns two servers on one database behind a proxy, twenty clients; one server is killed, comes back, and the other is stopped in order. */
export async function two(): Promise<number> {
  process.env.HEARTH_LOG = "error";
  const served: Served[] = [];
  const homes = [passingHome("two-a"), passingHome("two-b")] as const;
  const first = await serve({ home: homes[0], port: await freePort(), demo: true, ownDatabase: true });
  served.push(first);
  const second = await serve({ home: homes[1], port: await freePort(), beside: first });
  served.push(second);
  const proxy = await proxyTo(served.map((served) => Number(new URL(served.url).port)));
  const { pool } = openDatabase(first.databaseUrl);
  try {
    const end = Date.now() + SECONDS * 1_000;
    const over = () => Date.now() > end;
    const acknowledged: string[] = [];
    let slowest = 0;
    let again = 0;
    const client = async () => {
      while (!over()) {
        const id = v7();
        const body = JSON.stringify({
          id,
          kind: "note",
          happenedAt: new Date(Date.now() - 1_000).toISOString(),
          personId: null,
          payload: { text: "between two" },
        });
        const began = Date.now();
        // As the pages do: the same entry is sent until it is acknowledged.
        for (;;) {
          const answer = await fetch(proxy.url + EVENTS, {
            method: "POST",
            headers: { "content-type": "application/json" },
            body,
            signal: AbortSignal.timeout(4_000),
          }).catch(() => null);
          if (answer?.ok) break;
          again += 1;
          await new Promise((wait) => setTimeout(wait, 100));
        }
        slowest = Math.max(slowest, Date.now() - began);
        acknowledged.push(id);
        await new Promise((wait) => setTimeout(wait, 50));
      }
    };
    const listeners = Array.from({ length: 4 }, () => listener(proxy.url, over));
    const killed = (async () => {
      await new Promise((wait) => setTimeout(wait, (SECONDS * 1_000) / 3));
      const { web } = readRunning(homes[0]);
      if (web) process.kill(web, "SIGKILL");
      console.log("the first server was killed");
      await new Promise((wait) => setTimeout(wait, (SECONDS * 1_000) / 3));
      const other = readRunning(homes[1]).web;
      if (other) process.kill(other, "SIGTERM");
      console.log("the second server was stopped in order");
    })();
    await Promise.all([killed, ...Array.from({ length: CLIENTS }, client), ...listeners.map((listener) => listener.run)]);
    const { rows } = await pool.query<{ id: string; n: number }>(
      "select id::text, count(*)::int as n from batch_event where workshop_id = $1 and batch_id = $2 group by id",
      [WORKSHOP.id, POT],
    );
    const kept = new Set(rows.map((row) => row.id));
    const lost = acknowledged.filter((id) => !kept.has(id)).length;
    const deaf = Math.max(...listeners.map((listener) => listener.longest()));
    console.log(`${acknowledged.length} entries acknowledged, ${again} sent again, ${lost} lost (0)`);
    console.log(`the longest that an entry waited: ${slowest} ms; that a page heard nothing: ${deaf} ms (each at most ${MAX_MS})`);
    return lost === 0 && slowest <= MAX_MS && deaf <= MAX_MS && acknowledged.length > CLIENTS ? 0 : 1;
  } finally {
    proxy.close();
    await pool.end();
    for (const item of served.reverse()) await item.stop();
  }
}
