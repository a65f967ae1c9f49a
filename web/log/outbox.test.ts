import type { SentEvent } from "@hearth/core";
import "fake-indexeddb/auto";
import { Dexie } from "dexie";
import { deleteDB } from "idb";
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
const refuse = (status: number, message = "Too hot.") => Response.json({ error: { message, fields: { shown: [message] } } }, { status });

const pages: (() => Promise<void>)[] = [];

/** The outbox as a page just loaded has it. */
async function freshPage() {
  vi.resetModules();
  const outbox = await import("./outbox");
  const { device, allEntries: rows } = await import("./store");
  pages.push(async () => (await device())?.close());
  const states = async (state: string) => (await rows()).filter((one) => one.state === state).map((one) => one.id);
  return { ...outbox, waiting: () => states("waiting"), refused: () => states("refused"), rows };
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
  answer = () => Response.json({ ok: true });
  vi.stubGlobal("window", {});
  vi.stubGlobal("localStorage", { getItem: () => null, removeItem: () => undefined });
  vi.stubGlobal("fetch", async (_url: string, options: { body: string }) => {
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
    const one = event();
    expect(await send({ ...ids, event: one })).toBeNull();
    expect(sent).toEqual([one.id]);
    expect(await waiting()).toEqual([]);
  });

  it("wait on the device while the server is away, over a reload too, and go out in order, each once", async () => {
    answer = () => Promise.reject(new TypeError("network"));
    const first = await freshPage();
    const [a, b] = [event(), event()];
    void first.send({ ...ids, event: a });
    await vi.waitFor(async () => expect(await first.waiting()).toEqual([a.id]));
    void first.send({ ...ids, event: b });
    await vi.waitFor(async () => expect(await first.waiting()).toEqual([a.id, b.id]));

    answer = () => refuse(503, "away");
    const second = await freshPage();
    const c = event();
    void second.send({ ...ids, event: c });
    await vi.waitFor(async () => expect(await second.waiting()).toEqual([a.id, b.id, c.id]));
    await vi.waitFor(() => expect(sent.at(-1)).toBe(a.id));

    sent = [];
    answer = () => Response.json({ ok: true });
    const third = await freshPage();
    const d = event();
    await third.send({ ...ids, event: d });
    expect(sent).toEqual([a.id, b.id, c.id, d.id]);
    expect(await third.waiting()).toEqual([]);
  });

  it("stay on the device with the reason where the server refuses them, over a reload too, and do not hold up the rest", async () => {
    const { send, refused } = await freshPage();
    const [bad, good] = [event(), event()];
    answer = (id) => (id === bad.id ? refuse(400) : Response.json({ ok: true }));
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
    await next.again(kept as never, { event: mended, batchId: "other" });
    await vi.waitFor(async () => expect((await next.rows()).find((one) => one.id === mended.id)).toMatchObject({ state: "taken", batchId: "other" }));
    expect(await next.refused()).toEqual([]);
  });

  it("give way to the entry that is put down in their place; dropped ones can be had back", async () => {
    const { send, refused, rows, drop } = await freshPage();
    answer = () => refuse(400);
    const [bad, also] = [event(), event()];
    await send({ ...ids, event: bad });
    await send({ ...ids, event: also }, bad.id);
    expect(await refused()).toEqual([also.id]);
    const back = await drop((await rows()).find((one) => one.id === also.id) as never);
    expect(await refused()).toEqual([]);
    back();
    await vi.waitFor(async () => expect(await refused()).toEqual([also.id]));
  });

  it("are shown as refused where the server fails at one of them again and again; the others go on", async () => {
    const { send, flush, refused, waiting } = await freshPage();
    const [never, good] = [event(), event()];
    answer = (id) => (id === never.id ? refuse(500, "Something went wrong here.") : Response.json({ ok: true }));
    const failed = send({ ...ids, event: never });
    expect(await send({ ...ids, event: good })).toBeNull();
    for (let i = 0; i < 6 && (await waiting()).length > 0; i++) await flush();
    expect(await failed).toMatchObject({ message: "Something went wrong here." });
    expect(await refused()).toEqual([never.id]);
  });

  it("still go out where the device keeps nothing, and it says so", async () => {
    vi.stubGlobal("indexedDB", undefined);
    const { send, flush } = await freshPage();
    answer = () => Promise.reject(new TypeError("network"));
    const going = send({ ...ids, event: event() });
    await vi.waitFor(() => expect(sent.length).toBeGreaterThan(0));
    answer = () => Response.json({ ok: true });
    await flush();
    expect(await going).toBeNull();
  });

  it("that an older version left waiting are taken over, and what is spoiled is let go", async () => {
    const old = event();
    const store = new Map([["hearth.outbox", JSON.stringify([{ workshopId: ids.workshopId, batchId: ids.batchId, event: old }])]]);
    vi.stubGlobal("localStorage", { getItem: (key: string) => store.get(key) ?? null, removeItem: (key: string) => void store.delete(key) });
    const { flush } = await freshPage();
    await vi.waitFor(async () => {
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
    // As versions to 0.4.0 opened it, with the library that they did it with.
    const before = new Dexie("hearth");
    before.version(1).stores({ entries: "++seq, &id, state", known: "batchId, keptAt" });
    const [first, second] = [event(), event()];
    for (const one of [first, second]) await before.table("entries").add({ ...ids, id: one.id, event: one, state: "waiting", why: null, tries: 0 });
    before.close();
    const { flush, waiting } = await freshPage();
    await vi.waitFor(async () => {
      await flush();
      expect(sent).toEqual([first.id, second.id]);
    });
    expect(await waiting()).toEqual([]);
  });

  it("that one page puts down are seen by the others at once", async () => {
    answer = () => Promise.reject(new TypeError("network"));
    const [here, there] = [await freshPage(), await freshPage()];
    await there.flush();
    const one = event();
    void here.send({ ...ids, event: one });
    await vi.waitFor(async () => expect((await there.rows()).map((row) => row.id)).toEqual([one.id]));
    answer = () => Response.json({ ok: true });
    sent = [];
    // The other page sends what the first put down, without having been asked to.
    await vi.waitFor(() => expect(there.seen().waiting.map((row) => row.id)).toEqual([one.id]));
    await there.flush();
    await vi.waitFor(async () => expect(await here.waiting()).toEqual([]));
    expect(new Set(sent)).toEqual(new Set([one.id]));
  });
});
