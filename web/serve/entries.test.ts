import { createServer, request, type Server } from "node:http";
import { connect } from "node:net";
import { afterAll, beforeAll, expect, it } from "vitest";
import { tookEntry } from "./entries";

const WORKSHOP = "0190c0de-0001-7000-8000-000000000001";
const PATH = `/api/workshops/${WORKSHOP}/batches/${WORKSHOP}/events`;
let server: Server;
let port: number;
beforeAll(async () => {
  server = createServer((asked, response) => {
    if (!tookEntry(asked, response)) response.writeHead(299).end("left to the pages");
  });
  await new Promise<void>((ready) => server.listen(0, "127.0.0.1", ready));
  port = (server.address() as { port: number }).port;
});
afterAll(() => new Promise((done) => server.close(done)));

const TRIAL_PATH = `/api/workshops/${WORKSHOP}/trials/${WORKSHOP}/events`;
const send = (headers: Record<string, string>, body = "{}", path = PATH, method = "POST") =>
  new Promise<{ status: number; text: string; headers: Record<string, unknown> }>((done, failed) => {
    const asked = request({ port, host: "127.0.0.1", path, method, headers }, (answer) => {
      let text = "";
      answer.on("data", (piece) => (text += piece));
      answer.on("end", () => done({ status: answer.statusCode ?? 0, text, headers: answer.headers }));
    });
    asked.on("error", failed);
    asked.end(body);
  });
const own = () => ({ host: `127.0.0.1:${port}`, "content-type": "application/json" });

it("an entry that is not for this server, or from another site, is refused as by the pages, with their headers", async () => {
  expect((await send({ ...own(), host: "records.example" })).status).toBe(403);
  const foreign = await send({ ...own(), origin: "http://elsewhere.example" });
  expect(foreign.status).toBe(403);
  expect(JSON.parse(foreign.text)).toMatchObject({ error: { message: expect.stringContaining("another site"), fields: {} } });
  expect((await send({ ...own(), origin: "http://[" })).status).toBe(400);
  expect((await send({ ...own(), origin: "null" })).status).toBe(403);
  for (const name of ["x-content-type-options", "x-frame-options", "content-security-policy", "referrer-policy"]) expect(foreign.headers[name]).toBeTruthy();
});

it("what cannot be read is told at its field, one that is too long is not read to its end, and all else is left to the pages", async () => {
  expect(await send(own(), "no json")).toMatchObject({ status: 400 });
  expect(JSON.parse((await send({ ...own(), origin: `http://127.0.0.1:${port}` }, '{"kind":"read"}')).text).error.fields).not.toEqual({});
  expect((await send(own(), JSON.stringify({ text: "x".repeat(120_000) }))).status).toBe(413);
  for (const [path, method] of [
    [PATH, "GET"],
    [`${PATH}?x=1`, "POST"],
    [PATH.replace("events", "log"), "POST"],
    [PATH.replace(WORKSHOP, "other"), "POST"],
  ] as const)
    expect((await send(own(), "", path, method)).status).toBe(299);
  expect((await send({ ...own(), "next-action": "x" })).status).toBe(299);
});

it("who goes away in the middle of an entry takes nothing down with it", async () => {
  await new Promise<void>((gone) => {
    const socket = connect(port, "127.0.0.1", () => {
      socket.write(`POST ${PATH} HTTP/1.1\r\nhost: 127.0.0.1:${port}\r\ncontent-type: application/json\r\ncontent-length: 500\r\n\r\n{"kind":`);
      setTimeout(() => socket.destroy(), 50);
    });
    socket.on("close", () => gone());
  });
  expect((await send(own(), "no json")).status).toBe(400);
});

it("an entry of a burn trial is answered the same way, and one of anything else is left to the pages", async () => {
  const odd = await send(own(), "not json", TRIAL_PATH);
  expect(odd.status).toBe(400);
  const unknown = await send(own(), JSON.stringify({ kind: "poured", payload: {} }), TRIAL_PATH);
  expect(unknown.status).toBe(400);
  expect(JSON.parse(unknown.text).error.fields).toBeTruthy();
  expect((await send({ ...own(), origin: "http://elsewhere.example" }, "{}", TRIAL_PATH)).status).toBe(403);
  expect((await send(own(), "{}", `/api/workshops/${WORKSHOP}/notes/${WORKSHOP}/events`)).status).toBe(299);
  expect((await send(own(), "", TRIAL_PATH, "GET")).status).toBe(299);
});

it("so is one of an order, which is counted at a stall, and it takes no entry of a batch", async () => {
  const path = `/api/workshops/${WORKSHOP}/orders/${WORKSHOP}/events`;
  const head = { id: WORKSHOP, happenedAt: "2026-03-14T10:00:00Z", personId: null };
  const of = async (body: object) => JSON.parse((await send(own(), JSON.stringify({ ...head, ...body }), path)).text).error.fields;
  expect(await of({ kind: "poured", payload: {} })).toBeTruthy();
  const went = { sellable: WORKSHOP, name: "Rain", packs: 0, to: "sold" };
  expect(await of({ kind: "went", payload: went })).toMatchObject({ packs: ["At least one."] });
  expect(await of({ kind: "went", payload: { ...went, packs: 1, to: "eaten" } })).toHaveProperty("to");
  expect((await send({ ...own(), origin: "http://elsewhere.example" }, "{}", path)).status).toBe(403);
});
