import { readFileSync } from "node:fs";
import { openDatabase } from "../../web/data/client";
import { BOOK_COMMANDS, type BookCommand, type BooksClient, booksDriver, makeBooks } from "../../web/testing/books/driver";
import { brokenBooks } from "../../web/testing/books/invariants";
import { freePort, Plain, passingHome } from "../processes";
import { serve } from "../serve";

interface Manifest {
  node: Record<string, { exportedName: string; workers: Record<string, unknown> }>;
}

/** Returns the commands of the built program that the driver calls: each by its name in the build, with a page that sends it. */
function builtCommands(): Map<BookCommand, { action: string; page: string }> {
  const manifest = JSON.parse(readFileSync(new URL("../../web/.next/server/server-reference-manifest.json", import.meta.url), "utf8")) as Manifest;
  const found = new Map<BookCommand, { action: string; page: string }>();
  for (const [action, { exportedName, workers }] of Object.entries(manifest.node)) {
    const name = BOOK_COMMANDS.find((bookCommand) => bookCommand === exportedName);
    // A page without a thing of its own, where there is one.
    const [page] = Object.keys(workers).sort((a, b) => a.split("[").length - b.split("[").length);
    if (name && page) found.set(name, { action, page: page.replace(/^app/, "").replace(/\/page$/, "") });
  }
  const missing = BOOK_COMMANDS.filter((name) => !found.has(name));
  if (missing.length > 0) throw new Error(`These commands are not in the build: ${missing.join(", ")}.`);
  return found;
}

/** Reaches a served program as its pages and other programs do: all of it over HTTP. */
function httpClient(url: string, workshopId: string, personId: string): BooksClient {
  const commands = builtCommands();
  const place = { workshopId, personId };
  return {
    send: async (method, path, body) => {
      const answer = await fetch(url + path, {
        method,
        ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { "content-type": "application/json" } }),
      });
      const text = await answer.text();
      return { status: answer.status, body: text.startsWith("{") ? JSON.parse(text) : text };
    },
    command: async (name, input) => {
      const { action, page } = commands.get(name) as { action: string; page: string };
      const of = (input as { orderId?: string | null; id?: string }).orderId ?? (input as { id?: string }).id ?? workshopId;
      const path = page.replace("[workshop]", workshopId).replace("[kind]", "wax").replace("[id]", of);
      const answer = await fetch(url + path, {
        method: "POST",
        headers: { "content-type": "text/plain;charset=UTF-8", "next-action": action, accept: "text/x-component" },
        body: JSON.stringify([place, input]),
      });
      const text = await answer.text();
      if (answer.status >= 500) throw new Error(`${name}: ${answer.status} ${text.slice(0, 200)}`);
      // The second row of the answer is what the command gave.
      const line = /^1:(\{.*\})$/m.exec(text)?.[1];
      if (!line) throw new Error(`${name}: no answer in ${answer.status} ${text.slice(0, 200)}`);
      return JSON.parse(line) as { ok: boolean; message?: string };
    },
  };
}

const numberOf = (flags: readonly string[], name: string, usual: number): number => {
  const at = flags.indexOf(name);
  const value = at < 0 ? usual : Number(flags[at + 1]);
  if (!(Number.isInteger(value) && value >= 1))
    throw new Plain(`Say a whole number after ${name}: ./hearth stress books --minutes 10 --steps 2000 --seeds 10 --seed 1`);
  return value;
};

/**
 * Random operations on workshops of a served program, several at once among them, with the books checked after every step. A workshop and a seed for
 * so many steps, until the minutes are over; the seed of a violation is printed, and the run ends. Gives 0 where the books held.
 */
export async function books(flags: readonly string[]): Promise<number> {
  const [minutes, steps, most] = [numberOf(flags, "--minutes", 10), numberOf(flags, "--steps", 2_000), numberOf(flags, "--seeds", 1_000)];
  process.env.HEARTH_LOG = "error";
  const served = await serve({ home: passingHome("books"), port: await freePort(), demo: false, ownDatabase: true, passing: true });
  const { db, pool } = openDatabase(served.databaseUrl);
  const end = Date.now() + minutes * 60_000;
  const times = new Map<string, number>();
  let [done, taken, seeds] = [0, 0, 0];
  try {
    for (let seed = numberOf(flags, "--seed", 1); seeds < most && Date.now() < end; seed++, seeds++) {
      const shop = await makeBooks(db);
      const { step } = booksDriver(httpClient(served.url, shop.id, shop.person), pool, shop, seed);
      let n = 0;
      for (; n < steps && Date.now() < end; n++) {
        const outcome = await step().catch((error: unknown) => ({ what: String(error), names: [], statuses: [599], taken: false }));
        const broken = [
          ...outcome.statuses.filter((status) => status >= 500).map((status) => `answered ${status}`),
          ...(await brokenBooks(db, pool, shop.id, n % 50 === 0)),
        ];
        if (broken.length > 0) {
          console.log(`seed ${seed}, step ${n}: ${outcome.what}\n  ${broken.join("\n  ")}`);
          return 1;
        }
        done += 1;
        if (outcome.taken) taken += 1;
        for (const name of outcome.names) times.set(name, (times.get(name) ?? 0) + 1);
      }
      console.log(`seed ${seed}: ${n} steps, the books held`);
    }
    console.log(`${done} steps with ${seeds} seeds, ${taken} of them taken, no violation`);
    console.log([...times].map(([name, many]) => `${name} ${many}`).join(", "));
    return 0;
  } finally {
    await pool.end();
    await served.stop();
  }
}
