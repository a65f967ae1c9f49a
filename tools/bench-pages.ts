import { rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { type Browser, chromium, type Page } from "@playwright/test";
import { demoId, WORKSHOP } from "../demo/workshop";
import { median } from "./bench-log";
import { withEmptyPage } from "./empty-page";
import { passingHome, until } from "./processes";
import { serve } from "./serve";
import { CHROMIUM, FROZEN } from "./shots";

const PAGES: readonly [name: string, path: string][] = [
  ["today", ""],
  ["shelf", "/shelf"],
  ["material", `/shelf/fragrance/${demoId(3, 1)}`],
  ["formulas", "/formulas"],
  ["formula", `/formulas/${demoId(6, 4)}`],
  ["products", "/products"],
  ["product", `/products/${demoId(0x26, 1)}`],
  ["plan", "/plan"],
  ["day", "/plan/day"],
  ["bench", "/bench"],
  ["pot", `/bench/${demoId(8, 5)}`],
  ["rack", "/rack"],
  ["inspect", `/inspect/${demoId(8, 3)}`],
  ["burn", "/burn"],
  ["new trial", "/burn/new"],
  ["trial", `/burn/${demoId(0x3f, 2)}`],
  ["sell", "/sell"],
  ["records", "/records"],
  ["record", `/records/${demoId(8, 3)}`],
  ["findings", "/findings"],
];
type Target = ReturnType<Page["locator"]>;
/** What is typed into or tapped, in turn, once the page stands. */
type Targets = (page: Page) => Promise<readonly Target[]> | readonly Target[];
const flames = (page: Page, name: string) => page.getByRole("group", { name: "Flame" }).getByRole("button", { name, exact: true });
const ACTIONS: readonly [name: string, path: string, kind: "key" | "tap", targets: Targets][] = [
  ["a count on plan", `/plan?formula=${demoId(6, 1)}`, "key", (page) => [page.getByLabel("Count").nth(1)]],
  ["a reading at the pot", `/bench/${demoId(8, 5)}`, "key", (page) => [page.getByLabel("Thermometer shows")]],
  [
    "a flaw at inspect",
    `/inspect/${demoId(8, 3)}`,
    "tap",
    async (page) => {
      await page.getByRole("radio", { name: "top" }).click();
      await page.getByRole("radio", { name: "rough, pitted top" }).waitFor();
      return [page.getByRole("radio", { name: "rough, pitted top" }), page.getByRole("radio", { name: "sinkhole" })];
    },
  ],
  [
    "a flame at burn",
    `/burn/${demoId(0x3f, 2)}`,
    "tap",
    async (page) => {
      await page.getByRole("button", { name: "Check A1" }).click();
      await flames(page, "steady").waitFor();
      return [flames(page, "steady"), flames(page, "small")];
    },
  ],
  ["what is packed at sell", "/sell/pack", "key", (page) => [page.getByLabel("Packs").first()]],
];

const EMPTY = "an empty page";
const MAX_SCRIPT = 250_000;
const TURNS = Number(process.env.BENCH_TURNS ?? 5);

/** Returns a phone: a quarter of this machine's speed, 40 ms and 10 Mbit/s to the server. Each is a browser of its own: one that has shown many pages is slower. */
async function phone(): Promise<{ browser: Browser; page: Page }> {
  const browser = await chromium.launch(CHROMIUM);
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
    serviceWorkers: "block",
    reducedMotion: "reduce",
  });
  const page = await context.newPage();
  const session = await context.newCDPSession(page);
  await session.send("Network.enable");
  await session.send("Network.emulateNetworkConditions", { offline: false, latency: 40, downloadThroughput: 10e6 / 8, uploadThroughput: 10e6 / 8 });
  await session.send("Emulation.setCPUThrottlingRate", { rate: 4 });
  // As text: what compiles these sources could name helpers that are not there in the page.
  await page.addInitScript(`
    window.measured = { shift: 0, moved: [], largest: 0, blocked: 0, acts: [] };
    const watch = (type, see) => new PerformanceObserver((list) => list.getEntries().forEach(see)).observe({ type, buffered: true });
    watch("layout-shift", (one) => { if (!one.hadRecentInput) { measured.shift += one.value; measured.moved.push(...one.sources.map((source) => [Math.round(one.startTime), one.value.toFixed(3), source.node?.nodeName + "." + (source.node?.className ?? "") + " " + (source.node?.textContent ?? "").slice(0, 40)].join(" "))); } });
    watch("largest-contentful-paint", (one) => { measured.largest = one.startTime; });
    watch("longtask", (one) => { measured.blocked += Math.max(0, one.duration - 50); });
    for (const type of ["keydown", "click"]) addEventListener(type, (event) => {
      const from = event.timeStamp;
      requestAnimationFrame(() => { const { port1, port2 } = new MessageChannel(); port1.onmessage = () => measured.acts.push(performance.now() - from); port2.postMessage(0); });
    }, true);
  `);
  // A browser loads the pages of its own surfaces at its start, hundreds of files: it is let to finish, or they are measured too.
  await isStill(page);
  return { browser, page };
}

interface Measures {
  shift: number;
  moved: string[];
  largest: number;
  blocked: number;
  script: number;
}

const isStill = (page: Page): Promise<unknown> => page.evaluate("new Promise((done) => setTimeout(done, 2000))");

/**
 * Opens a page, and one of ours until it is hydrated; throws after 30 s. It does not wait with a locator: that runs a script of
 * Playwright's in the page, whose time would count as the page's.
 */
async function open(page: Page, url: string, isOurs: boolean): Promise<void> {
  await page.goto(url, { waitUntil: "load" });
  if (isOurs) await until(() => page.evaluate<boolean>("'hydrated' in document.documentElement.dataset"), 30_000, `${url} is not hydrated.`);
}

/** Returns what one load of a page measures, until two seconds after it is hydrated. */
async function loaded(url: string, isOurs: boolean): Promise<Measures> {
  const { browser, page } = await phone();
  try {
    await open(page, url, isOurs);
    const script = await page.evaluate<number>(
      "performance.getEntriesByType('resource').filter((one) => one.name.endsWith('.js')).reduce((sum, one) => sum + one.encodedBodySize, 0)",
    );
    await isStill(page);
    return { ...(await page.evaluate<Omit<Measures, "script">>("measured")), script };
  } finally {
    await browser.close();
  }
}

type Named<T> = readonly [name: string, value: T];

/**
 * Returns what each task gave in each of some turns. All are done once before any is done again, so that a machine that is slower for some
 * minutes is slower for all of them.
 */
async function inTurn<T>(turns: number, tasks: readonly Named<() => Promise<T>>[]): Promise<Map<string, T[]>> {
  const given = new Map<string, T[]>(tasks.map(([name]) => [name, []]));
  for (let turn = 0; turn < turns; turn++) for (const [name, task] of tasks) given.get(name)?.push(await task());
  return given;
}

/** Returns the medians of the loads of one page. */
function middleOf(loads: readonly Measures[]): Measures {
  const middle = (value: (measures: Measures) => number) => median(loads.map(value));
  return {
    shift: middle((measures) => measures.shift),
    largest: middle((measures) => measures.largest),
    blocked: middle((measures) => measures.blocked),
    script: middle((measures) => measures.script),
    moved: loads[0]?.moved ?? [],
  };
}

/** Returns how long each of some keys or taps takes to be shown, in ms. */
async function acted(url: string, kind: "key" | "tap", targets: Targets, isOurs: boolean): Promise<number[]> {
  const { browser, page } = await phone();
  try {
    await open(page, url, isOurs);
    await isStill(page);
    const all = await targets(page);
    const times: number[] = [];
    for (let turn = 0; turn < 6; turn++) {
      const locator = all[turn % all.length] as Target;
      await page.evaluate("measured.acts.length = 0");
      if (kind === "tap") await locator.click();
      else await locator.press(String(1 + (turn % 9)));
      await page.waitForFunction("measured.acts.length > 0");
      // The first warms what is warm for a maker who has worked there for a moment.
      if (turn > 0) times.push(((await page.evaluate("measured.acts")) as number[])[0] ?? Number.NaN);
      await page.evaluate("new Promise((done) => setTimeout(done, 300))");
      if (kind === "key" && turn % 3 === 2) await locator.fill("");
    }
    return times;
  } finally {
    await browser.close();
  }
}

/**
 * Measures pages on a slowed-down phone beside an empty page of the same framework: layout shifts, blocking time, largest paint, script
 * size, and the delay of keys and taps.
 */
export async function benchPages(only?: string): Promise<void> {
  const home = passingHome("bench");
  const clockFile = join(home, "clock");
  writeFileSync(clockFile, FROZEN);
  const served = await serve({ home, port: 4_862, demo: true, ownDatabase: true, clockFile });
  try {
    await withEmptyPage(async (emptyUrl) => {
      const address = (path: string) => `${served.url}/w/${WORKSHOP.id}${path}`;
      const pages = PAGES.filter(([name]) => !only || only.split(",").includes(name));
      const loads: Named<() => Promise<Measures>>[] = [
        [EMPTY, () => loaded(emptyUrl, false)],
        ...pages.map(([name, path]): Named<() => Promise<Measures>> => [name, () => loaded(address(path), true)]),
      ];
      // A server that has just been started is still compiling: the first load of a page does not count.
      await inTurn(1, loads);
      const measures = new Map([...(await inTurn(TURNS, loads))].map(([name, turns]) => [name, middleOf(turns)]));
      const empty = measures.get(EMPTY) as Measures;
      console.log(
        `${EMPTY}: blocked ${empty.blocked.toFixed(0)} ms, largest paint ${empty.largest.toFixed(0)} ms, script ${(empty.script / 1_000).toFixed(0)} kB`,
      );
      for (const [name] of pages) {
        const page = measures.get(name);
        if (!page) continue;
        console.log(
          `${name.padEnd(9)} shift ${page.shift.toFixed(3)} (at most 0.05), blocked ${page.blocked.toFixed(0)} ms, ratio ${(page.blocked / empty.blocked).toFixed(2)} (1.5), largest paint ${page.largest.toFixed(0)} ms, ratio ${(page.largest / empty.largest).toFixed(2)} (2.5), script ${(page.script / 1_000).toFixed(0)} kB (${MAX_SCRIPT / 1_000})`,
        );
        if (process.env.BENCH_MOVED) for (const moved of page.moved) console.log(`    ${moved}`);
      }
      if (only && !only.includes("acts")) return;
      const acts: Named<() => Promise<number[]>>[] = [
        [EMPTY, () => acted(emptyUrl, "key", (page) => [page.getByRole("textbox")], false)],
        ...ACTIONS.map(([name, path, kind, targets]): Named<() => Promise<number[]>> => [name, () => acted(address(path), kind, targets, true)]),
      ];
      const delays = new Map([...(await inTurn(3, acts))].map(([name, turns]) => [name, median(turns.flat())]));
      const key = delays.get(EMPTY) ?? Number.NaN;
      console.log(`a key in an empty page's field: ${key.toFixed(0)} ms`);
      for (const [name] of ACTIONS) {
        const ms = delays.get(name) ?? Number.NaN;
        console.log(`${name.padEnd(24)} ${ms.toFixed(0)} ms, ratio ${(ms / key).toFixed(2)} to a key there (at most 2)`);
      }
    });
  } finally {
    await served.stop();
    rmSync(home, { recursive: true, force: true });
  }
}
