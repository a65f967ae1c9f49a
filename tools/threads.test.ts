import { mkdirSync, rmSync } from "node:fs";
import { batchOf, forecastView } from "@hearth/core";
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from "vitest";
import { potForecasts } from "../web/server/batches/pot-forecast";
import { ServerBusyError } from "../web/server/http/respond";
import { inThread } from "../web/server/operation/thread";
import { paperAnswer } from "../web/server/paper/answer";
import { tagsOf } from "../web/server/paper/sheets";
import { type TestDatabase, testDatabase } from "../web/testing/database";
import { readPaper } from "../web/testing/read-paper";
import { STARTED, storedBatch } from "../web/testing/stored-batch";
import { buildThreads } from "./threads";

/** Where its packages are found: within the project. */
const FOLDER = new URL("../.hearth/test-threads/", import.meta.url).pathname;
let test: TestDatabase;
let plan: ReturnType<typeof batchOf>["plan"];
beforeAll(async () => {
  mkdirSync(FOLDER, { recursive: true });
  await buildThreads(FOLDER);
  test = await testDatabase();
  plan = batchOf([(await storedBatch(test, await test.workshop())).started]).plan;
});
afterAll(async () => {
  rmSync(FOLDER, { recursive: true, force: true });
  await test.pool.end();
});
beforeEach(() => void vi.stubEnv("HEARTH_THREADS", FOLDER));

/** A batch of so many jars, as a paper. */
const sheetOf = (jars: number) => ({
  name: "Batch 7",
  day: STARTED.slice(0, 10),
  plan: { ...plan, products: plan.products.map((product) => ({ ...product, count: jars })) },
  address: "http://127.0.0.1/x",
  opens: "opens",
});
const ask = (jars: number, query = "what=tags&size=a4", signal?: AbortSignal) =>
  paperAnswer(
    new Request(`http://127.0.0.1/?${query}`, signal ? { signal } : {}),
    [sheetOf(jars)],
    { massUnit: "g", temperatureUnit: "C", locale: "en-US" },
    new Map(),
    "batch-7",
  );

describe("paper", () => {
  it("is drawn beside the server, which goes on with everything else meanwhile", async () => {
    let longest = 0;
    let last = performance.now();
    const beat = setInterval(() => {
      longest = Math.max(longest, performance.now() - last);
      last = performance.now();
    }, 5);
    const began = performance.now();
    const answer = await ask(1_000);
    const took = performance.now() - began;
    clearInterval(beat);
    // Drawing takes long; nothing else waits for it.
    expect(longest).toBeLessThan(took / 2);
    const { pages } = await readPaper(answer);
    expect(pages).toBe(Math.ceil(1_000 / 21));
  });

  it("is asked in parts where there is much of it, and no tag is drawn twice or left out", async () => {
    expect(tagsOf([sheetOf(70_000)])).toBe(70_000);
    const refused = await ask(70_000);
    expect(refused.status).toBe(400);
    expect((await refused.json()).error.message).toMatch(/These are 70000 tags\. At most 2000 .*from=2001/);
    const tagsIn = async (answer: Response) => (await readPaper(answer)).text.match(/Batch 7/g)?.length;
    expect(await tagsIn(await ask(2_010, "what=tags&size=a4&from=2001"))).toBe(10);
    expect(await tagsIn(await ask(40, "what=tags&size=a4&from=31"))).toBe(10);
    for (const query of ["what=posters", "size=a5", "what=tags&from=0"]) expect((await ask(1, query)).status).toBe(400);
  });

  it("ends when the client leaves, or takes too long", async () => {
    const leaving = new AbortController();
    setTimeout(() => leaving.abort(), 60);
    await expect(ask(2_000, "what=tags", leaving.signal)).rejects.toThrow(ServerBusyError);
    const slow = {
      file: "paper.cjs",
      data: { what: "tags", sheets: [sheetOf(2_000)], size: "a4", units: { massUnit: "g", temperatureUnit: "C", locale: "en-US" }, from: 0, count: 2_000 },
    };
    await expect(inThread({ ...slow, signal: new AbortController().signal, limitMs: 50, what: "this paper", here: () => null })).rejects.toThrow(
      /This paper takes longer/,
    );
    // So are those that waited behind it, and one that comes after them is answered.
    const several = new AbortController();
    setTimeout(() => several.abort(), 60);
    const left = await Promise.allSettled(Array.from({ length: 3 }, () => ask(2_000, "what=tags", several.signal)));
    expect(left.map((settledResult) => settledResult.status)).toEqual(["rejected", "rejected", "rejected"]);
    // Its place is free again.
    expect((await ask(3)).status).toBe(200);
  });
});

describe("the forecasts of the pots that a page shows", () => {
  const target = {
    name: "pour",
    range: { low: 5_700, high: 6_300 },
    from: "2026-03-14T13:00:00.000Z",
    request: { ambient_c: 20, mass_g: 1_200, readings: [84, 79, 75, 72].map((celsius, index) => ({ minute: index * 5, celsius })), targets_c: [63, 57] },
    heating: false,
    mixed: false,
    drops: null,
    usual: null,
  };

  it("are what the device works out, or left to the device where the thread is late", async () => {
    const targets = { one: target, none: null, warmer: { ...target, range: { low: 6_000, high: 6_600 } } };
    // The first may be late: its thread starts.
    await potForecasts(targets);
    await expect
      .poll(() => potForecasts(targets), { timeout: 20_000 })
      .toEqual({ one: forecastView(target), none: null, warmer: forecastView(targets.warmer) });
    expect(await potForecasts({ none: null })).toEqual({ none: null });
    // One that cannot be worked out is a fault, and no late one.
    await expect(potForecasts({ ...targets, one: { ...target, request: null as never } })).rejects.toThrow();
  });
});
