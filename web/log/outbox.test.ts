import type { SentEvent } from "@hearth/core";
import { v7 } from "uuid";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

/** A browser's store, as far as the outbox needs one. */
class Store {
  private readonly items = new Map<string, string>();
  getItem = (key: string) => this.items.get(key) ?? null;
  setItem = (key: string, value: string) => void this.items.set(key, value);
}
const event = (): SentEvent => ({
  id: v7(),
  happenedAt: "2026-03-14T14:20:00.000Z",
  personId: null,
  instrumentId: null,
  corrects: null,
  kind: "note",
  payload: { text: "x" },
});
const ids = { workshopId: v7(), batchId: v7() };

let store: Store;
let sent: string[];
let answer: (id: string) => Response | Promise<Response>;

/** The outbox as a page just loaded has it. */
async function freshPage() {
  vi.resetModules();
  return import("./outbox");
}

beforeEach(() => {
  store = new Store();
  sent = [];
  answer = () => Response.json({ ok: true });
  vi.stubGlobal("window", {});
  vi.stubGlobal("localStorage", store);
  vi.stubGlobal("fetch", async (_url: string, options: { body: string }) => {
    const { id } = JSON.parse(options.body) as { id: string };
    sent.push(id);
    return answer(id);
  });
});
afterEach(() => vi.unstubAllGlobals());

const kept = (): string[] => (JSON.parse(store.getItem("hearth.outbox") ?? "[]") as { event: SentEvent }[]).map((one) => one.event.id);

describe("entries on their way to the server", () => {
  it("are kept until the server has them, and then let go", async () => {
    const { send } = await freshPage();
    const one = event();
    expect(await send({ ...ids, event: one })).toBeNull();
    expect(sent).toEqual([one.id]);
    expect(kept()).toEqual([]);
  });

  it("wait on the device while the server is away, over a reload too, and go out in order", async () => {
    answer = () => Promise.reject(new TypeError("network"));
    const first = await freshPage();
    const [a, b] = [event(), event()];
    void first.send({ ...ids, event: a });
    void first.send({ ...ids, event: b });
    await vi.waitFor(() => expect(kept()).toEqual([a.id, b.id]));

    answer = () => Response.json({ error: { message: "away", fields: {} } }, { status: 503 });
    const second = await freshPage();
    const c = event();
    void second.send({ ...ids, event: c });
    await vi.waitFor(() => expect(sent.at(-1)).toBe(a.id));
    expect(kept()).toEqual([a.id, b.id, c.id]);

    sent = [];
    answer = () => Response.json({ ok: true });
    const third = await freshPage();
    const d = event();
    await third.send({ ...ids, event: d });
    expect(sent).toEqual([a.id, b.id, c.id, d.id]);
    expect(kept()).toEqual([]);
  });

  it("are handed back with the reason where the server refuses them, and do not hold up the rest", async () => {
    const { send } = await freshPage();
    const [bad, good] = [event(), event()];
    answer = (id) =>
      id === bad.id ? Response.json({ error: { message: "Too hot.", fields: { shown: ["Too hot."] } } }, { status: 400 }) : Response.json({ ok: true });
    const [refused, taken] = await Promise.all([send({ ...ids, event: bad }), send({ ...ids, event: good })]);
    expect(refused).toEqual({ message: "Too hot.", fields: { shown: ["Too hot."] } });
    expect(taken).toBeNull();
    expect(kept()).toEqual([]);
  });

  it("still go out where the device's store is full", async () => {
    const { send } = await freshPage();
    store.setItem = () => {
      throw new DOMException("full", "QuotaExceededError");
    };
    expect(await send({ ...ids, event: event() })).toBeNull();
  });

  it("survive a store that somebody else has spoiled", async () => {
    store.setItem("hearth.outbox", "{not json");
    const { send } = await freshPage();
    expect(await send({ ...ids, event: event() })).toBeNull();
  });
});
