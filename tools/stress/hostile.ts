import { existsSync, readFileSync } from "node:fs";
import { request } from "node:http";
import { join } from "node:path";
import { randomFrom } from "@hearth/core";
import { v7 } from "uuid";
import { demoId, WORKSHOP } from "../../demo/workshop";
import { readRunning } from "../home";
import { freePort, passingHome } from "../processes";
import { serve } from "../serve";

const MANY = Number(process.env.HEARTH_REQUESTS ?? 10_000);
const AT_ONCE = 12;
const SLOW_MS = 1_000;

interface Shot {
  method: string;
  path: string;
  headers: Record<string, string>;
  body: string | Buffer;
}

const POT = demoId(8, 6);
const TRIAL = demoId(0x3f, 2);
const WELL: [string, string, unknown][] = [
  ["POST", "/api/v1/scale", { basis: "wax", load_percent: 8, vessels: [{ fill_g: 100, count: 4 }], spare_percent: 5, scale_resolution_g: 1 }],
  ["POST", "/api/v1/fill", { water_g: 200, wax_density: 0.9 }],
  [
    "POST",
    `/api/workshops/${WORKSHOP.id}/batches/${POT}/events`,
    { id: v7(), kind: "note", happenedAt: "2026-03-14T14:20:00Z", personId: null, payload: { text: "x" } },
  ],
  [
    "POST",
    `/api/workshops/${WORKSHOP.id}/batches/${POT}/events`,
    { id: v7(), kind: "read", happenedAt: "2026-03-14T14:20:00Z", personId: null, payload: { step: null, shown: 6_000, correction: 0 } },
  ],
  ["POST", `/api/workshops/${WORKSHOP.id}/import`, { format: "hearth-jar/batch-record", version: 3, batch: { id: v7(), number: 1 } }],
  ["GET", `/api/workshops/${WORKSHOP.id}/batches/${POT}/log?after=0`, null],
  [
    "POST",
    `/api/workshops/${WORKSHOP.id}/trials/${TRIAL}/events`,
    { id: v7(), kind: "checked", happenedAt: "2026-03-14T09:00:00.000Z", personId: null, payload: { testCandle: "A1", flame: "steady", poolUm: 60000 } },
  ],
  ["GET", `/api/workshops/${WORKSHOP.id}/trials/${TRIAL}/log?after=0`, null],
  ["GET", `/api/workshops/${WORKSHOP.id}/trials/${TRIAL}/record?as=csv`, null],
  ["GET", `/api/workshops/${WORKSHOP.id}/batches`, null],
  ["GET", `/api/workshops/${WORKSHOP.id}/shelf/wax`, null],
  ["GET", `/api/workshops/${WORKSHOP.id}/batches/${POT}/record?as=csv`, null],
  [
    "POST",
    `/api/workshops/${WORKSHOP.id}/notes`,
    { id: v7(), kind: "batch", of: POT, personId: null, text: "x", pictures: [{ id: v7(), jpeg: "/9j/4AAQSkZJRgABAQAAAQABAAD/2Q==" }] },
  ],
  ["GET", `/api/workshops/${WORKSHOP.id}/pictures/${v7()}`, null],
  ["GET", `/api/workshops/${WORKSHOP.id}/catalogue`, null],
  ["GET", "/api/clock", null],
  ["GET", "/api/health", null],
];
const PAGES = [
  `/w/${WORKSHOP.id}`,
  `/w/${WORKSHOP.id}/shelf`,
  `/w/${WORKSHOP.id}/formulas`,
  `/w/${WORKSHOP.id}/plan`,
  `/w/${WORKSHOP.id}/plan/fill`,
  `/w/${WORKSHOP.id}/bench`,
  `/w/${WORKSHOP.id}/bench/${POT}`,
  `/w/${WORKSHOP.id}/rack`,
  `/w/${WORKSHOP.id}/inspect`,
  `/w/${WORKSHOP.id}/burn`,
  `/w/${WORKSHOP.id}/burn/new`,
  `/w/${WORKSHOP.id}/burn/wicks`,
  `/w/${WORKSHOP.id}/burn/${TRIAL}`,
  `/w/${WORKSHOP.id}/records`,
  `/w/${WORKSHOP.id}/records/import`,
  "/workshops",
  `/w/${WORKSHOP.id}/shelf/file`,
  `/w/${WORKSHOP.id}/formulas/new`,
  `/w/${WORKSHOP.id}/formulas/processes`,
  `/w/${WORKSHOP.id}/products`,
  `/w/${WORKSHOP.id}/products/new`,
  `/w/${WORKSHOP.id}/first`,
  `/w/${WORKSHOP.id}/words`,
  // An address of an earlier version.
  "/rack",
  `/w/${WORKSHOP.id}/people`,
  `/w/${WORKSHOP.id}/people/audit-log`,
];

/** Returns the commands of the built program, each as its name in the build and some arguments of the right shape. */
function actions(): string[] {
  const manifest = JSON.parse(readFileSync(new URL("../../web/.next/server/server-reference-manifest.json", import.meta.url), "utf8")) as {
    node: Record<string, unknown>;
  };
  return Object.keys(manifest.node);
}

function shots(seed: number) {
  const next = randomFrom(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)] as T;
  const ids = actions();
  const strange = (depth = 0): unknown => {
    const kind = Math.floor(next() * (depth > 4 ? 9 : 12));
    return [
      () => null,
      () => next() < 0.5,
      () => pick([0, -1, 1e308, -1e308, 2 ** 53, 2 ** 31, 0.1, 1e-300, 4_294_967_296, -0]),
      () => "",
      () => "\u0000",
      () => pick(["\ud800", "' or 1=1; --", "<script>alert(1)</script>", "../../etc/passwd", "=cmd()", "%00", "𝒳".repeat(300), "x".repeat(5_000)]),
      () => v7(),
      () => pick(["2026-03-14T14:20:00+23:59", "0000-01-01T00:00:00Z", "275760-09-13T00:00:00Z", "2026-02-30T10:00:00Z", "yesterday"]),
      () => pick(["wax", "note", "read", "started", "closed", "withdrawn", "__proto__", "constructor"]),
      () => Array.from({ length: Math.floor(next() * 6) }, () => strange(depth + 1)),
      () =>
        Object.fromEntries(
          Array.from({ length: Math.floor(next() * 6) }, () => [
            pick(["id", "kind", "payload", "text", "mg", "__proto__", "toString", "name", "values", "x\u0000"]),
            strange(depth + 1),
          ]),
        ),
      () => JSON.parse(`${"[".repeat(40)}${"]".repeat(40)}`),
    ][kind]?.();
  };
  const spoil = (value: unknown): unknown => {
    if (!value || typeof value !== "object" || next() < 0.08) return next() < 0.6 ? strange() : value;
    if (Array.isArray(value)) return value.map(spoil);
    return Object.fromEntries(Object.entries(value).flatMap(([key, item]) => (next() < 0.1 ? [] : [[key, next() < 0.35 ? spoil(item) : item]])));
  };
  const place = () => ({ workshopId: next() < 0.8 ? WORKSHOP.id : strange(), personId: next() < 0.5 ? null : strange() });
  return (): Shot => {
    const headers: Record<string, string> = {
      "content-type": pick(["application/json", "application/json", "text/plain", "multipart/form-data; boundary=x", "application/x-www-form-urlencoded", "x"]),
    };
    if (next() < 0.1) headers.cookie = pick(["hearth_workshop=nobody", "hearth_workshop=%00", "=;;=", `hearth_person=${"9".repeat(3_000)}`]);
    const roll = next();
    if (roll < 0.4) {
      const [method, path, body] = pick(WELL);
      const text = body === null ? "" : JSON.stringify(spoil(body));
      const cut = next();
      return {
        method: next() < 0.9 ? method : pick(["PUT", "DELETE", "PATCH", "POST", "OPTIONS"]),
        path: next() < 0.85 ? path : path.replace(WORKSHOP.id, String(pick([v7(), "x", "%00", "..%2f", "0".repeat(400)]))),
        headers,
        body:
          cut < 0.1
            ? text.slice(0, Math.floor(text.length * next()))
            : cut < 0.15
              ? Buffer.from(Array.from({ length: 200 }, () => Math.floor(next() * 256)))
              : cut < 0.18
                ? "[".repeat(90_000)
                : text,
      };
    }
    if (roll < 0.7) {
      const args = next() < 0.7 ? [place(), strange(), strange()] : strange();
      return {
        method: "POST",
        path: pick(["", "/shelf", "/plan", "/formulas/new"].map((text) => `/w/${WORKSHOP.id}${text}`)),
        headers: {
          ...headers,
          "content-type": "text/plain;charset=UTF-8",
          "next-action": next() < 0.95 ? pick(ids) : "0".repeat(42),
          accept: "text/x-component",
        },
        body: next() < 0.9 ? JSON.stringify(args ?? null) : pick(["", "[", '["$Q1"]', '["$K1"]', '["$F1"]', '["$undefined",{}]', "\u0000"]),
      };
    }
    const path = pick(PAGES);
    const query = pick([
      "",
      "",
      "?after=x",
      "?after=1&after=2",
      `?after=2026-03-14T14:20:00.000Z_${v7()}`,
      "?formula=%00",
      "?formula=x&fill=a:1,b:c",
      "?wicks=99",
      `?${"a".repeat(2_000)}=1`,
      "?fill=%E0%A4%A",
    ]);
    return {
      method: pick(["GET", "GET", "GET", "HEAD", "POST"]),
      path: `${next() < 0.9 ? path : `${path}/${pick(["x", v7(), "%2e%2e", "%E0%A4%A", "a".repeat(500)])}`}${query}`,
      headers: next() < 0.1 ? { ...headers, rsc: "1" } : { cookie: headers.cookie ?? "" },
      body: "",
    };
  };
}

const send = (url: URL, { method, path, headers, body }: Shot): Promise<{ status: number; ms: number }> =>
  new Promise((resolve) => {
    const began = performance.now();
    const done = (status: number) => resolve({ status, ms: performance.now() - began });
    const clean = Object.fromEntries(Object.entries(headers).filter(([, value]) => value !== ""));
    const sent = request(
      { host: url.hostname, port: url.port, method, path, headers: { ...clean, "content-length": String(Buffer.byteLength(body)) } },
      (answer) => {
        answer.resume();
        answer.once("end", () => done(answer.statusCode ?? 0));
        answer.once("error", () => done(0));
      },
    );
    sent.once("error", () => done(0));
    sent.end(body);
  });

/** Returns the memory that the web server holds once it gave back what it does not need, in megabytes. */
async function memoryOf(home: string): Promise<number> {
  const asked = Date.now();
  process.kill(readRunning(home).web as number, "SIGUSR2");
  for (;;) {
    await new Promise((rest) => setTimeout(rest, 200));
    const file = join(home, "memory.json");
    const noted = existsSync(file)
      ? (JSON.parse(readFileSync(file, "utf8")) as { at: number; heapUsed: number; external: number })
      : { at: 0, heapUsed: 0, external: 0 };
    if (noted.at >= asked) return (noted.heapUsed + noted.external) / 1_048_576;
    if (Date.now() - asked > 20_000) throw new Error("The web server does not say what memory it holds.");
  }
}

/** Random and hostile requests at every route and command: no fault of the server, none slow, and memory comes back. */
export async function hostile(): Promise<number> {
  const seed = Number(process.env.HEARTH_SEED ?? 20_260_314);
  const home = passingHome("hostile");
  process.env.HEARTH_LOG = "error";
  const served = await serve({ home, port: await freePort(), demo: true, ownDatabase: true });
  const url = new URL(served.url);
  try {
    const shot = shots(seed);
    const bad: string[] = [];
    const slow: string[] = [];
    const times: number[] = [];
    const seen = new Map<number, number>();
    const volley = async (many: number, count: boolean) => {
      let left = many;
      await Promise.all(
        Array.from({ length: AT_ONCE }, async () => {
          while (left-- > 0) {
            const item = shot();
            const { status, ms } = await send(url, item);
            if (!count) continue;
            times.push(ms);
            seen.set(status, (seen.get(status) ?? 0) + 1);
            const said = `${status} ${Math.round(ms)} ms ${item.method} ${item.path.slice(0, 90)} ${item.headers["next-action"] ?? ""} ${String(item.body).slice(0, 120)}`;
            if (status >= 500 || status === 0) bad.push(said);
            if (ms > SLOW_MS) slow.push(said);
          }
        }),
      );
    };
    // What a server takes once it has seen everything is what it should come back to.
    await volley(Math.min(2_000, MANY), false);
    await new Promise((rest) => setTimeout(rest, 5_000));
    const before = await memoryOf(home);
    await volley(MANY, true);
    await new Promise((rest) => setTimeout(rest, 15_000));
    const after = await memoryOf(home);
    times.sort((a, b) => a - b);
    console.log(
      `${MANY} requests, seed ${seed}; answers: ${[...seen]
        .sort((a, b) => a[0] - b[0])
        .map(([status, n]) => `${status}: ${n}`)
        .join(", ")}`,
    );
    console.log(
      `median ${times[times.length >> 1]?.toFixed(1)} ms, slowest ${times.at(-1)?.toFixed(0)} ms; memory ${before.toFixed(0)} MB before, ${after.toFixed(0)} MB after, ratio ${(after / before).toFixed(2)} (at most 1.1)`,
    );
    for (const text of bad.slice(0, 12)) console.log(`fault: ${text}`);
    for (const text of slow.slice(0, 5)) console.log(`slow: ${text}`);
    return bad.length === 0 && slow.length === 0 && after <= before * 1.1 ? 0 : 1;
  } finally {
    await served.stop();
  }
}
