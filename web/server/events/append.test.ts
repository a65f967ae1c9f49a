import { BATCH, type BatchEvent, type BatchState, batchOf, type Written } from "@hearth/core";
import { sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import { batchEvents, batches } from "@/data/tables/batch";
import { type CachedLogOf, mergeDelta } from "@/log/log-cache";
import { dueToLook, listBatches, readBatch, waitingCounts } from "@/server/batches/batches";
import { type Change, subscribeToChanges } from "@/server/http/change-stream";
import { type TestDatabase, testDatabase } from "@/testing/database";
import { STARTED, storedBatch } from "@/testing/stored-batch";
import { MAX_ENTRIES, readSince } from "./aggregate-store";
import { appendTo } from "./append";
import { appendEvent, batchStore, undoStart } from "./batch-store";

type Known = CachedLogOf<BatchState, BatchEvent>;
const POURED = { kind: "poured" as const, payload: { step: "pour", filled: [], leftMg: null, roomCelsius: null, warmed: null } };

let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
  process.env.DATABASE_URL = test.url;
});
afterAll(() => test.pool.end());

const LATER = "2026-02-02T10:00:00.000Z";
const NEXT_WEEK = "2026-02-09T10:00:00.000Z";

async function pot() {
  const workshopId = await test.workshop();
  const batch = await storedBatch(test, workshopId);
  const append = (event: Parameters<typeof appendEvent>[3], now = LATER) => appendEvent(test.db, workshopId, batch.batch, event, now);
  return { workshopId, ...batch, append, read: async () => (await readBatch(test.db, workshopId, batch.batch))?.state };
}

describe("adding events", () => {
  it("takes the same event twice and counts it once, but refuses another under its id", async () => {
    const { append, sent, wax, read } = await pot();
    const weighed = sent({ kind: "weighed", payload: { pot: 0, componentId: wax, mg: 127_000 } });
    expect(await append(weighed)).toMatchObject({ ok: true, value: { repeated: false } });
    expect(await append(weighed)).toMatchObject({ ok: true, value: { repeated: true } });
    // The order of keys is no difference.
    expect(await append({ ...weighed, payload: { mg: 127_000, componentId: wax, pot: 0 } } as never)).toMatchObject({ ok: true, value: { repeated: true } });
    expect(await append({ ...weighed, payload: { pot: 0, componentId: wax, mg: 1 } } as never)).toMatchObject({ ok: false, status: 409 });
    expect((await read())?.weighed[`0:${wax}`]?.mg).toBe(127_000);
  });

  it("counts an event once that is sent from two places at the same instant", async () => {
    const { append, sent, wax, read } = await pot();
    const weighed = sent({ kind: "weighed", payload: { pot: 0, componentId: wax, mg: 50_000 } });
    const answers = await Promise.all(Array.from({ length: 6 }, () => append(weighed)));
    expect(answers.filter((answer) => answer.ok && !answer.value.repeated)).toHaveLength(1);
    expect(answers.every((answer) => answer.ok)).toBe(true);
    expect((await read())?.weighed[`0:${wax}`]?.mg).toBe(50_000);
  });

  it("takes many at the same instant together, in the order they came, and refuses only what is wrong among them", async () => {
    const { append, sent, wax, workshopId, batch } = await pot();
    const many = Array.from({ length: 60 }, (_, index) =>
      index % 20 === 7
        ? sent({ kind: "weighed", payload: { pot: 0, componentId: wax, mg: 1_000 } }, { personId: workshopId })
        : sent({ kind: "note", payload: { text: `note ${index}` } }),
    );
    const twice = many[3] as (typeof many)[number];
    const answers = await Promise.all([...many, twice].map((event) => append(event)));
    expect(answers.filter((answer) => !answer.ok)).toHaveLength(3);
    expect(answers.filter((answer) => answer.ok && answer.value.repeated)).toHaveLength(1);
    for (const at of [7, 27, 47]) expect(answers[at]).toMatchObject({ ok: false, status: 400, fields: { personId: expect.anything() } });
    const { rows } = await test.pool.query(
      "select payload->>'text' as text from batch_event where workshop_id = $1 and batch_id = $2 and kind = 'note' order by seq",
      [workshopId, batch],
    );
    expect(rows.map((row) => row.text)).toEqual(many.filter((event) => event.kind === "note").map((event) => (event.payload as { text: string }).text));
    // What follows from them is what follows from them one by one.
    const page = await readBatch(test.db, workshopId, batch);
    expect(page?.state).toEqual(batchOf(page?.events ?? []).state);
  });

  it("takes a time at any offset that can be written, which the database alone would not", async () => {
    const { append, sent, workshopId, batch } = await pot();
    const odd = sent({ kind: "note", payload: { text: "far east" } }, { happenedAt: "2026-02-02T09:00:00+23:59" });
    expect(await append(odd)).toMatchObject({ ok: true });
    expect(await append(odd)).toMatchObject({ ok: true, value: { repeated: true } });
    const page = await readBatch(test.db, workshopId, batch);
    expect(page?.events.map((event) => event.happenedAt)).toContain("2026-02-01T09:01:00.000Z");
  });

  it("lets only one of two corrections at the same instant replace an entry", async () => {
    const { append, sent, wax } = await pot();
    const wrong = sent({ kind: "weighed", payload: { pot: 0, componentId: wax, mg: 1_000 } }, { happenedAt: LATER });
    await append(wrong);
    const fix = (mg: number) => append(sent({ kind: "weighed", payload: { pot: 0, componentId: wax, mg } }, { corrects: wrong.id }));
    const answers = await Promise.all([fix(2_000), fix(3_000)]);
    expect(answers.filter((answer) => answer.ok)).toHaveLength(1);
  });

  it("tells a page facts and entries of the same moment, however fast others write", async () => {
    const { workshopId, batch, append, sent, wax } = await pot();
    let writing = true;
    const heard: [number, number][] = [];
    const listen = async () => {
      while (writing) {
        const told = await readSince(batchStore, test.db, workshopId, batch, 0);
        heard.push([told?.state.weighed[`0:${wax}`]?.mg ?? 0, told?.events.filter((event) => event.kind === "weighed").length ?? 0]);
      }
    };
    const listening = [listen(), listen(), listen()];
    for (let i = 0; i < 40; i++) await append(sent({ kind: "weighed", payload: { pot: 0, componentId: wax, mg: 100 } }));
    writing = false;
    await Promise.all(listening);
    // What has been weighed into the pot adds up.
    for (const [mg, entries] of heard) expect(mg).toBe(entries * 100);
    expect(heard.length).toBeGreaterThan(40);
  });

  it("refuses a time in the future, and takes one put down late, also from before the batch was keyed in", async () => {
    const { append, sent, read } = await pot();
    const reading = (happenedAt: string) => sent({ kind: "read", payload: { step: "heat", shown: 8_500, correction: 0 } }, { happenedAt });
    expect(await append(reading("2026-02-02T10:20:00.000Z"))).toMatchObject({
      ok: false,
      fields: { happenedAt: [expect.stringContaining("20 min ahead of now")] },
    });
    expect(await append(reading("2026-02-01T10:00:00.000Z"))).toMatchObject({ ok: true });
    expect(await append(reading("2026-02-02T10:01:00.000Z"))).toMatchObject({ ok: true });
    expect((await read())?.curve.points).toHaveLength(2);
  });

  it("refuses people, instruments and batches of another workshop", async () => {
    const mine = await pot();
    const other = await pot();
    const note = mine.sent({ kind: "note", payload: { text: "x" } }, { personId: other.person });
    expect(await mine.append(note)).toMatchObject({ ok: false, fields: { personId: [expect.stringContaining("not of this workshop")] } });
    const reading = mine.sent({ kind: "read", payload: { step: "heat", shown: 8_000, correction: 0 } }, { instrumentId: other.probe });
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
      await waitingCounts(test.db, { id: workshopId, timeZone: "UTC" }, now),
    ];
    expect(await stage()).toEqual(["pot", { "/bench": 1, "/rack": 0, "/inspect": 0, "/burn": 0, "/sell": 0 }]);
    await append(sent(POURED));
    expect(await stage()).toEqual(["rack", { "/bench": 0, "/rack": 1, "/inspect": 0, "/burn": 0, "/sell": 0 }]);
    expect((await stage(NEXT_WEEK))[1]).toMatchObject({ "/inspect": 1 });
    await append(sent({ kind: "inspected", payload: { jars: 10 } }));
    expect((await stage(NEXT_WEEK))[1]).toMatchObject({ "/inspect": 0 });
    const closed = sent({ kind: "closed", payload: { missing: [] } });
    await append(closed);
    expect((await stage())[0]).toBe("closed");
    await append(sent({ kind: "withdrawn", payload: { why: "", mode: "delete" } }, { corrects: closed.id }));
    expect((await stage())[0]).toBe("rack");
  });
});

describe("entries from two servers", () => {
  it("are neither lost nor counted twice where two servers write to one batch", async () => {
    const { workshopId, batch, sent, wax } = await pot();
    // Another server knows nothing of what this one has just written.
    const path = "./append?elsewhere";
    const elsewhere = (await import(/* @vite-ignore */ path)) as typeof import("./append");
    const db = test.as(workshopId);
    const servers = [appendTo, elsewhere.appendTo].map(
      (to) => (event: ReturnType<typeof sent>) => to(batchStore, db, workshopId, batch, event as BatchEvent, LATER),
    );
    const [here, there] = servers as [(typeof servers)[0], (typeof servers)[0]];
    const weighed = () => sent({ kind: "weighed", payload: { pot: 0, componentId: wax, mg: 100 } });
    const note = (text: string) => sent({ kind: "note", payload: { text } });
    for (let round = 0; round < 12; round++) {
      const batchEvent = note(`both ${round}`);
      const twice = await Promise.all([here(batchEvent), there(batchEvent)]);
      expect(twice.map((answer) => answer.ok && answer.value.repeated).sort()).toEqual([false, true]);
      const answers = await Promise.all([here(note("a")), there(note("b")), here(weighed()), there(weighed()), here(note("c"))]);
      expect(answers.every((answer) => answer.ok && !answer.value.repeated)).toBe(true);
      // Each by turns for a while, as where one of them is left alone.
      for (let turn = 0; turn < 3; turn++)
        expect(await (round % 2 ? here : there)(note(`turn ${turn}`))).toMatchObject({ ok: true, value: { repeated: false } });
    }
    const page = await readBatch(test.db, workshopId, batch);
    expect(page?.total).toBe(1 + 12 * 9);
    expect(page?.state).toEqual(batchOf(page?.events ?? []).state);
    expect(page?.state.weighed[`0:${wax}`]?.mg).toBe(2_400);
  });
});

describe("the facts kept with a batch", () => {
  it("are those that all entries give, in whatever order they arrive", async () => {
    const { workshopId, batch, append, sent, wax, oil } = await pot();
    const minute = (n: number) => ({ happenedAt: `2026-02-02T09:${String(n).padStart(2, "0")}:00.000Z` });
    const wrong = sent({ kind: "weighed", payload: { pot: 0, componentId: oil, mg: 99_000 } }, minute(4));
    for (const event of [
      sent({ kind: "weighed", payload: { pot: 0, componentId: wax, mg: 127_000 } }, minute(3)),
      wrong,
      sent({ kind: "read", payload: { step: "heat", shown: 8_500, correction: 0 } }, minute(20)),
      // Put down late, and corrected.
      sent({ kind: "read", payload: { step: null, shown: 5_000, correction: 0 } }, minute(9)),
      sent({ kind: "weighed", payload: { pot: 0, componentId: oil, mg: 13_000 } }, { ...minute(21), corrects: wrong.id }),
    ])
      expect(await append(event)).toMatchObject({ ok: true });
    const kept = await readBatch(test.db, workshopId, batch);
    expect(kept?.state).toEqual(batchOf(kept?.events ?? []).state);
    expect(kept?.state.drawn[oil]?.amount).toBe(13_000);
  });

  it("come with only the newest entries of a long log, and what followed since", async () => {
    const { workshopId, batch, append, sent } = await pot();
    const first = await append(sent({ kind: "note", payload: { text: "one" } }));
    for (let n = 0; n < MAX_ENTRIES + 5; n++)
      await append(
        sent(
          { kind: "read", payload: { step: null, shown: 7_000 + n, correction: 0 } },
          { happenedAt: new Date(Date.parse(STARTED) + n * 1_000).toISOString() },
        ),
      );
    const kept = await readBatch(test.db, workshopId, batch);
    expect(kept?.events).toHaveLength(MAX_ENTRIES);
    expect(kept?.total).toBe(MAX_ENTRIES + 7);
    const since = await readSince(batchStore, test.db, workshopId, batch, (kept?.seq ?? 0) - 1);
    expect(since?.events).toHaveLength(1);
    expect(first.ok && (await readSince(batchStore, test.db, workshopId, batch, first.value.seq))?.events).toHaveLength(MAX_ENTRIES);
  });
});

describe("what is told of an entry", () => {
  it("brings a page to what the server has, without asking; where one was missed, reaches back or is long, the page is told to read", async () => {
    const { workshopId, batch, append, sent, wax, oil } = await pot();
    const heard: Change[] = [];
    const leave = subscribeToChanges((change) => void (change.workshop === "*" || change.workshop === workshopId ? heard.push(change) : 0));
    await vi.waitFor(() => expect(heard).toEqual([{ workshop: "*" }]), 5_000);
    const told = async (event: Parameters<typeof append>[0]) => {
      const before = heard.length;
      expect(await append(event)).toMatchObject({ ok: true });
      await vi.waitFor(() => expect(heard.length).toBe(before + 1), 5_000);
      const change = heard.at(-1);
      expect(change).toMatchObject({ workshop: workshopId, batch });
      return change?.written;
    };
    const opened = await readBatch(test.db, workshopId, batch);
    if (!opened) throw new Error("There is no such batch.");
    let known: Known = opened;
    for (const event of [
      sent({ kind: "weighed", payload: { pot: 0, componentId: wax, mg: 127_000 } }),
      sent({ kind: "weighed", payload: { pot: 0, componentId: oil, mg: 12_700 } }),
      sent({ kind: "read", payload: { step: "heat", shown: 8_500, correction: -50 } }),
    ]) {
      const written = await told(event);
      const next = written && mergeDelta(BATCH, known, written as Written, opened.plan);
      if (!next) throw new Error("It was not told at once.");
      known = next;
      const { state, events, total, seq } = (await readBatch(test.db, workshopId, batch)) as Known;
      expect(known).toMatchObject({ state, total, seq });
      expect(known.events.map((event) => [event.id, event.kind, event.payload])).toEqual(events.map((event) => [event.id, event.kind, event.payload]));
      // Told twice, it counts once.
      expect(mergeDelta(BATCH, known, written as Written, opened.plan)).toBe(known);
    }
    // One that was missed lies between.
    const late = await told(sent({ kind: "note", payload: { text: "x" } }, { happenedAt: LATER }));
    expect(late && mergeDelta(BATCH, opened, late as Written, opened.plan)).toBeNull();
    // A correction reaches back, and so does what is logged late.
    const wrong = sent({ kind: "weighed", payload: { pot: 0, componentId: wax, mg: 1_000 } }, { happenedAt: LATER });
    await told(wrong);
    expect(await told(sent({ kind: "withdrawn", payload: { why: "slip", mode: "undo" } }, { corrects: wrong.id, happenedAt: LATER }))).toBeUndefined();
    expect(await told(sent({ kind: "note", payload: { text: "y" } }, { happenedAt: STARTED }))).toBeUndefined();
    // More than the database tells at once: the first is written alone, what came meanwhile together.
    const before = heard.length;
    await Promise.all(Array.from({ length: 6 }, () => append(sent({ kind: "note", payload: { text: "x".repeat(2_000) } }, { happenedAt: LATER }))));
    await vi.waitFor(() => expect(heard.length).toBe(before + 2), 5_000);
    expect(heard.slice(before).map((change) => change.written?.events.length)).toEqual([1, undefined]);
    leave();
  });
});

describe("a start that nothing followed", () => {
  it("is undone as if it had never been; after the first entry it is not", async () => {
    const { workshopId, batch } = await pot();
    expect(await undoStart(test.as(workshopId), workshopId, batch)).toMatchObject({ ok: true });
    expect(await test.db.select().from(batches).where(sql`workshop_id = ${workshopId}`)).toEqual([]);
    const other = await pot();
    await other.append(other.sent({ kind: "note", payload: { text: "x" } }));
    expect(await undoStart(test.as(other.workshopId), other.workshopId, other.batch)).toMatchObject({
      ok: false,
      message: expect.stringContaining("Abandon it"),
    });
    expect(await test.db.select().from(batches).where(sql`workshop_id = ${other.workshopId}`)).toHaveLength(1);
  });
});

describe("the table of events", () => {
  it("refuses to change or drop an event, yet lets a whole workshop go", async () => {
    const { workshopId, append, sent } = await pot();
    await append(sent({ kind: "note", payload: { text: "x" } }));
    // Even to the owner of the tables.
    await expect(test.owner.query("update batch_event set kind = 'note' where workshop_id = $1", [workshopId])).rejects.toThrow("append-only");
    await expect(test.owner.query("delete from batch_event where workshop_id = $1", [workshopId])).rejects.toThrow("append-only");
    await test.owner.query("delete from workshop where id = $1", [workshopId]);
    expect(await test.db.select().from(batchEvents).where(sql`workshop_id = ${workshopId}`)).toEqual([]);
  });
});

describe("the program's own role", () => {
  it("owns nothing, and may not change, empty or take out of the log, nor switch off what guards it", async () => {
    const { workshopId, append, sent } = await pot();
    await append(sent({ kind: "note", payload: { text: "x" } }));
    const { rows } = await test.program.query(
      "select rolsuper, rolcreatedb, rolcreaterole, rolbypassrls, (select count(*)::int from pg_class where relowner = pg_roles.oid) as owns from pg_roles where rolname = current_user",
    );
    expect(rows).toEqual([{ rolsuper: false, rolcreatedb: false, rolcreaterole: false, rolbypassrls: false, owns: 0 }]);
    for (const attempt of [
      "update batch_event set kind = 'note'",
      "delete from batch_event",
      "truncate batch_event",
      "truncate workshop cascade",
      "delete from workshop",
      "delete from batch",
      "alter table batch_event disable trigger all",
      "drop trigger batch_event_append_only on batch_event",
      "create or replace function refuse_change() returns trigger language plpgsql as 'begin return old; end'",
      "set session_replication_role = replica",
      "create table mine (id int)",
      "drop table batch_event",
    ])
      await expect(test.program.query(attempt), attempt).rejects.toMatchObject({ code: "42501" });
    const { rows: left } = await test.pool.query("select count(*)::int as n from batch_event where workshop_id = $1", [workshopId]);
    expect(left).toEqual([{ n: 2 }]);
    // What it may do is undone by a function that looks first, and into the workshop it works for alone.
    const undone = sql`select undo_start(${workshopId}, (select id from batch where workshop_id = ${workshopId})) as undone`;
    expect((await test.as(workshopId).execute(undone)).rows).toEqual([{ undone: false }]);
  });
});

describe("lists", () => {
  it("gives every batch once over its pages, newest first, also where starts coincide", async () => {
    const workshopId = await test.workshop();
    const made = await Promise.all(Array.from({ length: 53 }, (_, index) => storedBatch(test, workshopId, index + 1)));
    const found: string[] = [];
    let after: string | undefined;
    do {
      const page = await listBatches(test.db, workshopId, ["pot"], { after });
      found.push(...page.batches.map((batch) => batch.id));
      expect(page.batches.length).toBeLessThanOrEqual(25);
      after = page.older ?? undefined;
    } while (after);
    expect(new Set(found)).toEqual(new Set(made.map((item) => item.batch)));
    expect(found).toHaveLength(53);
  });

  it("shows every batch that is due for a look, however old, longest waiting first", async () => {
    const workshopId = await test.workshop();
    for (let n = 1; n <= 31; n++) {
      const { batch, sent } = await storedBatch(test, workshopId, n);
      const happenedAt = new Date(Date.parse(STARTED) + n * 60_000).toISOString();
      await appendEvent(test.db, workshopId, batch, sent(POURED, { happenedAt }), LATER);
    }
    const due = await dueToLook(test.db, workshopId, NEXT_WEEK);
    expect(due.map((item) => item.number)).toEqual(Array.from({ length: 31 }, (_, n) => n + 1));
    expect(await dueToLook(test.db, workshopId, LATER)).toEqual([]);
  });

  it("are found by number or by letters of the formula's name, and by where they stand on the rack", async () => {
    const workshopId = await test.workshop();
    for (let n = 1; n <= 4; n++) {
      const { batch, sent } = await storedBatch(test, workshopId, n);
      if (n > 1) await appendEvent(test.db, workshopId, batch, sent(POURED, { happenedAt: new Date(Date.parse(STARTED) + n * 60_000).toISOString() }), LATER);
    }
    const found = async (asked: Parameters<typeof listBatches>[3], now = LATER, stages: Parameters<typeof listBatches>[2] = ["pot", "rack"]) =>
      (await listBatches(test.db, workshopId, stages, asked, now)).batches.map((batch) => batch.number).sort();
    expect(await found({ q: "3" })).toEqual([3]);
    expect(await found({ q: "#2" })).toEqual([2]);
    expect(await found({ q: "FORMULA" })).toEqual([1, 2, 3, 4]);
    expect(await found({ q: "%" })).toEqual([]);
    expect(await found({ q: "99999999999999" })).toEqual([]);
    expect(await found({ state: "setting" })).toEqual([2, 3, 4]);
    expect(await found({ state: "look" }, NEXT_WEEK)).toEqual([2, 3, 4]);
    expect(await found({ state: "setting" }, NEXT_WEEK)).toEqual([]);
    expect(await found({ state: "curing" }, NEXT_WEEK)).toEqual([2, 3, 4]);
  });

  it("answers a cursor that is none like the first page", async () => {
    const { workshopId } = await pot();
    for (const after of ["x", "2026-02-02_y", "_", "2026-02-02T09:00:00Z_not-an-id"])
      expect((await listBatches(test.db, workshopId, ["pot"], { after })).batches).toHaveLength(1);
  });
});
