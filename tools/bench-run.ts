import { rmSync, writeFileSync } from "node:fs";
import { Agent, request } from "node:http";
import { join } from "node:path";
import { chromium, type Page } from "@playwright/test";
import { and, count, eq, inArray } from "drizzle-orm";
import { v7 } from "uuid";
import { eventRow } from "../web/data/batch-rows";
import { type Database, openDatabase } from "../web/data/client";
import { batchEvents, batches } from "../web/data/tables/batch";
import { eventsOf } from "../web/server/events";
import { median, POT, readings, shed } from "./bench-log";
import { passingHome } from "./processes";
import { serve } from "./serve";
import { CHROMIUM, FROZEN } from "./shots";

/** Two hundred benches: so many workshops with so many pots each. */
const WORKSHOPS = 25;
const POTS = 8;
const SECONDS = 20;
const ENTRIES = 400;
/** The first ones warm what a server that has run for a minute has warm. */
const WARMING = 100;
const LONG = 20_000;
const SHORT = 200;

/** So many pots like the demo's in a workshop, each with a log of its own. */
async function benches(db: Database, workshop: string): Promise<string[]> {
  const [row] = await db
    .select()
    .from(batches)
    .where(and(eq(batches.workshopId, workshop), eq(batches.id, POT)));
  if (!row) throw new Error("The demo has no such pot.");
  const log = await eventsOf(db, workshop, POT);
  const ids = Array.from({ length: POTS }, () => v7());
  for (const [place, id] of ids.entries()) {
    await db.insert(batches).values({ ...row, id, number: 2_000 + place });
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
  payload: { act: null, shown, correction: 0 },
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
  console.log(`ratio ${(slow / fast).toFixed(1)} (at most 4)`);
}

/** So many benches, each hearing the workshop and putting a reading down every second. */
async function live(db: Database, url: string, rows: { workshop: string; id: string }[], at: () => string): Promise<void> {
  const sentAt = new Map<string, number>();
  const ways: number[] = [];
  const stop = new AbortController();
  // Each bench hears its own readings back, as its page does.
  const hear = async (workshop: string, batch: string, begun: () => void) => {
    const answer = await fetch(`${url}/api/workshops/${workshop}/live`, { signal: stop.signal });
    const reader = (answer.body as ReadableStream<Uint8Array>).getReader();
    const decoder = new TextDecoder();
    let text = "";
    for (;;) {
      const { done, value } = await reader.read();
      begun();
      if (done) return;
      text += decoder.decode(value, { stream: true });
      const told = text.split("\n\n");
      text = told.pop() ?? "";
      for (const one of told) {
        if (!one.includes(batch)) continue;
        const id = /"id":"([0-9a-f-]{36})"/g;
        for (const [, found] of one.matchAll(id)) {
          const from = sentAt.get(found as string);
          if (from === undefined) continue;
          ways.push(performance.now() - from);
          sentAt.delete(found as string);
        }
      }
    }
  };
  const heard: Promise<void>[] = [];
  await Promise.all(rows.map(({ workshop, id }) => new Promise<void>((begun) => void heard.push(hear(workshop, id, begun).catch(() => undefined)))));
  const keptReadings = async () => {
    const [kept] = await db
      .select({ n: count() })
      .from(batchEvents)
      .where(and(inArray(batchEvents.workshopId, [...new Set(rows.map((one) => one.workshop))]), eq(batchEvents.kind, "read")));
    return kept?.n ?? 0;
  };
  const before = await keptReadings();
  let sent = 0;
  let again = 0;
  const posts: Promise<void>[] = [];
  const post = async (workshop: string, batch: string, n: number) => {
    const entry = sentReading(at(), 5_000 + n);
    sentAt.set(entry.id, performance.now());
    sent++;
    // One that is not acknowledged waits on its device and is sent again, as the page does it.
    for (;;) {
      const done = await put(url, workshop, batch, entry)
        .then((answer) => answer.ok)
        .catch(() => false);
      if (done) return;
      again++;
      await new Promise((after) => setTimeout(after, 1_000));
    }
  };
  const from = performance.now();
  for (let second = 0; second < SECONDS; second++) {
    const next = new Promise((after) => setTimeout(after, 1_000));
    // Spread over the second, as probes of their own are.
    for (const [place, { workshop, id }] of rows.entries())
      posts.push(new Promise<void>((after) => setTimeout(after, (place / rows.length) * 1_000)).then(() => post(workshop, id, second)));
    await next;
  }
  await Promise.all(posts);
  const took = (performance.now() - from) / 1_000;
  // What is still on its way is waited for, if not for ever.
  for (let waited = 0; sentAt.size > 0 && waited < 100; waited++) await new Promise((after) => setTimeout(after, 100));
  stop.abort();
  await Promise.all(heard);
  const lost = sent - ((await keptReadings()) - before);
  const late = [...ways].sort((a, b) => a - b);
  console.log(`${rows.length} benches, a reading a second each for ${SECONDS} s:     ${sent} sent, ${lost} lost, ${again} sent again (none lost)`);
  console.log(`all of it written after                            ${took.toFixed(0)} s (${SECONDS})`);
  console.log(
    `from a probe to its bench:                         ${median(late).toFixed(0)} ms at the median, ${(late[Math.floor(late.length * 0.95)] ?? 0).toFixed(0)} ms in 19 of 20, ${late.length} heard (under 1000)`,
  );
}

/** What the page works at each second, when nothing but its clock and heat line move: ms. */
async function redraw(page: Page, url: string, workshop: string): Promise<number> {
  await page.goto(`${url}/w/${workshop}/bench/${POT}`);
  await page.locator("html[data-awake]").waitFor({ state: "attached" });
  await page.waitForTimeout(3_000);
  const session = await page.context().newCDPSession(page);
  await session.send("Performance.enable");
  const worked = async () => {
    const { metrics } = await session.send("Performance.getMetrics");
    return (metrics.find((one) => one.name === "TaskDuration")?.value ?? 0) * 1_000;
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
    const pots = await benches(db, short);
    await acknowledged(db, served.url, short, pots[0] as string, pots[1] as string, at);
    const all: { workshop: string; id: string }[] = [];
    for (let n = 0; n < WORKSHOPS; n++) {
      const workshop = await shed(db, 20, 1);
      all.push(...(await benches(db, workshop)).map((id) => ({ workshop, id })));
    }
    await live(db, served.url, all, at);
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
