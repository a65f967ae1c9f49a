import { type BatchPlan, type BatchState, parseSpan, titleOf } from "@hearth/core";
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { batches } from "../web/data/tables/batch";
import { orders } from "../web/data/tables/sales";
import { trials } from "../web/data/tables/trial";
import { listBatches, listRack } from "../web/server/batches/batches";
import { type Narrowing, narrowingOptions } from "../web/server/batches/narrowing";
import { listTrials, trialNumberAt } from "../web/server/burn/trials";
import { systemEntry } from "../web/server/events/append";
import { appendEvent } from "../web/server/events/batch-store";
import { askedDays, periodOf } from "../web/server/http/period";
import { listOrders } from "../web/server/sales/orders";
import { timeCursorAt } from "../web/server/shared/pages";
import { countNotes, listNotes, type NotesAsked } from "../web/server/workshops/all-notes";
import { type TestDatabase, testDatabase } from "../web/testing/database";
import { putDemo } from "./load";

const NOW = new Date("2026-03-14T14:20:00.000Z");
const SHED = { id: "0190c0de-aaaa-7000-8000-00000000000b", name: "Narrowed shed", timeZone: "UTC", locale: "en-US" };
let test: TestDatabase;
beforeAll(async () => {
  test = await testDatabase();
  await putDemo(test.db, SHED, NOW, { years: 1, batchesAYear: 150 });
}, 60_000);
afterAll(() => test.pool.end());

const CLOSED = ["closed", "abandoned"] as const;
/** All records of the workshop as they are stored. */
async function stored() {
  const rows = await test.db.select().from(batches).where(eq(batches.workshopId, SHED.id));
  return rows
    .filter((row) => (CLOSED as readonly string[]).includes(row.stage))
    .map((row) => ({ ...row, plan: row.plan as BatchPlan, state: row.state as BatchState }));
}
/** Every page from the newest to the oldest, and back again. */
async function walk<T>(read: (at: { after?: string; before?: string }) => Promise<{ rows: T[]; older: string | null; newer: string | null }>) {
  const [there, back]: [T[][], T[][]] = [[], []];
  let page = await read({});
  expect(page.newer).toBeNull();
  for (;;) {
    there.push(page.rows);
    if (page.older === null) break;
    page = await read({ after: page.older });
  }
  for (back.push(page.rows); page.newer !== null; back.push(page.rows)) page = await read({ before: page.newer });
  expect(page.older === null).toBe(there.length === 1);
  expect(back.reverse()).toEqual(there);
  return there.flat();
}
const pagesOf = (narrowing: Narrowing) =>
  walk(async (at) => {
    const { batches: list, ...cursors } = await listBatches(test.db, SHED.id, [...CLOSED], { ...narrowing, ...at });
    return { rows: list.map((batch) => batch.number), ...cursors };
  });
const span = (text: string) => askedDays(text, SHED, NOW.toISOString());

describe("a list of batches that is narrowed", () => {
  it("goes through all of them, on and back, each once", async () => {
    const numbers = await pagesOf({});
    const closed = (await stored()).map((row) => row.number);
    expect(numbers.length).toBeGreaterThan(100);
    expect([...numbers].sort((a, b) => a - b)).toEqual(closed.sort((a, b) => a - b));
  });

  it("holds exactly the batches that are so, by every filter and every thing that can be chosen", async () => {
    const all = await stored();
    const options = await narrowingOptions(test.db, SHED.id);
    const pours = (row: (typeof all)[number]) => Object.values(row.state.pours);
    const isPoured = (row: (typeof all)[number]) => row.stage === "closed" && pours(row).length > 0;
    const products = (
      await test.owner.query<{ id: string; formula: string; container: string }>(
        "select p.id, f.name as formula, p.container_id as container from product p join formula f on f.workshop_id = p.workshop_id and f.id = p.formula_id where p.workshop_id = $1",
        [SHED.id],
      )
    ).rows;
    const is: Record<"flaw" | "vessel" | "wax" | "by" | "product", (row: (typeof all)[number], value: string) => boolean> = {
      flaw: (row, value) =>
        isPoured(row) &&
        [...row.state.flaws.map(({ flaw }) => flaw.defect), ...row.state.seen.flatMap((seen) => seen.flaws.map((flaw) => flaw.defect))].includes(value),
      vessel: (row, value) => isPoured(row) && row.plan.products.some((product) => product.containerId === value),
      wax: (row, value) => row.plan.pots.some((pot) => pot.components.some((part) => part.id === value)),
      by: (row, value) => isPoured(row) && pours(row)[0]?.personId === value,
      product: (row, value) => {
        const product = products.find((item) => item.id === value);
        return isPoured(row) && titleOf(row.plan) === product?.formula && row.plan.products.some((made) => made.containerId === product?.container);
      },
    };
    let found = 0;
    for (const [key, list] of [
      ["flaw", options.flaws],
      ["vessel", options.vessels],
      ["wax", options.waxes],
      ["by", options.people],
      ["product", options.products],
    ] as const)
      for (const { value, label } of list) {
        const numbers = await pagesOf({ [key]: value });
        const expected = all.filter((row) => is[key](row, value)).map((row) => row.number);
        expect(numbers, `${key} ${label}`).toEqual(expected.sort((a, b) => b - a));
        found += numbers.length;
      }
    expect(found).toBeGreaterThan(500);
  });

  it("holds the days that are asked for, and the whole list goes on from there", async () => {
    const newest = Math.max(...(await stored()).map((row) => row.number));
    for (const text of ["last summer", "2025-11", "11/3/2025 to 12/9/2025", "last month"]) {
      const days = parseSpan(text, "2026-03-14", "en-US");
      const period = periodOf(span(text), SHED);
      const numbers = await pagesOf({ period });
      const inside = (row: { startedAt: string }) => days !== null && row.startedAt.slice(0, 10) >= days.from && row.startedAt.slice(0, 10) < days.until;
      const expected = (await stored()).filter(inside);
      expect(numbers.length, text).toBeGreaterThan(0);
      expect(numbers).toEqual(expected.map((row) => row.number).sort((a, b) => b - a));
      const from = await listBatches(test.db, SHED.id, [...CLOSED], { after: timeCursorAt(period.to ?? "") });
      expect(from.batches[0]?.number).toBe(numbers[0]);
      expect(from.newer === null).toBe(numbers[0] === newest);
    }
    // What cannot be read narrows nothing, and is said at the field.
    expect(span("lately, I think")).toEqual({ text: "lately, I think", days: null });
    expect(periodOf(span("lately, I think"), SHED)).toEqual({ from: null, to: null });
  });

  it("narrows the rack alike", async () => {
    const { batches: all } = await listRack(test.db, SHED.id, {}, NOW.toISOString());
    const period = periodOf(span("this month"), SHED);
    const { batches: some } = await listRack(test.db, SHED.id, { period }, NOW.toISOString());
    expect(all.length).toBeGreaterThan(some.length);
    expect(some.map((batch) => batch.number)).toEqual(all.filter((batch) => batch.startedAt >= (period.from ?? "")).map((batch) => batch.number));
  });
});

describe("trials and orders that are narrowed", () => {
  it("are those of the time, the thing and the wax; and go on and back", async () => {
    const closed = (await test.db.select().from(trials).where(eq(trials.workshopId, SHED.id))).filter((row) => row.stage === "closed");
    const listed = (asked: object) => listTrials(test.db, SHED.id, asked, NOW.toISOString());
    const period = periodOf(span("last summer"), SHED);
    const inside = closed.filter(
      (row) => Date.parse(row.startedAt) >= Date.parse(period.from ?? "") && Date.parse(row.startedAt) < Date.parse(period.to ?? ""),
    );
    expect((await listed({ period })).closed.map((trial) => trial.number)).toEqual(inside.map((row) => row.number).sort((a, b) => b - a));
    expect(inside.length).toBeGreaterThan(0);
    expect((await listed({ after: await trialNumberAt(test.db, SHED.id, period.to ?? "") })).closed[0]?.number).toBe(
      Math.max(...inside.map((row) => row.number)),
    );
    const options = await narrowingOptions(test.db, SHED.id);
    for (const { value } of options.vessels) {
      const numbers = (await listed({ vessel: value })).closed.map((trial) => trial.number);
      const expected = closed.filter((row) => row.plan.testCandles.some((candle) => candle.containerId === value));
      expect(numbers).toEqual(expected.map((row) => row.number).sort((a, b) => b - a));
    }
    for (const { value, label } of options.waxes) {
      const numbers = (await listed({ wax: value })).closed.map((trial) => trial.number);
      expect(numbers).toEqual(
        closed
          .filter((row) => row.plan.testCandles.some((candle) => candle.wax === label))
          .map((row) => row.number)
          .sort((a, b) => b - a),
      );
    }
  });

  it("of orders: for the days that they are wanted on, and with a product in them", async () => {
    const rows = (await test.db.select().from(orders).where(eq(orders.workshopId, SHED.id))).filter((row) => row.stage === "closed");
    const numbers = await walk(async (at) => {
      const page = (value: string | undefined) => (value === undefined ? undefined : Number(value));
      const { closed, older, newer } = await listOrders(test.db, SHED, { after: page(at.after), before: page(at.before) });
      return { rows: closed.map((order) => order.number), older, newer };
    });
    expect(numbers).toEqual(rows.map((row) => row.number).sort((a, b) => b - a));
    const days = span("January 2026")?.days;
    const january = rows.filter((row) => row.wantedOn?.startsWith("2026-01")).map((row) => row.number);
    expect(january.length).toBeGreaterThan(0);
    expect((await listOrders(test.db, SHED, { days: days ?? null })).closed.map((order) => order.number)).toEqual(january.sort((a, b) => b - a));
    const product = rows[0]?.state.lines[0]?.sellable ?? "";
    const having = rows.filter((row) => row.state.lines.some((line) => line.sellable === product)).map((row) => row.number);
    const found = await listOrders(test.db, SHED, { product });
    expect(found.closed.map((order) => order.number)).toEqual(having.sort((a, b) => b - a).slice(0, 25));
  });
});

describe("the notes of a workshop", () => {
  it("are all of them, on and back, of batches and of things; by words, kind, time and writer", async () => {
    const plain = async (where: string) =>
      (
        await test.owner.query<{ id: string }>(
          `select id from (select id, kind, text, at, person_id from note where workshop_id = $1 and not deleted union all
           select id, 'batch', payload ->> 'text', happened_at, person_id from batch_event where workshop_id = $1 and kind = 'note') n
           where ${where} order by at desc, id desc`,
          [SHED.id],
        )
      ).rows.map((row) => row.id);
    const listed = (asked: NotesAsked) =>
      walk(async (at) => {
        const { notes, ...cursors } = await listNotes(test.db, SHED.id, { ...asked, ...at });
        return { rows: notes.map((note) => note.id), ...cursors };
      });
    expect(await listed({})).toEqual(await plain("true"));
    expect(await listed({ kind: "wax" })).toEqual(await plain("kind = 'wax'"));
    expect(await listed({ q: "chip at the rim" })).toEqual(await plain("text like '%chip at the rim%'"));
    const { people } = await narrowingOptions(test.db, SHED.id);
    for (const { value } of people) expect(await listed({ by: value })).toEqual(await plain(`person_id = '${value}'`));
    const period = periodOf(span("last summer"), SHED);
    const summer = await plain(`at >= '${period.from}' and at < '${period.to}'`);
    expect(await listed({ period })).toEqual(summer);
    expect((await listNotes(test.db, SHED.id, { after: timeCursorAt(period.to ?? "") })).notes[0]?.id).toBe(summer[0]);
    const [first] = (await listNotes(test.db, SHED.id, { kind: "batch" })).notes;
    expect(first?.of).toMatch(/^batch \d+$/);
    // A deleted note is found no more, and stands again once its deletion is undone.
    const { rows } = await test.owner.query<{ id: string; batch_id: string }>(
      "select id, batch_id from batch_event where workshop_id = $1 and kind = 'note' order by happened_at desc limit 1",
      [SHED.id],
    );
    const [note, batch] = [rows[0]?.id ?? "", rows[0]?.batch_id ?? ""];
    const written = async () => (await listNotes(test.db, SHED.id, { kind: "batch" })).notes.some((item) => item.id === note);
    const withdraw = async (corrects: string) => {
      const sent = systemEntry({ now: NOW.toISOString(), personId: null }, "withdrawn", { why: "", mode: "delete" }, { corrects });
      const answer = await appendEvent(test.db, SHED.id, batch, sent as never, NOW.toISOString());
      expect(answer, JSON.stringify(answer)).toMatchObject({ ok: true });
      return sent.id;
    };
    const before = await countNotes(test.db, SHED.id, { kind: "batch" });
    const deletion = await withdraw(note);
    expect([await written(), await countNotes(test.db, SHED.id, { kind: "batch" })]).toEqual([false, before - 1]);
    await withdraw(deletion);
    expect([await written(), await countNotes(test.db, SHED.id, { kind: "batch" })]).toEqual([true, before]);
  });
});
