import { createServer, request } from "node:http";
import { parseArgs } from "node:util";
import { type BrowserContext, chromium, type Page } from "@playwright/test";
import { demoId, WORKSHOP } from "../../demo/workshop";
import { backup, restore } from "../backup";
import { freePort, Plain, passingHome } from "../processes";
import { type Served, serve } from "../serve";
import { CHROMIUM } from "../shots";

const POT = demoId(8, 6);
const BATCH = `/api/workshops/${WORKSHOP.id}/batches/${POT}`;

/** How the proxy before the server treats what comes: as it is, with an answer of its own, or not at all. */
type Lie = "none" | "wifi" | "json" | "redirect" | "forbidden" | "drop";
const LIES: readonly Lie[] = ["wifi", "json", "redirect", "forbidden", "drop"];

/** A proxy that lies about entries as it is told, and gives the service worker as another build of it. */
async function lyingProxy(served: Served) {
  let lie: Lie = "none";
  let build = 1;
  const { port: target } = new URL(served.url);
  const server = createServer((asked, response) => {
    const isEntry = asked.method === "POST" && /\/(events|notes)$/.test(asked.url ?? "");
    if (isEntry && lie !== "none") {
      asked.resume();
      if (lie === "drop") return void asked.socket.destroy();
      if (lie === "redirect") return void response.writeHead(302, { location: "/workshops" }).end();
      if (lie === "json") return void response.writeHead(200, { "content-type": "application/json" }).end('{"ok":true}');
      return void response.writeHead(lie === "wifi" ? 200 : 403, { "content-type": "text/html" }).end("<html>Please sign in to the network</html>");
    }
    const isWorker = asked.url === "/worker.js";
    const forward = request(
      {
        port: target,
        host: "127.0.0.1",
        method: asked.method,
        path: asked.url,
        headers: { ...asked.headers, ...(isWorker ? { "accept-encoding": "identity" } : {}) },
      },
      (answer) => {
        const headers = { ...answer.headers };
        if (isWorker) delete headers["content-length"];
        response.writeHead(answer.statusCode ?? 502, headers);
        answer.on("data", (piece) => response.write(piece));
        answer.on("end", () => response.end(isWorker ? `\n// build ${build}\n` : undefined));
        answer.on("error", () => response.destroy());
      },
    );
    forward.on("error", () => response.destroy());
    response.on("close", () => forward.destroy());
    asked.pipe(forward);
  });
  const port = await freePort();
  await new Promise<void>((ready) => server.listen(port, "127.0.0.1", ready));
  return {
    url: `http://127.0.0.1:${port}`,
    say: (next: Lie) => {
      lie = next;
    },
    update: () => {
      build += 1;
    },
    close: () => {
      server.closeAllConnections();
      server.close();
    },
  };
}
type Proxy = Awaited<ReturnType<typeof lyingProxy>>;

interface Stage {
  served: Served;
  proxy: Proxy;
  context: BrowserContext;
  page: Page;
  /** A number from 0 to below `n`, from the seed. */
  roll: (n: number) => number;
  /** Puts a note down at the pot, and remembers it. */
  note: (page?: Page) => Promise<string>;
  /** Every note that was logged, and is to be in the log once. */
  written: string[];
  home: string;
}

const open = async (page: Page, url: string) => {
  await page.goto(`${url}/w/${WORKSHOP.id}/bench/${POT}`);
  await page.locator("html[data-hydrated]").waitFor({ state: "attached" });
};
/** Returns the notes of the pot's log, with when they happened. */
async function notesIn(served: Served): Promise<{ text: string; at: number }[]> {
  const record = (await (await fetch(`${served.url}${BATCH}/record`)).json()) as { events: { kind: string; happenedAt: string; payload: { text?: string } }[] };
  return record.events.flatMap((event) => (event.kind === "note" ? [{ text: event.payload.text ?? "", at: Date.parse(event.happenedAt) }] : []));
}
const waitUntil = async (what: string, holds: () => Promise<boolean> | boolean, limitMs = 60_000) => {
  const until = Date.now() + limitMs;
  while (!(await holds())) {
    if (Date.now() > until) throw new Error(`Not within ${limitMs / 1_000} s: ${what}`);
    await new Promise((later) => setTimeout(later, 200));
  }
};

/** What is done to the devices, by name; each puts notes down on the way. */
const SCENARIOS: Record<string, (stage: Stage) => Promise<void>> = {
  "a lying network": async ({ proxy, roll, note }) => {
    for (let n = 0; n < 6; n++) {
      proxy.say(LIES[roll(LIES.length)] as Lie);
      await note();
    }
    proxy.say("none");
  },
  "an update under waiting entries": async ({ proxy, page, context, note }) => {
    await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
    const path = `/w/${WORKSHOP.id}/bench/${POT}`;
    const isKept = () => page.evaluate(async (asked) => Boolean(await caches.match(asked, { ignoreVary: true })), path);
    await waitUntil("the pot's page is kept", isKept);
    proxy.say("wifi");
    await note();
    await note();
    const changed = page.evaluate(
      () => new Promise<void>((done) => navigator.serviceWorker.addEventListener("controllerchange", () => done(), { once: true })),
    );
    proxy.update();
    await page.evaluate(async () => void (await (await navigator.serviceWorker.getRegistration())?.update()));
    await changed;
    if (!(await isKept())) throw new Error("After an update the pot's page is not kept.");
    await context.setOffline(true);
    await page.reload();
    await page.getByRole("heading", { level: 1, name: /Pot/ }).waitFor();
    await note();
    proxy.say("none");
    await context.setOffline(false);
  },
  "a restore under two open devices": async ({ served, proxy, page, context, note, written, home }) => {
    const other = await context.browser()?.newContext();
    const there = (await other?.newPage()) as Page;
    await open(there, proxy.url);
    const file = `${home}/stress.dump`;
    await backup(served.databaseUrl, file);
    const gone = await note();
    await waitUntil("the other device shows it", async () => (await there.getByText(`“${gone}”`).count()) > 0);
    await restore(served.databaseUrl, file);
    await page.getByText("without 1 entry of this device").waitFor({ timeout: 60_000 });
    await waitUntil(
      "no device shows what is gone",
      async () => (await page.getByText(`“${gone}”`).count()) + (await there.getByText(`“${gone}”`).count()) === 0,
    );
    const fresh = await note(there);
    for (const on of [page, there]) await waitUntil("both show what is entered now", async () => (await on.getByText(`“${fresh}”`).count()) > 0);
    await page.getByRole("button", { name: "Send it again" }).click();
    await waitUntil("both show it again", async () => (await there.getByText(`“${gone}”`).count()) > 0);
    if (!written.includes(gone)) throw new Error("It was not remembered.");
    await other?.close();
  },
  "full storage": async ({ page, proxy, note }) => {
    proxy.say("drop");
    await note();
    await page.evaluate(() => {
      const store = IDBObjectStore.prototype as unknown as Record<string, unknown>;
      Object.assign(window, { room: { add: store.add, put: store.put } });
      Object.assign(store, {
        add() {
          throw new DOMException("The disk is full.", "QuotaExceededError");
        },
        put() {
          throw new DOMException("The disk is full.", "QuotaExceededError");
        },
      });
    });
    await note();
    await note();
    proxy.say("none");
    await waitUntil(
      "all is sent though nothing can be written",
      async () => (await page.getByText(/wait(s)? in this page only|kept on this device/).count()) === 0,
    );
    await page.evaluate(() => Object.assign(IDBObjectStore.prototype, (window as unknown as { room: object }).room));
  },
  "cleared storage": async ({ page, proxy, note }) => {
    proxy.say("drop");
    await note();
    await note();
    await page.evaluate(
      () =>
        new Promise<void>((done) => {
          const asked = indexedDB.deleteDatabase("hearth");
          asked.onsuccess = () => done();
          asked.onerror = () => done();
          asked.onblocked = () => undefined;
        }),
    );
    await note();
    proxy.say("none");
  },
  "a jumping clock": async ({ page, context, note, served, roll }) => {
    const texts: string[] = [];
    for (const isAway of [false, true]) {
      const by = (roll(2) === 0 ? 1 : -1) * (1 + roll(4)) * 3_600_000;
      if (isAway) await context.setOffline(true);
      await page.evaluate((ms) => Object.assign(window, { clockBy: ms }), by);
      await new Promise((later) => setTimeout(later, 3_000));
      texts.push(await note());
      if (isAway) await context.setOffline(false);
    }
    await waitUntil("they arrive", async () => (await notesIn(served)).filter((note) => texts.includes(note.text)).length === texts.length);
    for (const note of (await notesIn(served)).filter((each) => texts.includes(each.text)))
      if (Math.abs(note.at - Date.now()) > 60_000) throw new Error(`“${note.text}” is put down ${Math.round((note.at - Date.now()) / 1_000)} s off.`);
    await page.evaluate(() => Object.assign(window, { clockBy: 0 }));
  },
};

/** Works at a pot while its devices, their network and the server are ill-treated, and checks that every note is in the log, once. */
export async function devices(args: string[]): Promise<number> {
  const { values } = parseArgs({ args, options: { rounds: { type: "string", default: "3" }, seed: { type: "string", default: "1" } } });
  const [rounds, seed] = [Number(values.rounds), Number(values.seed)];
  if (!(rounds > 0) || !Number.isInteger(seed)) throw new Plain("Say how often, and from which number: ./hearth stress devices --rounds 3 --seed 1");
  const home = passingHome("devices");
  process.env.HEARTH_LOG = "silent";
  const served = await serve({ home, port: await freePort(), demo: true, ownDatabase: true });
  const proxy = await lyingProxy(served);
  const browser = await chromium.launch(CHROMIUM);
  let failed = 0;
  let state = seed;
  const roll = (n: number) => {
    state = (state * 1_103_515_245 + 12_345) & 0x7fffffff;
    return (state >> 8) % n;
  };
  const written: string[] = [];
  try {
    for (let round = 1; round <= rounds; round++)
      for (const [name, run] of Object.entries(SCENARIOS)) {
        const context = await browser.newContext({ locale: "en-GB", timezoneId: "UTC" });
        await context.addInitScript(() => {
          const real = Date.now.bind(Date);
          Object.assign(window, { clockBy: 0 });
          Date.now = () => real() + (window as unknown as { clockBy: number }).clockBy;
        });
        const page = await context.newPage();
        const note = async (on: Page = page) => {
          const text = `stress ${seed}-${round}-${written.length + 1}`;
          await on.getByLabel("Note").fill(text);
          await on.getByRole("button", { name: "Add the note" }).click();
          await on.getByText(`“${text}”`).first().waitFor();
          written.push(text);
          return text;
        };
        const began = Date.now();
        try {
          await open(page, proxy.url);
          await run({ served, proxy, context, page, roll, note, written, home });
          proxy.say("none");
          const missing = async () => {
            const all = (await notesIn(served)).map((note) => note.text);
            return written.filter((text) => all.filter((name) => name === text).length !== 1);
          };
          await waitUntil("every note is in the log, once", async () => (await missing()).length === 0).catch(async (error: Error) => {
            throw new Error(`${error.message}: ${(await missing()).join(", ")}`);
          });
          console.log(`held    round ${round}, ${name}: ${written.length} notes so far, ${((Date.now() - began) / 1_000).toFixed(0)} s`);
        } catch (error) {
          failed += 1;
          console.log(`FAILED  round ${round}, ${name}: ${(error as Error).message.split("\n")[0]}`);
        } finally {
          proxy.say("none");
          await context.close();
        }
      }
    console.log(`${rounds} rounds, seed ${seed}: ${written.length} notes, ${failed} scenarios failed.`);
    return failed === 0 ? 0 : 1;
  } finally {
    await browser.close();
    proxy.close();
    await served.stop();
  }
}
