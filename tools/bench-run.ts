import { rmSync, writeFileSync } from "node:fs";
import { Agent, request } from "node:http";
import { join } from "node:path";
import { chromium, type Page } from "@playwright/test";
import { and, count, eq, inArray } from "drizzle-orm";
import { v7 } from "uuid";
import { eventRow } from "../web/data/batch-rows";
import { type Database, openDatabase } from "../web/data/client";
import { batchEvents, batches } from "../web/data/tables/batch";
import { readBatchEvents } from "../web/server/events/read-events";
import { median, POT, readings, shed } from "./bench-log";
import { passingHome } from "./processes";
import { serve } from "./serve";
import { CHROMIUM, FROZEN } from "./shots";

/** As many workshops as a server is for, with two devices each; and one workshop with ten. */
const WORKSHOPS = 50;
const DEVICES = 10;
const SECONDS = 20;
const ENTRIES = 400;
/** The first ones warm what a server that has run for a minute has warm. */
const WARMING = 100;
const LONG = 20_000;
const SHORT = 200;

/** So many pots like the demo's in a workshop, each with a log of its own. */
async function benches(db: Database, workshop: string, pots: number): Promise<string[]> {
  const [row] = await db
    .select()
    .from(batches)
    .where(and(eq(batches.workshopId, workshop), eq(batches.id, POT)));
  if (!row) throw new Error("The demo has no such pot.");
  const log = await readBatchEvents(db, workshop, POT);
  const ids = Array.from({ length: pots }, () => v7());
  for (const [index, id] of ids.entries()) {
    await db.insert(batches).values({ ...row, id, number: 2_000 + index });
    await db.insert(batchEvents).values(log.map((event) => eventRow(workshop, id, { ...event, id: v7(), corrects: null })));
  }
  return ids;
}

const sentReading = (at: string, shown: number) => ({
  id: v7(),
  kind: "read",
  v: 1,
  happenedAt: at,
  personId: null,
  instrumentId: null,
  corrects: null,
  payload: { step: null, shown, correction: 0 },
});

/** Connections stay open, as a page's do. */
const agent = new Agent({ keepAlive: true, timeout: 30_000 });

/** Sends one entry, and says whether it was acknowledged, and with what words. */
const put = (url: string, workshop: string, batch: string, entry: object): Promise<{ ok: boolean; text: string }> =>
  new Promise((done, failed) => {
    const body = JSON.stringify(entry);
    const headers = { "content-type": "application/json", "content-length": Buffer.byteLength(body) };
    const sent = request(`${url}/api/workshops/${workshop}/batches/${batch}/events`, { method: "POST", agent, headers }, (answer) => {
      let text = "";
      answer.setEncoding("utf8").on("data", (piece) => (text += piece));
      answer.on("end", () => done({ ok: answer.statusCode === 200, text }));
    });
    sent.on("timeout", () => sent.destroy(new Error("No answer.")));
    sent.on("error", failed).end(body);
  });

/** One entry over loopback until it is acknowledged, beside a bare insert of the same row by the same driver. */
async function acknowledged(db: Database, url: string, workshop: string, batch: string, other: string, at: () => string): Promise<void> {
  const [through, bare]: [number[], number[]] = [[], []];
  const [raw] = readings(at(), 1);
  for (let i = 0; i < ENTRIES; i++) {
    const entry = sentReading(at(), 6_000 + i);
    let from = performance.now();
    const answer = await put(url, workshop, batch, entry);
    if (!answer.ok) throw new Error(answer.text);
    through.push(performance.now() - from);
    const row = eventRow(workshop, other, { ...(raw as NonNullable<typeof raw>), id: v7(), happenedAt: at(), arrivedAt: at() });
    from = performance.now();
    await db.insert(batchEvents).values(row);
    bare.push(performance.now() - from);
  }
  const [slow, fast] = [median(through.slice(WARMING)), median(bare.slice(WARMING))];
  console.log(`an entry to its acknowledgement over loopback:     ${slow.toFixed(2)} ms at the median`);
  console.log(`a bare insert of the same row:                     ${fast.toFixed(2)} ms at the median`);
  console.log(`ratio ${(slow / fast).toFixed(1)} (at most 12)`);
}

/** Devices that put a reading down every second: how long each waits for its acknowledgement, and whether one is lost. */
async function busy(db: Database, url: string, what: string, rows: { workshop: string; id: string }[], at: () => string): Promise<void> {
  const keptReadings = async () => {
    const [kept] = await db
      .select({ n: count() })
      .from(batchEvents)
      .where(and(inArray(batchEvents.workshopId, [...new Set(rows.map((row) => row.workshop))]), eq(batchEvents.kind, "read")));
    return kept?.n ?? 0;
  };
  const before = await keptReadings();
  const waits: number[] = [];
  let refused = 0;
  const post = async ({ workshop, id }: { workshop: string; id: string }, n: number) => {
    const from = performance.now();
    const { ok } = await put(url, workshop, id, sentReading(at(), 5_000 + n)).catch(() => ({ ok: false }));
    waits.push(performance.now() - from);
    if (!ok) refused += 1;
  };
  const posts: Promise<void>[] = [];
  for (let second = 0; second < SECONDS; second++) {
    const next = new Promise((after) => setTimeout(after, 1_000));
    // Spread over the second, as probes of their own are.
    for (const [index, row] of rows.entries())
      posts.push(new Promise<void>((after) => setTimeout(after, (index / rows.length) * 1_000)).then(() => post(row, second)));
    await next;
  }
  await Promise.all(posts);
  const lost = waits.length - refused - ((await keptReadings()) - before);
  const sorted = [...waits].sort((value, other) => value - other);
  const at95 = sorted[Math.ceil(sorted.length * 0.95) - 1] ?? 0;
  console.log(`${what}, a reading a second for ${SECONDS} s: ${waits.length} sent, ${refused} not taken, ${lost} lost (none)`);
  console.log(
    `to their acknowledgement: ${median(waits).toFixed(0)} ms at the median, ${at95.toFixed(0)} ms in 95 of 100 (300), ${(sorted.at(-1) ?? 0).toFixed(0)} ms at most (2000)`,
  );
}

/** Returns what the page works at each second, when nothing but its clock and heat line move: ms. */
async function redraw(page: Page, url: string, workshop: string): Promise<number> {
  await page.goto(`${url}/w/${workshop}/bench/${POT}`);
  await page.locator("html[data-hydrated]").waitFor({ state: "attached" });
  await page.waitForTimeout(3_000);
  const session = await page.context().newCDPSession(page);
  await session.send("Performance.enable");
  const worked = async () => {
    const { metrics } = await session.send("Performance.getMetrics");
    return (metrics.find((metric) => metric.name === "TaskDuration")?.value ?? 0) * 1_000;
  };
  const before = await worked();
  await page.waitForTimeout(10_000);
  return ((await worked()) - before) / 10;
}

/** What the run costs: an entry, many benches at once, and the heat line of a long run beside a short one. */
export async function benchRun(): Promise<void> {
  const home = passingHome("bench");
  const clockFile = join(home, "clock");
  const began = Date.now();
  const at = () => new Date(Date.parse(FROZEN) + 8 * 3_600_000 + (Date.now() - began)).toISOString();
  // Its clock runs ahead of every entry, and stands.
  writeFileSync(clockFile, new Date(Date.parse(FROZEN) + 9 * 3_600_000).toISOString());
  const served = await serve({ home, port: 4_880, demo: true, ownDatabase: true, clockFile });
  const { db, pool } = openDatabase(served.databaseUrl);
  const browser = await chromium.launch(CHROMIUM);
  try {
    const short = await shed(db, SHORT, 1);
    const pots = await benches(db, short, DEVICES);
    await acknowledged(db, served.url, short, pots[0] as string, pots[1] as string, at);
    await busy(
      db,
      served.url,
      `${DEVICES} devices in one workshop`,
      pots.map((id) => ({ workshop: short, id })),
      at,
    );
    const all: { workshop: string; id: string }[] = [];
    for (let n = 0; n < WORKSHOPS; n++) {
      const workshop = await shed(db, 20, 1);
      all.push(...(await benches(db, workshop, 2)).map((id) => ({ workshop, id })));
    }
    await busy(db, served.url, `${WORKSHOPS} workshops with two devices each`, all, at);
    const [long, brief] = [await shed(db, LONG, 1), await shed(db, SHORT, 1)];
    const page = async () => (await browser.newContext({ viewport: { width: 1_280, height: 800 }, serviceWorkers: "block" })).newPage();
    const [slow, fast] = [await redraw(await page(), served.url, long), await redraw(await page(), served.url, brief)];
    console.log(`a heat line of ${LONG} readings, each second:       ${slow.toFixed(1)} ms (a frame is 16)`);
    console.log(`one of ${SHORT} readings:                             ${fast.toFixed(1)} ms`);
    console.log(`ratio ${(slow / fast).toFixed(2)} (at most 2)`);
  } finally {
    await browser.close();
    await pool.end();
    await served.stop();
    rmSync(home, { recursive: true, force: true });
  }
}
