import { sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { batchEvents, batches } from "../../data/tables/batch";
import { workshops } from "../../data/tables/workshop";
import { type TestDatabase, testDatabase } from "../../testing/database";
import { STARTED, storedBatch } from "../../testing/stored-batch";
import { appendEvent } from "./append";
import { listBatches, readBatch, waitingCounts } from "./lists";

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
});
afterAll(() => test.pool.end());

const LATER = "2026-02-02T10:00:00.000Z";
const NEXT_WEEK = "2026-02-09T10:00:00.000Z";

async function pot() {
  const workshopId = await test.workshop();
  const batch = await storedBatch(test, workshopId);
  const append = (event: Parameters<typeof appendEvent>[3], now = LATER) => appendEvent(test.db, workshopId, batch.batch, event, now);
  return { workshopId, ...batch, append, read: async (now = LATER) => (await readBatch(test.db, workshopId, batch.batch, now))?.state };
}

describe("adding events", () => {
  it("takes the same event twice and counts it once, but refuses another under its id", async () => {
    const { append, sent, wax, read } = await pot();
    const weighed = sent({ kind: "weighed", payload: { componentId: wax, mg: 127_000 } });
    expect(await append(weighed)).toEqual({ ok: true, repeated: false });
    expect(await append(weighed)).toEqual({ ok: true, repeated: true });
    // The order of keys is no difference.
    expect(await append({ ...weighed, payload: { mg: 127_000, componentId: wax } } as never)).toEqual({ ok: true, repeated: true });
    expect(await append({ ...weighed, payload: { componentId: wax, mg: 1 } } as never)).toMatchObject({ ok: false, status: 409 });
    expect((await read())?.weighedMg[wax]).toBe(127_000);
  });

  it("counts an event once that is sent from two places at the same instant", async () => {
    const { append, sent, wax, read } = await pot();
    const weighed = sent({ kind: "weighed", payload: { componentId: wax, mg: 50_000 } });
    const answers = await Promise.all(Array.from({ length: 6 }, () => append(weighed)));
    expect(answers.filter((answer) => answer.ok && !answer.repeated)).toHaveLength(1);
    expect(answers.every((answer) => answer.ok)).toBe(true);
    expect((await read())?.weighedMg[wax]).toBe(50_000);
  });

  it("lets only one of two corrections at the same instant replace an entry", async () => {
    const { append, sent, wax } = await pot();
    const wrong = sent({ kind: "weighed", payload: { componentId: wax, mg: 1_000 } });
    await append(wrong);
    const fix = (mg: number) => append(sent({ kind: "weighed", payload: { componentId: wax, mg } }, { corrects: wrong.id }));
    const answers = await Promise.all([fix(2_000), fix(3_000)]);
    expect(answers.filter((answer) => answer.ok)).toHaveLength(1);
  });

  it("refuses a time in the future and one before the start, and writes nothing", async () => {
    const { append, sent, read } = await pot();
    const reading = (happenedAt: string) => sent({ kind: "read", payload: { gate: "heat", shown: 8_500, correction: 0 } }, { happenedAt });
    expect(await append(reading("2026-02-02T10:20:00.000Z"))).toMatchObject({
      ok: false,
      fields: { happenedAt: [expect.stringContaining("20 min ahead of now")] },
    });
    expect(await append(reading("2026-02-01T10:00:00.000Z"))).toMatchObject({
      ok: false,
      fields: { happenedAt: [expect.stringContaining("before the batch was started")] },
    });
    expect(await append(reading("2026-02-02T10:01:00.000Z"))).toMatchObject({ ok: true });
    expect((await read())?.readings).toHaveLength(1);
  });

  it("refuses people, instruments and batches of another workshop", async () => {
    const mine = await pot();
    const other = await pot();
    const note = mine.sent({ kind: "note", payload: { text: "x" } }, { personId: other.person });
    expect(await mine.append(note)).toMatchObject({ ok: false, fields: { personId: [expect.stringContaining("not of this workshop")] } });
    const reading = mine.sent({ kind: "read", payload: { gate: "heat", shown: 8_000, correction: 0 } }, { instrumentId: other.probe });
    expect(await mine.append(reading)).toMatchObject({ ok: false, fields: { instrumentId: [expect.stringContaining("not on this shelf")] } });
    expect(await appendEvent(test.db, mine.workshopId, other.batch, mine.sent({ kind: "note", payload: { text: "x" } }), LATER)).toMatchObject({
      ok: false,
      status: 404,
    });
  });

  it("keeps the batch's row true to its events, through pouring, looking over, closing and reopening", async () => {
    const { workshopId, append, sent } = await pot();
    const stage = async (now = LATER) => [
      (await test.db.select().from(batches).where(sql`workshop_id = ${workshopId}`))[0]?.stage,
      await waitingCounts(test.db, workshopId, now),
    ];
    expect(await stage()).toEqual(["pot", { "/bench": 1, "/rack": 0, "/look-over": 0 }]);
    await append(sent({ kind: "poured", payload: { warmedJars: null } }));
    expect(await stage()).toEqual(["rack", { "/bench": 0, "/rack": 1, "/look-over": 0 }]);
    expect((await stage(NEXT_WEEK))[1]).toMatchObject({ "/look-over": 1 });
    await append(sent({ kind: "looked", payload: { jars: 10 } }));
    expect((await stage(NEXT_WEEK))[1]).toMatchObject({ "/look-over": 0 });
    const closed = sent({ kind: "closed", payload: { missing: [] } });
    await append(closed);
    expect((await stage())[0]).toBe("closed");
    await append(sent({ kind: "withdrawn", payload: { why: "" } }, { corrects: closed.id }));
    expect((await stage())[0]).toBe("rack");
  });
});

describe("the table of events", () => {
  it("refuses to change or drop an event, yet lets a whole workshop go", async () => {
    const { workshopId } = await pot();
    await expect(test.db.update(batchEvents).set({ kind: "note" }).where(sql`workshop_id = ${workshopId}`)).rejects.toMatchObject({
      cause: { message: expect.stringContaining("append-only") },
    });
    await expect(test.db.delete(batchEvents).where(sql`workshop_id = ${workshopId}`)).rejects.toMatchObject({
      cause: { message: expect.stringContaining("append-only") },
    });
    await test.db.delete(workshops).where(sql`id = ${workshopId}`);
    expect(await test.db.select().from(batchEvents).where(sql`workshop_id = ${workshopId}`)).toEqual([]);
  });
});

describe("lists", () => {
  it("gives every batch once over its pages, newest first, also where starts coincide", async () => {
    const workshopId = await test.workshop();
    const made = await Promise.all(Array.from({ length: 53 }, (_, index) => storedBatch(test, workshopId, index + 1)));
    const seen: string[] = [];
    let after: string | undefined;
    do {
      const page = await listBatches(test.db, workshopId, ["pot"], STARTED, after);
      seen.push(...page.batches.map((one) => one.id));
      expect(page.batches.length).toBeLessThanOrEqual(25);
      after = page.more ?? undefined;
    } while (after);
    expect(new Set(seen)).toEqual(new Set(made.map((one) => one.batch)));
    expect(seen).toHaveLength(53);
  });
});
