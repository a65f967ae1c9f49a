import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type BrowserContext, chromium, type Page } from "@playwright/test";
import { demoId, WORKSHOP } from "../../demo/workshop";
import { readRunning } from "../home";
import { startInstruments } from "../instruments";
import { freePort, isAlive, passingHome, until } from "../processes";
import { type Served, serve } from "../serve";
import { CHROMIUM } from "../shots";

const MANY = Number(process.env.HEARTH_ENTRIES ?? 1_000);
const MAX_MS = Number(process.env.HEARTH_SECONDS ?? 1_500) * 1_000;
const POT = demoId(8, 6);

/** A browser with a profile of its own on the disk, which can be killed and opened again. */
class Device {
  private context: BrowserContext | null = null;
  private readonly profile = mkdtempSync(join(tmpdir(), "hearth-device-"));
  constructor(
    private readonly url: string,
    private readonly viewport: { width: number; height: number },
  ) {}
  async open(): Promise<BrowserContext> {
    this.context ??= await chromium.launchPersistentContext(this.profile, { ...CHROMIUM, baseURL: this.url, viewport: this.viewport });
    return this.context;
  }
  async tab(): Promise<Page> {
    const page = await (await this.open()).newPage();
    await page.goto(`/w/${WORKSHOP.id}/bench/${POT}`, { timeout: 30_000 });
    await page.locator("html[data-hydrated]").waitFor({ state: "attached", timeout: 30_000 });
    return page;
  }
  /** Ends every process of this browser at once, as a flat battery would. */
  async kill(): Promise<void> {
    const pids = execFileSync("pgrep", ["-f", this.profile], { encoding: "utf8" }).trim().split("\n").map(Number);
    for (const pid of pids) {
      try {
        process.kill(pid, "SIGKILL");
      } catch {
        // It went with its parent.
      }
    }
    await until(() => pids.every((pid) => !isAlive(pid)), 10_000, "A browser that was killed does not end.");
    await this.context?.close().catch(() => undefined);
    this.context = null;
  }
  async close(): Promise<void> {
    await this.context?.close().catch(() => undefined);
    rmSync(this.profile, { recursive: true, force: true, maxRetries: 5 });
  }
}

interface Hand {
  name: string;
  /** What is connected at its page: the probe writes by itself, the scale only shows. */
  instrument: "probe" | "scale" | null;
  device: Device;
  page: Page | null;
  typed: string[];
  promised: Set<string>;
}

/** Connects what this hand has at its page. Without the server a simulated one cannot be found: then the page goes on without. */
async function connect(page: Page, instrument: Hand["instrument"]): Promise<boolean> {
  if (!instrument) return true;
  const limit = { timeout: 4_000 };
  try {
    await page.getByRole("button", { name: "Connect an instrument" }).click(limit);
    await page.getByRole("button", { name: `Simulated ${instrument}` }).click(limit);
    await page.getByText(/stable$/).waitFor(limit);
    if (instrument === "probe") await page.getByLabel("Auto-record").selectOption("10", limit);
    return true;
  } catch {
    return false;
  }
}

/** Types one note. It counts as promised once the page shows it. */
async function type(hand: Hand, text: string): Promise<void> {
  if (!hand.page) {
    hand.page = await hand.device.tab();
    await connect(hand.page, hand.instrument);
  }
  await hand.page.getByLabel("Note").fill(text, { timeout: 8_000 });
  await hand.page.getByRole("button", { name: "Add the note" }).click({ timeout: 8_000 });
  hand.typed.push(text);
  await hand.page.getByText(text).first().waitFor({ timeout: 8_000 });
  hand.promised.add(text);
}

/** Returns what the server has, in its own order. */
async function written(url: string): Promise<{ notes: string[]; readings: string[] }> {
  const answer = await fetch(`${url}/api/workshops/${WORKSHOP.id}/batches/${POT}/record`);
  const { events } = (await answer.json()) as { events: { kind: string; happenedAt: string; payload: { text?: string } }[] };
  return {
    notes: events.flatMap((event) => (event.kind === "note" && event.payload.text?.startsWith("entry ") ? [event.payload.text] : [])),
    readings: events.flatMap((event) => (event.kind === "read" ? [event.happenedAt] : [])),
  };
}

/** Returns what goes wrong meanwhile, by name; `end` gives the network back. */
function troubles(served: Served, home: string, [desk, phone]: [Device, Device], hands: readonly Hand[]) {
  let lastKill = 0;
  let offline: BrowserContext[] = [];
  const all: [string, () => Promise<void>][] = [
    [
      "database stopped and started",
      async () => {
        await served.database?.stop();
        setTimeout(() => void served.database?.start(), 2_500);
      },
    ],
    [
      "web server killed",
      async () => {
        // It is started again by itself, but not without end.
        if (Date.now() - lastKill < 35_000) return;
        lastKill = Date.now();
        process.kill(readRunning(home).web as number, "SIGKILL");
      },
    ],
    [
      "network cut",
      async () => {
        const contexts = await Promise.all([desk.open(), phone.open()]);
        for (const context of contexts) await context.setOffline(true);
        offline = contexts;
        setTimeout(() => {
          for (const browserContext of offline) void browserContext.setOffline(false).catch(() => undefined);
          offline = [];
        }, 4_000);
      },
    ],
    [
      "tab closed",
      async () => {
        const hand = hands[Math.floor(Math.random() * hands.length)] as Hand;
        await hand.page?.close();
        hand.page = null;
      },
    ],
    [
      "browser killed",
      async () => {
        const device = Math.random() < 0.5 ? desk : phone;
        await device.kill();
        for (const hand of hands) if (hand.device === device) hand.page = null;
      },
    ],
  ];
  return {
    all,
    end: async () => {
      for (const browserContext of offline) await browserContext.setOffline(false).catch(() => undefined);
    },
  };
}

/** Types entry after entry, one hand after another, with some trouble after each dozen; returns how often a page could not be typed in, and what was done. */
async function typeAll(
  hands: readonly Hand[],
  trouble: readonly [string, () => Promise<void>][],
  began: number,
): Promise<{ stumbles: number; did: Record<string, number> }> {
  const did: Record<string, number> = {};
  let stumbles = 0;
  for (let n = 0; n < MANY && Date.now() - began < MAX_MS; n++) {
    const hand = hands[n % hands.length] as Hand;
    try {
      await type(hand, `entry ${hand.name} ${String(n).padStart(5, "0")}`);
    } catch {
      // A page that could not be opened or typed in just now: the next is opened anew.
      stumbles += 1;
      await hand.page?.close().catch(() => undefined);
      hand.page = null;
    }
    if (n % 12 === 11) {
      const [name, run] = trouble[Math.floor(Math.random() * trouble.length)] as (typeof trouble)[number];
      await run().catch(() => undefined);
      did[name] = (did[name] ?? 0) + 1;
    }
  }
  return { stumbles, did };
}

/** Says what became of all that was typed, and whether nothing of it was lost, doubled, muddled or out of order. */
async function report(url: string, hands: readonly Hand[], before: number, missing: () => Promise<string[]>, took: string): Promise<number> {
  const promised = hands.flatMap((hand) => [...hand.promised]);
  const { notes: there, readings } = await written(url);
  const own = readings.slice(before);
  const lost = await missing();
  const doubled = there.filter((text, index) => there.indexOf(text) !== index);
  // One probe at one page: no two of its readings are of one moment, and none overtook another.
  const muddled = own.filter((at, n) => n > 0 && at <= (own[n - 1] as string)).length;
  const disorder = hands.filter((hand) => {
    const mine = there.filter((text) => text.startsWith(`entry ${hand.name} `));
    return mine.some((text, index) => index > 0 && text < (mine[index - 1] as string));
  });
  const typed = hands.reduce((sum, hand) => sum + hand.typed.length, 0);
  console.log(`${typed} entries typed, ${promised.length} shown as kept, ${took}`);
  console.log(
    `${there.length} are there; lost ${lost.length}, doubled ${doubled.length}, hands out of order ${disorder.length}; of the probe ${own.length} readings, muddled ${muddled}`,
  );
  for (const text of lost.slice(0, 5)) console.log(`lost: ${text}`);
  return lost.length + doubled.length + disorder.length + muddled === 0 && own.length > 0 && promised.length >= MANY * 0.8 ? 0 : 1;
}

/**
 * Returns entries typed in two tabs and on a phone while the database and the web server are killed, the network is cut, and tabs
 * and browsers are killed: what a page showed is there in the end, once, and in order.
 */
export async function entries(): Promise<number> {
  const home = passingHome("entries");
  process.env.HEARTH_LOG = "silent";
  const served = await serve({ home, port: await freePort(), demo: true, ownDatabase: true });
  const bench = await startInstruments({ home, speed: 1, seed: 5 });
  const [desk, phone] = [new Device(served.url, { width: 1_280, height: 800 }), new Device(served.url, { width: 390, height: 844 })];
  const hands: Hand[] = [
    { name: "a", instrument: "probe", device: desk, page: null, typed: [], promised: new Set() },
    { name: "b", instrument: null, device: desk, page: null, typed: [], promised: new Set() },
    { name: "c", instrument: "scale", device: phone, page: null, typed: [], promised: new Set() },
  ];
  const began = Date.now();
  const trouble = troubles(served, home, [desk, phone], hands);
  try {
    for (const hand of hands) hand.page = await hand.device.tab();
    for (const hand of hands)
      if (hand.page && !(await connect(hand.page, hand.instrument))) throw new Error(`The ${hand.instrument} could not be connected to begin with.`);
    const before = (await written(served.url)).readings.length;
    // The pages are kept on each device before the trouble begins.
    for (const hand of hands)
      await until(
        async () =>
          (await hand.page?.evaluate(async (path) => Boolean(await caches.match(path, { ignoreVary: true })), `/w/${WORKSHOP.id}/bench/${POT}`)) === true,
        30_000,
        "The pot is not kept on a device.",
      );
    const { stumbles, did } = await typeAll(hands, trouble.all, began);
    await trouble.end();
    await served.database?.start();
    // All is well again: what waits is sent from any page of each device.
    for (const device of [desk, phone]) await device.tab();
    const promised = hands.flatMap((hand) => [...hand.promised]);
    const missing = async () => {
      const there = new Set((await written(served.url).catch(() => ({ notes: [] }))).notes);
      return promised.filter((text) => !there.has(text));
    };
    await until(async () => (await missing()).length === 0, 120_000, "late").catch(() => undefined);
    const seconds = Math.round((Date.now() - began) / 1_000);
    const done = Object.entries(did).map(([name, times]) => `${name} ${times}`);
    return await report(served.url, hands, before, missing, `in ${seconds} s; ${done.join(", ")}; a page could not be typed in ${stumbles} times`);
  } finally {
    await desk.close();
    await phone.close();
    await bench.stop();
    await served.stop();
  }
}
