import { randomUUID } from "node:crypto";
import { rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { type BatchEvent, batchOf } from "@hearth/core";
import { chromium, type Page } from "@playwright/test";
import { and, eq } from "drizzle-orm";
import { v7 } from "uuid";
import { putDemo } from "../demo/load";
import { demoId } from "../demo/workshop";
import { eventRow, rowOf } from "../web/data/batch-rows";
import { type Database, openDatabase } from "../web/data/client";
import { batchEvents, batches } from "../web/data/tables/batch";
import { listBatches } from "../web/server/batches/batches";
import { appendEvent } from "../web/server/events/batch-store";
import { readBatchEvents } from "../web/server/events/read-events";
import { passingHome } from "./processes";
import { serve } from "./serve";
import { CHROMIUM, FROZEN } from "./shots";

/** Two hours of a probe that is read once a second. */
const MANY = 7_200;
const FEW = 20;
const LISTED = 25;
const PAGES = 20;
/** The demo's pot that has been weighed and waits for heat. */
export const POT = demoId(8, 6);
const PROBE = demoId(5, 3);

export const median = (list: number[]): number => {
  const sorted = [...list].sort((a, b) => a - b);
  return ((sorted[(sorted.length - 1) >> 1] as number) + (sorted[sorted.length >> 1] as number)) / 2;
};
const ms = (value: number) => `${value.toFixed(2)} ms`;

/** So many readings, a second apart, up and down as a pot on a burner goes. */
export const readings = (from: string, count: number): BatchEvent[] =>
  Array.from({ length: count }, (_, i) => {
    const at = new Date(Date.parse(from) + (i + 1) * 1_000).toISOString();
    const shown = 6_000 + Math.round(1_500 * Math.sin(i / 300));
    return {
      id: v7(),
      kind: "read",
      happenedAt: at,
      arrivedAt: at,
      personId: null,
      instrumentId: PROBE,
      corrects: null,
      payload: { step: null, shown, correction: 0 },
    } as BatchEvent;
  });

/** A demo workshop of its own whose pot has been read so often; as many batches like it as are listed. */
export async function shed(db: Database, count: number, listed = LISTED): Promise<string> {
  const id = randomUUID();
  await putDemo(db, { id, name: `Shed of ${count}` }, new Date(FROZEN));
  const pot = and(eq(batches.workshopId, id), eq(batches.id, POT));
  const before = await readBatchEvents(db, id, POT);
  const more = readings(before.at(-1)?.happenedAt ?? FROZEN, count - before.length);
  for (let i = 0; i < more.length; i += 1_000) await db.insert(batchEvents).values(more.slice(i, i + 1_000).map((event) => eventRow(id, POT, event)));
  const { plan, state } = batchOf([...before, ...more]);
  await db.update(batches).set(rowOf(plan, state)).where(pot);
  const [row] = await db.select().from(batches).where(pot);
  if (!row) throw new Error("The demo has no such pot.");
  if (listed > 1) await db.insert(batches).values(Array.from({ length: listed - 1 }, (_, i) => ({ ...row, id: randomUUID(), number: 1_000 + i })));
  return id;
}

const now = () => new Date(Date.parse(FROZEN) + 6 * 3_600_000).toISOString();
const noteOf = (text: string, at: string): BatchEvent =>
  ({ id: v7(), kind: "note", happenedAt: at, personId: null, instrumentId: null, corrects: null, payload: { text } }) as unknown as BatchEvent;

async function append(db: Database, workshopId: string): Promise<number> {
  const began = performance.now();
  const out = await appendEvent(db, workshopId, POT, noteOf("measured", now()), now());
  if (!out.ok) throw new Error(out.message);
  return performance.now() - began;
}

/** From pressing the button in one browser until another browser shows the entry, in milliseconds. */
async function seen(writer: Page, reader: Page, text: string): Promise<number> {
  await writer.getByLabel("Note").fill(text);
  // The other browser notes by its own observer when the words appear: asking it again and again would add to the time.
  const shown = reader.evaluate(
    (words) =>
      new Promise<number>((resolve) => {
        const watch = new MutationObserver(() => {
          if (!document.body.innerText.includes(words)) return;
          watch.disconnect();
          resolve(Date.now());
        });
        watch.observe(document.body, { childList: true, subtree: true, characterData: true });
      }),
    text,
  );
  const pressed = await writer.getByRole("button", { name: "Add the note" }).evaluate((button: HTMLButtonElement) => {
    const at = Date.now();
    button.click();
    return at;
  });
  return (await shown) - pressed;
}

/** What the log costs: an entry to a long batch beside a short one, a list of them, and the way to another's screen. */
export async function benchLog(): Promise<void> {
  const home = passingHome("bench");
  const clockFile = join(home, "clock");
  writeFileSync(clockFile, now());
  const served = await serve({ home, port: 4_840, demo: true, ownDatabase: true, clockFile });
  const { db, pool } = openDatabase(served.databaseUrl);
  const browser = await chromium.launch(CHROMIUM);
  try {
    const [long, short] = [await shed(db, MANY), await shed(db, FEW)];
    const bytes = async (id: string) =>
      JSON.stringify((await listBatches(db, id, ["pot"])).batches.filter((batch) => batch.number >= 1_000 || batch.id === POT)).length;
    const [many, few] = [await bytes(long), await bytes(short)];
    const times: [number[], number[]] = [[], []];
    for (let i = 0; i < 60; i++) {
      const pair = [await append(db, long), await append(db, short)] as const;
      // The first few warm the connections and the caches.
      if (i >= 10) times.forEach((list, index) => void list.push(pair[index] as number));
    }
    const [slow, fast] = [median(times[0]), median(times[1])];
    console.log(`adding one entry to a batch of ${MANY} entries:       ${ms(slow)} at the median`);
    console.log(`adding one entry to a batch of ${FEW} entries:         ${ms(fast)} at the median`);
    console.log(`ratio ${(slow / fast).toFixed(2)} (at most 3)`);
    console.log(`a list of ${LISTED} batches of ${MANY} entries:           ${many} bytes`);
    console.log(`a list of ${LISTED} batches of ${FEW} entries:             ${few} bytes`);
    console.log(`ratio ${(many / few).toFixed(2)} (at most 3)`);

    const pages: Page[] = [];
    for (let i = 0; i < PAGES; i++) {
      const context = await browser.newContext({ baseURL: served.url });
      const page = await context.newPage();
      await page.goto(i % 4 === 3 ? `/w/${short}/bench` : `/w/${short}/bench/${POT}`);
      await page.locator("html[data-hydrated]").waitFor({ state: "attached" });
      pages.push(page);
    }
    const [writer, reader] = pages as [Page, Page];
    const ways: number[] = [];
    for (let i = 0; i < 20; i++) ways.push(await seen(writer, reader, `told ${i} ${randomUUID().slice(0, 8)}`));
    console.log(`from an entry to another browser's screen, ${PAGES} open: ${ms(median(ways))} at the median, ${ms(Math.max(...ways))} at most (under 1000)`);
  } finally {
    await browser.close();
    await pool.end();
    await served.stop();
    rmSync(home, { recursive: true, force: true });
  }
}
