import type { SentEvent } from "@hearth/core";
import "fake-indexeddb/auto";
import { deleteDB, openDB } from "idb";
import { v7 } from "uuid";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

const event = (): SentEvent => ({
  id: v7(),
  happenedAt: "2026-03-14T14:20:00.000Z",
  personId: null,
  instrumentId: null,
  corrects: null,
  kind: "note",
  payload: { text: "x" },
});
const ids = { workshopId: v7(), batchId: v7(), of: "15 Rain on slate", told: "note: x" };

let sent: string[];
let answer: (id: string) => Response | Promise<Response>;
/** What the server says to a device that asks which of its entries the log holds. */
let history: () => Response;
/** The workshop's own answer to an entry: it names it. */
const takes = (id: string, seq = 7) => Response.json({ ok: true, id, seq, epoch: "first", repeated: false });
const refuse = (status: number, message = "Too hot.") => Response.json({ error: { message, fields: { shown: [message] } } }, { status });

/** Waits for what is to come, also on a machine that is busy. */
const soon = <T>(look: () => T | Promise<T>): Promise<T> => vi.waitFor(look, { timeout: 30_000 }) as Promise<T>;

const pages: (() => Promise<void>)[] = [];

/** The outbox as a page just loaded has it. */
async function freshPage() {
  vi.resetModules();
  const outbox = await import("./outbox");
  const { device, allEntries: rows, forgetAll } = await import("./store");
  // A page that is closed puts nothing back.
  pages.push(async () => {
    await forgetAll().catch(() => undefined);
    (await device())?.close();
  });
  const states = async (state: string) => (await rows()).filter((row) => row.state === state).map((row) => row.id);
  const clear = async () => (await device())?.clear("entries");
  /** The browser takes the whole database away, as when a maker clears the site's data. */
  const remove = () => deleteDB("hearth");
  return { ...outbox, clear, remove, waiting: () => states("waiting"), refused: () => states("refused"), rows };
}

/** The lock that all tabs of a browser share. */
function locks() {
  let last: Promise<unknown> = Promise.resolve();
  return {
    request: (_name: string, turn: () => Promise<void>) => {
      last = last.then(turn, turn);
      return last;
    },
  };
}

beforeEach(() => {
  vi.stubGlobal("navigator", { locks: locks() });
  sent = [];
  answer = takes;
  vi.stubGlobal("window", {});
  vi.stubGlobal("localStorage", { getItem: () => null, removeItem: () => undefined });
  vi.stubGlobal("fetch", async (_url: string, options: { body?: string }) => {
    if (!options.body) return history();
    const { id } = JSON.parse(options.body) as { id: string };
    sent.push(id);
    return answer(id);
  });
});
afterEach(async () => {
  for (const close of pages.splice(0)) await close();
  vi.unstubAllGlobals();
  await deleteDB("hearth");
});

describe("entries on their way to the server", () => {
  it("are kept until the server has them", async () => {
    const { send, waiting } = await freshPage();
    const item = event();
    expect(await send({ ...ids, event: item })).toBeNull();
    expect(sent).toEqual([item.id]);
    expect(await waiting()).toEqual([]);
  });

  it("wait on the device while the server is away, over a reload too, and go out in order, each once", async () => {
    answer = () => Promise.reject(new TypeError("network"));
    const first = await freshPage();
    const [a, b] = [event(), event()];
    void first.send({ ...ids, event: a });
    await soon(async () => expect(await first.waiting()).toEqual([a.id]));
    void first.send({ ...ids, event: b });
    await soon(async () => expect(await first.waiting()).toEqual([a.id, b.id]));

    answer = () => refuse(503, "away");
    const second = await freshPage();
    const c = event();
    void second.send({ ...ids, event: c });
    await soon(async () => expect(await second.waiting()).toEqual([a.id, b.id, c.id]));
    await soon(() => expect(sent.at(-1)).toBe(a.id));

    sent = [];
    answer = takes;
    const third = await freshPage();
    const d = event();
    await third.send({ ...ids, event: d });
    expect(sent).toEqual([a.id, b.id, c.id, d.id]);
    expect(await third.waiting()).toEqual([]);
  });

  it("stay on the device with the reason where the server refuses them, over a reload too, and do not hold up the rest", async () => {
    const { send, refused } = await freshPage();
    const [bad, good] = [event(), event()];
    answer = (id) => (id === bad.id ? refuse(400) : takes(id));
    const [why, taken] = await Promise.all([send({ ...ids, event: bad }), send({ ...ids, event: good })]);
    expect(why).toEqual({ message: "Too hot.", fields: { shown: ["Too hot."] } });
    expect(taken).toBeNull();
    expect(await refused()).toEqual([bad.id]);

    // After a reload it is still there, is not sent by itself, and can be mended, moved or dropped.
    const next = await freshPage();
    sent = [];
    await next.flush();
    expect(sent).not.toContain(bad.id);
    const [kept] = await next.rows();
    expect(kept).toMatchObject({ state: "refused", why: { message: "Too hot." }, of: "15 Rain on slate" });
    const mended = { ...bad, id: v7() };
    await next.retry(kept as never, { event: mended, batchId: "other" });
    await soon(async () => expect((await next.rows()).find((row) => row.id === mended.id)).toMatchObject({ state: "taken", batchId: "other" }));
    expect(await next.refused()).toEqual([]);
  });

  it("give way to the entry that is put down in their place; dropped ones can be had back", async () => {
    const { send, refused, rows, discard: drop } = await freshPage();
    answer = () => refuse(400);
    const [bad, also] = [event(), event()];
    await send({ ...ids, event: bad });
    await send({ ...ids, event: also }, bad.id);
    expect(await refused()).toEqual([also.id]);
    const back = await drop((await rows()).find((row) => row.id === also.id) as never);
    expect(await refused()).toEqual([]);
    back();
    await soon(async () => expect(await refused()).toEqual([also.id]));
  });

  it("are shown as refused where the server fails at one of them again and again; the others go on", async () => {
    const { send, flush, refused, waiting } = await freshPage();
    const [never, good] = [event(), event()];
    answer = (id) => (id === never.id ? refuse(500, "Something went wrong here.") : takes(id));
    const failed = send({ ...ids, event: never });
    expect(await send({ ...ids, event: good })).toBeNull();
    for (let i = 0; i < 6 && (await waiting()).length > 0; i++) await flush();
    expect(await failed).toMatchObject({ message: "Something went wrong here." });
    expect(await refused()).toEqual([never.id]);
  });

  it("still go out where the device keeps nothing, and it says so", async () => {
    vi.stubGlobal("indexedDB", undefined);
    const { send, flush, getSnapshot: seen } = await freshPage();
    answer = () => Promise.reject(new TypeError("network"));
    const going = send({ ...ids, event: event() });
    await soon(() => expect(sent.length).toBeGreaterThan(0));
    answer = takes;
    await flush();
    expect(await going).toBeNull();
    // Sent is not kept: nothing was written since.
    await flush();
    expect(seen()).toMatchObject({ keeps: false, unkept: 0 });
  });

  it("that an older version left waiting are taken over, and what is spoiled is let go", async () => {
    const old = event();
    const store = new Map([["hearth.outbox", JSON.stringify([{ workshopId: ids.workshopId, batchId: ids.batchId, event: old }])]]);
    vi.stubGlobal("localStorage", { getItem: (key: string) => store.get(key) ?? null, removeItem: (key: string) => void store.delete(key) });
    const { flush } = await freshPage();
    await soon(async () => {
      await flush();
      expect(sent).toEqual([old.id]);
    });
    expect(store.size).toBe(0);
    store.set("hearth.outbox", "{not json");
    const { send } = await freshPage();
    expect(await send({ ...ids, event: event() })).toBeNull();
    expect(store.size).toBe(0);
  });

  it("that an older version kept in the same store are sent by this one", async () => {
    // As versions to 0.4.0 opened it: their library wrote its version 1 as the browser's version 10.
    const before = await openDB("hearth", 10, {
      upgrade: (db) => {
        const entries = db.createObjectStore("entries", { keyPath: "seq", autoIncrement: true });
        entries.createIndex("id", "id", { unique: true });
        entries.createIndex("state", "state");
        db.createObjectStore("known", { keyPath: "batchId" }).createIndex("keptAt", "keptAt");
      },
    });
    const [first, second] = [event(), event()];
    for (const item of [first, second]) await before.add("entries", { ...ids, id: item.id, event: item, state: "waiting", why: null, tries: 0 });
    before.close();
    const { flush, waiting } = await freshPage();
    await soon(async () => {
      await flush();
      expect(sent).toEqual([first.id, second.id]);
    });
    expect(await waiting()).toEqual([]);
  });

  it("that one page puts down are seen by the others at once", async () => {
    answer = () => Promise.reject(new TypeError("network"));
    const [here, there] = [await freshPage(), await freshPage()];
    await there.flush();
    const item = event();
    void here.send({ ...ids, event: item });
    await soon(async () => expect((await there.rows()).map((row) => row.id)).toEqual([item.id]));
    answer = takes;
    sent = [];
    // The other page sends what the first logged, without having been asked to.
    await soon(() => expect(there.getSnapshot().waiting.map((row) => row.id)).toEqual([item.id]));
    await there.flush();
    await soon(async () => expect(await here.waiting()).toEqual([]));
    expect(new Set(sent)).toEqual(new Set([item.id]));
  });

  it.each([
    ["a page of the network's own", () => new Response("<html>Please sign in to the wifi</html>", { headers: { "content-type": "text/html" } })],
    ["JSON that names no entry", () => Response.json({ ok: true })],
    ["JSON that names another", () => takes(v7())],
    ["JSON of somebody else", () => Response.json({ status: "maintenance" })],
    ["an answer without a place in the log", (id: string) => Response.json({ ok: true, id })],
    ["a refusal by a proxy", () => new Response("<html>Forbidden</html>", { status: 403, headers: { "content-type": "text/html" } })],
    [
      "a redirect",
      () =>
        ({
          ok: false,
          status: 0,
          redirected: false,
          type: "opaqueredirect",
          headers: new Headers(),
          json: () => Promise.reject(new Error()),
        }) as unknown as Response,
    ],
  ])("wait on where %s answers in the workshop's place, and are sent once it answers itself", async (_, lies) => {
    answer = lies;
    const { send, flush, waiting, getSnapshot: seen } = await freshPage();
    const item = event();
    const going = send({ ...ids, event: item });
    await soon(() => expect(seen().away).toBe(true));
    expect(await waiting()).toEqual([item.id]);
    answer = takes;
    await flush();
    expect(await going).toBeNull();
    expect(await waiting()).toEqual([]);
    expect(seen().away).toBe(false);
  });

  /** The disk is full from now on, until the returned function is called: what is there can be read, and nothing written. */
  function fillDisk(): () => void {
    const full = () => {
      throw new DOMException("The disk is full.", "QuotaExceededError");
    };
    const spies = (["add", "put"] as const).map((name) => vi.spyOn(IDBObjectStore.prototype, name).mockImplementation(full));
    return () => {
      for (const spy of spies) spy.mockRestore();
    };
  }

  it("are answered where another tab sent them, whenever this tab gets its turn to send", async () => {
    const here = await freshPage();
    const there = await import("./store");
    await here.flush();
    for (let turns = 0; turns < 12; turns += 1) {
      // The other tab is sending: this one waits for its turn.
      const done = await new Promise<() => void>((held) => void navigator.locks.request("", () => new Promise<void>(held)));
      const item = event();
      const going = here.send({ ...ids, event: item });
      const row = await soon(async () => {
        expect(here.getSnapshot().waiting.map(({ id }) => id)).toEqual([item.id]);
        return (await here.rows()).find(({ id }) => id === item.id);
      });
      await there.changeEntry(row?.seq ?? -1, item.id, { state: "refused", why: { message: "Too hot.", fields: {} } });
      for (let turn = 0; turn < turns; turn += 1) await new Promise((next) => setImmediate(next));
      done();
      const late = new Promise((next) => setTimeout(next, 3_000, "never answered"));
      expect(await Promise.race([going, late]), `after ${turns} turns`).toMatchObject({ message: "Too hot." });
    }
    expect(sent).toEqual([]);
  });

  it("that waited before the disk was full are sent with those that came after, each once and in order, and kept again once there is room", async () => {
    answer = () => Promise.reject(new TypeError("network"));
    const { send, flush, getSnapshot: seen, waiting } = await freshPage();
    const all = Array.from({ length: 4 }, event);
    for (const item of all.slice(0, 2)) void send({ ...ids, event: item });
    await soon(async () => expect(await waiting()).toEqual(all.slice(0, 2).map((item) => item.id)));
    const empty = fillDisk();
    for (const item of all.slice(2)) void send({ ...ids, event: item });
    await soon(() => expect(seen()).toMatchObject({ keeps: false, unkept: 2 }));
    expect(seen().waiting.map((entry) => entry.id)).toEqual(all.map((item) => item.id));
    // After a reload what the device had kept is still shown, and sent.
    const next = await freshPage();
    await next.flush();
    await soon(() => expect(next.getSnapshot().waiting.map((entry) => entry.id)).toEqual(all.slice(0, 2).map((item) => item.id)));
    // Neither tries anew by itself from here on.
    await soon(() => expect([seen().away, next.getSnapshot().away]).toEqual([true, true]));
    await Promise.all([flush(), next.flush()]);
    sent = [];
    answer = takes;
    await flush();
    expect(sent).toEqual(all.map((item) => item.id));
    expect(seen().waiting).toEqual([]);
    // It is not sent again and again for want of writing down that it went.
    await flush();
    expect(sent).toEqual(all.map((item) => item.id));
    empty();
    await flush();
    expect(await waiting()).toEqual([]);
    expect(seen()).toMatchObject({ keeps: true, unkept: 0 });
  });

  it("are put back where the browser cleared what was kept, and not where another tab dropped them", async () => {
    answer = () => Promise.reject(new TypeError("network"));
    const page = await freshPage();
    const other = await freshPage();
    await other.flush();
    const [item, two] = [event(), event()];
    void page.send({ ...ids, event: item });
    answer = (id) => (id === two.id ? refuse(400) : Promise.reject(new TypeError("network")));
    void page.send({ ...ids, event: two });
    await soon(async () => expect(await page.waiting()).toHaveLength(2));
    // Each page knows of both.
    await soon(() => expect(other.getSnapshot().waiting).toHaveLength(2));
    const dropped = other.getSnapshot().waiting.find((row) => row.id === two.id);
    await other.discard(dropped as never);
    await soon(() => expect(page.getSnapshot().waiting.map((row) => row.id)).toEqual([item.id]));
    await page.clear();
    await page.flush();
    expect(page.getSnapshot().waiting.map((row) => row.id)).toEqual([item.id]);
    await soon(async () => expect(await page.waiting()).toEqual([item.id]));
    // With the database itself gone its places are given anew: one that is logged next is not taken for the one that had its place.
    await page.remove();
    const three = event();
    void page.send({ ...ids, event: three });
    sent = [];
    answer = takes;
    await soon(async () => {
      await page.flush();
      expect(page.getSnapshot().waiting).toEqual([]);
    });
    expect([...new Set(sent)].sort()).toEqual([item.id, three.id].sort());
    await soon(async () =>
      expect((await page.rows()).map((row) => [row.id, row.state]).sort()).toEqual(
        [
          [item.id, "taken"],
          [three.id, "taken"],
        ].sort(),
      ),
    );
  });

  it("that the log lacks after a backup was restored are told of, and sent again where the maker says so", async () => {
    const { send, getSnapshot: seen, checkHistory, retry: again, discard: drop } = await freshPage();
    const all = Array.from({ length: 3 }, event);
    for (const item of all) await send({ ...ids, event: item });
    history = () => Response.json({ epoch: "second", known: [{ id: all[0]?.id, seq: 3 }] });
    await checkHistory(ids.workshopId, "second");
    expect(seen().lost.map((entry) => entry.id)).toEqual(all.slice(1).map((item) => item.id));
    expect(seen().taken.map((entry) => entry.place)).toEqual([{ seq: 3, epoch: "second" }]);
    answer = (id) => Response.json({ ok: true, id, seq: 9, epoch: "second" });
    await again(seen().lost[0] as never);
    await soon(() => expect(seen().taken.map((entry) => entry.id)).toEqual(all.slice(0, 2).map((item) => item.id)));
    await drop(seen().lost[0] as never);
    expect(seen().lost).toEqual([]);
    // Once it is settled nothing is asked again.
    history = () => Response.json({ epoch: "second", known: [] });
    await checkHistory(ids.workshopId, "second");
    expect(seen().lost).toEqual([]);
  });
});
