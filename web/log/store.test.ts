import "fake-indexeddb/auto";
import { deleteDB } from "idb";
import { v7 } from "uuid";
import { afterEach, describe, expect, it, vi } from "vitest";
import { canKeep, device, type Known, keepKnown, readKnown } from "./store";

const known = (seq: number, batchId = "b"): Omit<Known, "keptAt"> => ({
  batchId,
  workshopId: "w",
  facts: { seq } as never,
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
    await keepKnown(known(7));
    await keepKnown(known(3));
    expect(await readKnown("b")).toMatchObject({ seq: 7, facts: { seq: 7 } });
    await keepKnown(known(9));
    expect(await readKnown("b")).toMatchObject({ seq: 9 });
    expect(await readKnown("unknown")).toBeNull();
    // After a backup was restored the log counts on from an earlier place.
    await keepKnown({ ...known(4), epoch: "second" });
    expect(await readKnown("b")).toMatchObject({ seq: 4, epoch: "second" });
  });

  it("is kept of the batches opened last, so that it does not grow without end", async () => {
    const ids = Array.from({ length: 45 }, () => v7());
    let now = 1_000;
    vi.spyOn(Date, "now").mockImplementation(() => now++);
    for (const id of ids) await keepKnown(known(1, id));
    vi.restoreAllMocks();
    expect(await (await device())?.count("known")).toBe(40);
    expect(await readKnown(ids[0] as string)).toBeNull();
    expect(await readKnown(ids.at(-1) as string)).not.toBeNull();
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
    expect(await readKnown("b")).toBeNull();
  });
});
