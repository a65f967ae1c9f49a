import { randomUUID } from "node:crypto";
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { PROTOCOLS, protocol, type TestCandle, TRIAL, type TrialBody, type TrialEvent, type TrialPlan, variantVerdicts } from "@hearth/core";
import { chromium, type Page } from "@playwright/test";
import { eq } from "drizzle-orm";
import { demoId } from "../demo/workshop";
import { type Database, openDatabase } from "../web/data/client";
import { trialEvents, trials } from "../web/data/tables/trial";
import { trialEventRow, trialRow, writeBurns } from "../web/data/trial-rows";
import { aTestCandle } from "../web/testing/test-candles";
import { median } from "./bench-log";
import { passingHome } from "./processes";
import { serve } from "./serve";
import { CHROMIUM, FROZEN } from "./shots";

const [SESSIONS, LOOKS] = [6, 6];

/** Returns a made-up trial of so many test candles, each burned six times with six looks. */
function trialOf(testCandles: number): TrialEvent[] {
  const begun = Date.parse(FROZEN) - 20 * 86_400_000;
  const plan: TrialPlan = {
    format: 2,
    name: `${testCandles} test candles`,
    varies: "wick size",
    protocol: protocol.parse({ ...PROTOCOLS[0], sessions: [{ checks: [60, 75, 120, 150, 180, 240], minutes: 245 }] }),
    testCandles: Array.from({ length: testCandles }, (_, index): TestCandle => {
      const variant = String.fromCharCode(65 + Math.floor(index / 2));
      const key = `${variant}${(index % 2) + 1}`;
      const wick = { wickId: demoId(0x22, 2), name: `flat-braid cotton ${index}`, kind: "flat-braid cotton", size: String(index), count: 1 };
      return aTestCandle(key, { code: `X${index}`, wick });
    }),
  };
  const events: TrialEvent[] = [];
  const add = (minute: number, body: TrialBody) => {
    const at = new Date(begun + minute * 60_000).toISOString();
    events.push({ id: randomUUID(), happenedAt: at, arrivedAt: at, personId: null, instrumentId: null, corrects: null, ...body } as TrialEvent);
  };
  add(0, { kind: "started", payload: { plan } });
  for (let session = 0; session < SESSIONS; session++)
    for (const [position, { key }] of plan.testCandles.entries()) {
      const from = session * 1_440 + 1;
      add(from, { kind: "lit", payload: { testCandle: key, trimUm: 5_000, air: [], early: "" } });
      add(from, { kind: "weighed", payload: { testCandle: key, session: session + 1, when: "before", mg: 400_000 - session * 16_000 } });
      for (const [index, minute] of (plan.protocol.sessions[0]?.checks ?? []).slice(0, LOOKS).entries())
        add(from + minute, {
          kind: "checked",
          payload: {
            testCandle: key,
            poolUm: 30_000 + index * 8_000 + position * 100,
            depthUm: 2_000 + index * 1_000,
            flame: "steady",
            mushroom: "none",
            soot: "none",
            wall: 4_000,
          },
        });
      add(from + 245, { kind: "extinguished", payload: { testCandle: key, why: "protocol", sign: "" } });
      add(from + 400, { kind: "weighed", payload: { testCandle: key, session: session + 1, when: "after", mg: 400_000 - (session + 1) * 16_000 } });
    }
  return events;
}

async function put(db: Database, workshopId: string, number: number, testCandles: number): Promise<string> {
  const id = randomUUID();
  const events = trialOf(testCandles);
  const { plan, state } = TRIAL.of(events);
  await db.transaction(async (tx) => {
    await tx.insert(trials).values({ workshopId, id, number, ...trialRow(plan, state) });
    await tx.insert(trialEvents).values(events.map((event) => trialEventRow(workshopId, id, event)));
    await writeBurns(tx, workshopId, id, plan, state, null);
  });
  return id;
}

/** Presses a button in the page, and waits for the frame that shows the drawing of this name; as text, since it runs there. */
const PRESS = `new Promise((done) => {
  const began = performance.now();
  [...document.querySelectorAll("button")].find((one) => one.textContent === "NAME").click();
  (function look() {
    if (document.querySelector('svg[aria-label^="LABEL"]')) requestAnimationFrame(() => setTimeout(() => done(performance.now() - began)));
    else setTimeout(look);
  })();
})`;

/** Returns how long the picture takes to be drawn anew, all sessions in it, from the press to the frame that shows it. */
async function drawn(page: Page, url: string, id: string): Promise<number> {
  await page.goto(`${url}/burn/${id}?view=shown`);
  await page.locator("html[data-hydrated]").waitFor({ state: "attached" });
  await page.getByRole("combobox", { name: /^Session/ }).selectOption("");
  const took: number[] = [];
  for (let n = 0; n < 24; n++) {
    const name = n % 2 === 0 ? "How deep" : "How wide";
    const label = n % 2 === 0 ? "Depth of the pool" : "Melt pool";
    const ms = await page.evaluate<number>(PRESS.replace("NAME", name).replace("LABEL", label));
    // The first ones warm it.
    if (n >= 4) took.push(ms);
  }
  return median(took);
}

/** What burn trials cost: a large one drawn beside one test candle, and the verdicts of a thousand test candles beside reading their rows. */
export async function benchBurn(): Promise<void> {
  const home = passingHome("burn");
  const clockFile = join(home, "clock");
  writeFileSync(clockFile, FROZEN);
  const served = await serve({ home, port: 4_855, demo: true, ownDatabase: true, clockFile });
  const { db, pool } = openDatabase(served.databaseUrl);
  const browser = await chromium.launch(CHROMIUM);
  try {
    const workshopId = demoId(0, 1);
    const text = await put(db, workshopId, 101, 1);
    const many = await put(db, workshopId, 102, 40);
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const [small, large] = [await drawn(page, served.url, text), await drawn(page, served.url, many)];
    console.log(`the picture of one test candle: ${small.toFixed(1)} ms; of 40 test candles × ${SESSIONS} sessions × ${LOOKS} looks: ${large.toFixed(1)} ms`);
    console.log(`ratio ${(large / small).toFixed(2)} (at most 6)`);

    for (let n = 0; n < 24; n++) await put(db, workshopId, 103 + n, 40);
    const rows = () => db.select({ plan: trials.plan, state: trials.state, name: trials.name }).from(trials).where(eq(trials.workshopId, workshopId));
    let testCandles = 0;
    const timed = async (judged: boolean) => {
      const took: number[] = [];
      for (let n = 0; n < 12; n++) {
        const began = performance.now();
        testCandles = 0;
        for (const { plan, state, name } of await rows()) {
          if (!name.endsWith(" test candles")) continue;
          if (judged) for (const variant of variantVerdicts(plan, state)) testCandles += variant.testCandles.length;
        }
        if (n >= 3) took.push(performance.now() - began);
      }
      return median(took);
    };
    const [reading, judging] = [await timed(false), await timed(true)];
    console.log(`the rows of ${testCandles} test candles read: ${reading.toFixed(1)} ms; read and judged: ${judging.toFixed(1)} ms`);
    console.log(`ratio ${(judging / reading).toFixed(2)} (at most 3)`);
  } finally {
    await browser.close();
    await pool.end();
    await served.stop();
  }
}
