import "fake-indexeddb/auto";
import { deleteDB } from "idb";
import { v7 } from "uuid";
import { afterEach, describe, expect, it, vi } from "vitest";
import { type CachedLog, canKeep, device, readLogCache, writeLogCache } from "./store";

const known = (seq: number, batchId = "b"): Omit<CachedLog, "keptAt"> => ({
  batchId,
  workshopId: "w",
  state: { seq } as never,
  events: [],
  total: seq,
  seq,
  epoch: "first",
});

afterEach(async () => {
  vi.unstubAllGlobals();
  await deleteDB("hearth");
});

describe("what a device knows of a batch", () => {
  it("is the newest that any tab heard, and never an older one", async () => {
    await writeLogCache(known(7));
    await writeLogCache(known(3));
    expect(await readLogCache("b")).toMatchObject({ seq: 7, state: { seq: 7 } });
    await writeLogCache(known(9));
    expect(await readLogCache("b")).toMatchObject({ seq: 9 });
    expect(await readLogCache("unknown")).toBeNull();
    // After a backup was restored the log counts on from an earlier place.
    await writeLogCache({ ...known(4), epoch: "second" });
    expect(await readLogCache("b")).toMatchObject({ seq: 4, epoch: "second" });
  });

  it("is kept of the batches opened last, so that it does not grow without end", async () => {
    const ids = Array.from({ length: 45 }, () => v7());
    let now = 1_000;
    vi.spyOn(Date, "now").mockImplementation(() => now++);
    for (const id of ids) await writeLogCache(known(1, id));
    vi.restoreAllMocks();
    expect(await (await device())?.count("known")).toBe(40);
    expect(await readLogCache(ids[0] as string)).toBeNull();
    expect(await readLogCache(ids.at(-1) as string)).not.toBeNull();
  });
});

describe("whether a device keeps anything", () => {
  it("is tried, not supposed", async () => {
    expect(await canKeep()).toBe(true);
    expect(await (await device())?.count("known")).toBe(0);
    const put = vi.spyOn(IDBObjectStore.prototype, "put").mockImplementation(() => {
      throw new DOMException("full", "QuotaExceededError");
    });
    expect(await canKeep()).toBe(false);
    put.mockRestore();
    expect(await canKeep()).toBe(true);
    vi.stubGlobal("indexedDB", undefined);
    expect(await canKeep()).toBe(false);
    expect(await readLogCache("b")).toBeNull();
  });
});
