import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { afterEach, describe, expect, it } from "vitest";
import { shared } from "./share";

let server: Server;
let drawn = 0;
let letGo: (() => void)[] = [];
afterEach(() => new Promise((done) => server.close(done)));

/** A server whose pages take until they are let go, and say how often one was drawn and what had been written by then. */
async function serving(state: { written: number }): Promise<string> {
  drawn = 0;
  letGo = [];
  const handle = shared(async (request, response) => {
    drawn += 1;
    const seen = state.written;
    if (!request.url?.includes("quick")) await new Promise<void>((go) => letGo.push(go));
    response.setHeader("content-type", "text/plain");
    response.write(`${request.headers.cookie ?? "nobody"} `);
    response.end(`saw ${seen}`);
  });
  server = createServer((request, response) => void handle(request, response));
  await new Promise<void>((ready) => server.listen(0, "127.0.0.1", ready));
  return `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
}
const text = async (answer: Promise<Response>) => (await answer).text();
const until = async (check: () => boolean) => {
  while (!check()) await new Promise((next) => setTimeout(next, 5));
};

describe("a page that many ask for at once", () => {
  it("is drawn once for all who asked before it was begun, and never from before they asked", async () => {
    const state = { written: 1 };
    const url = await serving(state);
    const first = text(fetch(`${url}/bench`));
    await until(() => letGo.length === 1);
    // While it is drawn something is written, and five more ask.
    state.written = 2;
    const later = Array.from({ length: 5 }, () => text(fetch(`${url}/bench`)));
    await new Promise((next) => setTimeout(next, 50));
    letGo[0]?.();
    expect(await first).toBe("nobody saw 1");
    await until(() => letGo.length === 2);
    letGo[1]?.();
    expect(await Promise.all(later)).toEqual(Array.from({ length: 5 }, () => "nobody saw 2"));
    expect(drawn).toBe(2);
  });

  it("is another page for who works in another workshop; what is no page is never shared", async () => {
    const url = await serving({ written: 1 });
    const mine = text(fetch(`${url}/bench`, { headers: { cookie: "hearth_workshop=a" } }));
    const yours = text(fetch(`${url}/bench`, { headers: { cookie: "hearth_workshop=b" } }));
    await until(() => letGo.length === 2);
    for (const go of letGo) go();
    expect([await mine, await yours]).toEqual(["hearth_workshop=a saw 1", "hearth_workshop=b saw 1"]);
    await Promise.all([text(fetch(`${url}/api/quick`)), text(fetch(`${url}/api/quick`)), text(fetch(`${url}/quick`, { method: "POST" }))]);
    expect(drawn).toBe(5);
  });

  it("is drawn for the others where the first to ask has gone", async () => {
    const url = await serving({ written: 1 });
    const gone = new AbortController();
    const first = fetch(`${url}/rack`, { signal: gone.signal }).catch(() => "gone");
    await until(() => letGo.length === 1);
    const other = text(fetch(`${url}/rack`));
    await new Promise((next) => setTimeout(next, 50));
    gone.abort();
    expect(await first).toBe("gone");
    await until(() => letGo.length === 2);
    letGo[1]?.();
    expect(await other).toBe("nobody saw 1");
    letGo[0]?.();
  });
});
