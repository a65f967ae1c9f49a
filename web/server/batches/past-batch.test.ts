import { batchOf, type PastBatch } from "@hearth/core";
import { and, eq } from "drizzle-orm";
import { v7 } from "uuid";
import { describe, expect, it } from "vitest";
import { toEvent } from "@/data/batch-rows";
import { batchEvents, batches } from "@/data/tables/batch";
import { appendEvent } from "@/server/events/batch-store";
import { saveLot } from "@/server/inventory/commands";
import { readStocks } from "@/server/inventory/shelf";
import { here, inStoredWorkshop, stored, test, value, workshopId } from "@/testing/stored-workshop";
import { readBatch } from "./batches";
import { recordPastBatch, undoBatch } from "./commands";

inStoredWorkshop();

const STARTED = "2026-01-05T09:00:00.000Z";
const minute = (minutes: number) => new Date(Date.parse(STARTED) + minutes * 60_000).toISOString();
const wanted = (over: object = {}) => ({
  batchId: v7(),
  formulaVersionIds: [stored.version],
  process: "formula",
  products: [{ id: stored.vessel, container: "vessel", count: 10, wick: null }],
  sparePpm: 0,
  waxScale: stored.scale,
  oilScale: stored.scale,
  startedAt: STARTED,
  ...over,
});
const past = (over: Partial<PastBatch> = {}): PastBatch => ({
  steps: [
    { prompt: `weigh:0:${stored.wax}`, at: minute(5), value: 127_000 },
    { prompt: "heat", at: minute(40), value: 8_500 },
    { prompt: "pour", at: minute(70), value: null },
  ],
  filled: [{ product: stored.vessel, count: 9 }],
  thermometerId: stored.probe,
  leftMg: null,
  roomCelsius: null,
  warmed: null,
  inspection: {
    at: "2026-01-06T09:00:00.000Z",
    flaws: [{ defect: "wet_spot", place: "side", extent: "patch", product: stored.vessel, jars: 2 }],
  },
  remark: "",
  ...over,
});
const eventsOf = (batchId: string) =>
  test.db
    .select()
    .from(batchEvents)
    .where(and(eq(batchEvents.workshopId, workshopId), eq(batchEvents.batchId, batchId)))
    .orderBy(batchEvents.seq);

const buyWax = async () =>
  value(
    await saveLot(here(), {
      id: v7(),
      kind: "wax",
      materialId: stored.wax,
      expectedVersion: null,
      code: "A",
      amount: 1_000_000,
      cost: 800,
      receivedOn: "2026-01-01",
    }),
  );

describe("a past batch", () => {
  it("is recorded in one act with all that was noted; the same again changes nothing", async () => {
    await buyWax();
    const order = { wanted: wanted(), past: past() };
    const first = value(await recordPastBatch(here(), order));
    expect(first.entries).toBe(5);
    expect(value(await recordPastBatch(here(), order))).toEqual(first);
    const rows = await eventsOf(first.id);
    expect(rows.map((row) => row.kind)).toEqual(["started", "weighed", "read", "poured", "flaw", "inspected"]);
    const { state } = batchOf(rows.map(toEvent));
    expect(state).toMatchObject({ startedAt: STARTED, lookedAt: "2026-01-06T09:00:00.000Z" });
    // As it is shown: on the rack, since it is poured and not closed.
    expect(await readBatch(test.db, workshopId, first.id)).toMatchObject({ id: first.id });
    expect((await readStocks(test.db, workshopId, "UTC"))[stored.wax]?.onHand).toBe(873_000);
  });

  it("is undone as one, with what it drew, until something is added to it", async () => {
    await buyWax();
    const before = (await readStocks(test.db, workshopId, "UTC"))[stored.wax]?.onHand;
    const { id } = value(await recordPastBatch(here(), { wanted: wanted(), past: past() }));
    expect((await readStocks(test.db, workshopId, "UTC"))[stored.wax]?.onHand).not.toBe(before);
    value(await undoBatch(here(), { batchId: id }));
    expect(await eventsOf(id)).toEqual([]);
    expect((await readStocks(test.db, workshopId, "UTC"))[stored.wax]?.onHand).toBe(before);
    const kept = value(await recordPastBatch(here(), { wanted: wanted(), past: past() }));
    const note = stored.sent({ kind: "note", payload: { text: "kept two" } }, { happenedAt: "2026-01-07T09:00:00.000Z" });
    expect(await appendEvent(test.db, workshopId, kept.id, note, "2097-01-01T00:00:00.000Z")).toMatchObject({ ok: true });
    expect(await undoBatch(here(), { batchId: kept.id })).toMatchObject({ ok: false, message: expect.stringContaining("Abandon it") });
    expect(await eventsOf(kept.id)).toHaveLength(7);
    // No single entry is taken out, by the owner of the tables neither.
    await expect(test.owner.query("delete from batch_event where batch_id = $1 and kind = 'read'", [kept.id])).rejects.toThrow("append-only");
  });

  it("is refused whole, at the field, where one of its entries is", async () => {
    const many = await test.db.$count(batches, eq(batches.workshopId, workshopId));
    const refused = async (order: object) => {
      const outcome = await recordPastBatch(here(), order);
      expect(await test.db.$count(batches, eq(batches.workshopId, workshopId))).toBe(many);
      return outcome.ok ? null : outcome.fields;
    };
    const flaw = { defect: "wet_spot", place: "side" as const, extent: "patch" as const, product: stored.vessel, jars: 900 };
    expect(await refused({ wanted: wanted(), past: past({ inspection: { at: null, flaws: [flaw] } }) })).toHaveProperty("value:flaw:0");
    expect(await refused({ wanted: wanted(), past: past({ filled: [{ product: stored.vessel, count: 900 }] }) })).toHaveProperty("value:pour");
    // What an entry may not say it may not say here either.
    expect(await refused({ wanted: wanted(), past: past({ steps: [{ prompt: "heat", at: null, value: 900_000 }] }) })).toHaveProperty("value:heat");
    expect(await refused({ wanted: wanted(), past: past({ steps: [{ prompt: `weigh:0:${stored.wax}`, at: null, value: -5 }] }) })).toHaveProperty(
      `value:weigh:0:${stored.wax}`,
    );
    expect(await refused({ wanted: wanted(), past: past({ leftMg: -1 }) })).toHaveProperty("value:pour");
    expect(await refused({ wanted: wanted({ startedAt: null }), past: past() })).toHaveProperty("day");
    expect(await refused({ wanted: wanted({ startedAt: "2096-01-01T00:00:00.000Z" }), past: past() })).toHaveProperty("day");
    expect(await refused({ wanted: wanted(), past: past({ steps: [{ prompt: "heat", at: minute(-5), value: 8_000 }] }) })).toHaveProperty("time:heat");
    expect(await refused({ wanted: wanted(), past: past({ thermometerId: v7() }) })).toHaveProperty("thermometer");
  });
});
