import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { POST as addEntry } from "@/app/api/workshops/[workshop]/batches/[batch]/events/route";
import { GET as logOf } from "@/app/api/workshops/[workshop]/batches/[batch]/log/route";
import { GET as recordOf } from "@/app/api/workshops/[workshop]/batches/[batch]/record/route";
import { POST as importRecord } from "@/app/api/workshops/[workshop]/import/route";
import { POST as addToOrder } from "@/app/api/workshops/[workshop]/orders/[order]/events/route";
import * as plan from "@/server/batches/commands";
import * as sell from "@/server/sales/commands";
import * as tidying from "@/server/workshops/tidy";
import { type BooksClient, booksDriver, makeBooks } from "@/testing/books/driver";
import { brokenBooks } from "@/testing/books/invariants";
import { type TestDatabase, testDatabase } from "@/testing/database";
import * as shelf from "./commands";
import * as merging from "./merge";

/** So many steps are taken with each seed; another is tried with HEARTH_SEED. */
const STEPS = 250;
const SEEDS = process.env.HEARTH_SEED ? process.env.HEARTH_SEED.split(",").map(Number) : [1, 2, 3];

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
  process.env.DATABASE_URL = test.url;
});
afterAll(() => test.pool.end());

const commands = { ...plan, ...sell, ...shelf, ...merging, ...tidying };

/** Commands and routes are called as the framework calls them. */
const clientOf = (workshopId: string, personId: string): BooksClient => ({
  command: (name, input) => commands[name]({ workshopId, personId }, input),
  send: async (method, path, body) => {
    const request = new Request(`http://127.0.0.1:4380${path}`, {
      method,
      ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { "content-type": "application/json" } }),
    });
    const [, log = "", batch = "", what = ""] = /(batches|orders)\/([^/]+)\/(\w+)/.exec(path) ?? [];
    const answer = path.endsWith("/events")
      ? await (log === "orders"
          ? addToOrder(request, { params: Promise.resolve({ workshop: workshopId, order: batch }) })
          : addEntry(request, { params: Promise.resolve({ workshop: workshopId, batch }) }))
      : path.endsWith("/import")
        ? await importRecord(request, { params: Promise.resolve({ workshop: workshopId }) })
        : await (what === "log" ? logOf : recordOf)(request, { params: Promise.resolve({ workshop: workshopId, id: batch, batch }) } as never);
    const text = await answer.text();
    return { status: answer.status, body: text.startsWith("{") ? JSON.parse(text) : text };
  },
});

/** How often each operation, done alone, was taken, over all seeds. */
const times = new Map<string, number>();

describe("the books of a workshop", () => {
  it.each(SEEDS)(
    "balance after every random operation, with seed %i",
    async (seed) => {
      const shop = await makeBooks(test.db);
      const { step, names } = booksDriver(clientOf(shop.id, shop.person), test.pool, shop, seed);
      let taken = 0;
      for (let n = 0; n < STEPS; n++) {
        const outcome = await step();
        if (outcome.taken) taken += 1;
        if (outcome.taken && outcome.names.length === 1) times.set(outcome.names[0] ?? "", (times.get(outcome.names[0] ?? "") ?? 0) + 1);
        const said = `seed ${seed}, step ${n}: ${outcome.what}`;
        expect(
          outcome.statuses.filter((status) => status >= 500),
          said,
        ).toEqual([]);
        expect(await brokenBooks(test.db, test.pool, shop.id, n % 25 === 0), said).toEqual([]);
      }
      // Refusals alone would prove nothing.
      expect(taken).toBeGreaterThan(STEPS / 4);
      if (SEEDS.length > 2 && seed === SEEDS.at(-1)) expect(names.filter((name) => !times.has(name))).toEqual([]);
    },
    180_000,
  );
});
