import Papa from "papaparse";
import { v7 } from "uuid";
import { beforeEach, describe, expect, it } from "vitest";
import { firstOfRecall, recallOf, recallTotals } from "@/features/sell/model";
import { todaysBatches } from "@/server/batches/batches";
import { appendEvent } from "@/server/events/batch-store";
import { whereNow } from "@/server/sales/orders";
import { STARTED } from "@/testing/stored-batch";
import { here, inStoredWorkshop, stored, test, value, workshopId } from "@/testing/stored-workshop";
import { saveLot } from "./commands";
import { lotTrace, searchRecord } from "./trace";

inStoredWorkshop();

/** More than any limit that the code has had: 400 of a recall, 300 of today. */
const MANY = 431;
let lot = "";
const LATER = "2026-02-02T12:00:00.000Z";

/** Copies the poured batch of the workshop, with its entries and what it drew, until there are as many. */
async function copies(many: number): Promise<void> {
  const id = (column: string) => `md5(${column}::text || n::text)::uuid`;
  const columns = async (table: string) => {
    const { rows } = await test.owner.query<{ name: string }>(
      "select column_name as name from information_schema.columns where table_name = $1 and table_schema = 'public' and is_identity = 'NO' order by ordinal_position",
      [table],
    );
    return rows.map((row) => row.name);
  };
  const copied: Record<string, Record<string, string>> = {
    batch: { id: id("id"), number: "number + n" },
    batch_event: { id: id("id"), batch_id: id("batch_id") },
    stock_use: { batch_id: id("batch_id"), event_id: id("event_id") },
  };
  for (const [table, changed] of Object.entries(copied)) {
    const names = await columns(table);
    await test.owner.query(
      `insert into ${table} (${names.join()}) select ${names.map((name) => changed[name] ?? name).join()}
       from ${table} cross join generate_series(1, $2::int) n where workshop_id = $1`,
      [workshopId, many - 1],
    );
  }
}

beforeEach(async () => {
  lot = v7();
  value(
    await saveLot(here(), {
      id: lot,
      kind: "wax",
      materialId: stored.wax,
      expectedVersion: null,
      code: "W-1",
      amount: 500_000_000,
      cost: 900,
      receivedOn: "2026-01-01",
    }),
  );
  const at = (minute: number) => ({ happenedAt: new Date(Date.parse(STARTED) + minute * 60_000).toISOString() });
  for (const event of [
    stored.sent({ kind: "weighed", payload: { pot: 0, componentId: stored.wax, mg: 127_000 } }, at(1)),
    stored.sent({ kind: "poured", payload: { step: "pour", filled: [], leftMg: null, roomCelsius: null, warmed: null } }, at(70)),
    stored.sent({ kind: "statusChanged", payload: { product: stored.vessel, jars: 3, from: "rack", to: "given", whom: "the door" } }, at(80)),
    stored.sent({ kind: "note", payload: { text: "smells of rain" } }, at(90)),
  ])
    expect(await appendEvent(test.db, workshopId, stored.batch, event, LATER)).toMatchObject({ ok: true });
  await copies(MANY);
});

describe("a recall of more batches than were ever shown at once", () => {
  it("has every batch and jar of the lot, as plain SQL counts them, on the page and in the file", async () => {
    const traced = await lotTrace(test.db, workshopId, lot, "UTC");
    const { rows } = await test.owner.query<{ batches: number; mg: string }>(
      "select count(distinct batch_id)::int as batches, sum(amount) as mg from stock_use where workshop_id = $1 and material_id = $2",
      [workshopId, stored.wax],
    );
    expect(rows[0]?.batches).toBe(MANY);
    expect(traced?.batches).toHaveLength(MANY);
    expect(traced?.batches.reduce((sum, batch) => sum + (batch.amount ?? 0), 0)).toBe(Number(rows[0]?.mg));
    const batches = traced?.batches ?? [];
    const list = recallOf(
      batches,
      await whereNow(
        test.db,
        workshopId,
        batches.map((batch) => batch.id),
      ),
    );
    expect(recallTotals(batches, list)).toEqual({
      batches: MANY,
      jars: MANY * 10,
      statuses: [
        { status: "rack", jars: MANY * 7 },
        { status: "given", jars: MANY * 3 },
      ],
      orders: 0,
    });
    // What is not sent is counted.
    const first = firstOfRecall(list, batches, 100);
    expect([first.batches.length, first.left.batches, first.list.loose.length, first.left.here]).toEqual([100, MANY - 100, 100, MANY - 100]);
    const { GET } = await import("@/app/api/workshops/[workshop]/recall/route");
    const answer = await GET(new Request(`http://127.0.0.1:4380/api/workshops/${workshopId}/recall?lot=${lot}`), {
      params: Promise.resolve({ workshop: workshopId }),
    } as never);
    const file = Papa.parse<Record<string, string>>((await answer.text()).trim(), { header: true }).data;
    expect(new Set(file.map((row) => row.batch)).size).toBe(MANY);
    expect(file.filter((row) => row.where === "on the rack").reduce((sum, row) => sum + Number(row.count), 0)).toBe(MANY * 7);
  });

  it("is found by a search that says how many there are, and shows all when asked", async () => {
    const found = await searchRecord(test.db, { id: workshopId, timeZone: "UTC" }, "smells", LATER);
    expect([found.notes.length, found.totals.notes]).toEqual([25, MANY]);
    expect((await searchRecord(test.db, { id: workshopId, timeZone: "UTC" }, "smells", LATER, MANY)).notes).toHaveLength(MANY);
    const day = await searchRecord(test.db, { id: workshopId, timeZone: "UTC" }, STARTED.slice(0, 10), LATER);
    expect([day.batches.length, day.totals.batches]).toEqual([25, MANY]);
  });

  it("leaves today with all that is due counted, and a cured batch asking once", async () => {
    const dayAfter = new Date(Date.parse(STARTED) + 2 * 86_400_000).toISOString();
    const due = await todaysBatches(test.db, workshopId, dayAfter);
    expect(due.batches.length + due.more).toBe(MANY);
    expect(due.standing).toBe(0);
    // Inspected, and cured for longer than it asks: it stands on the rack.
    await test.owner.query("update batch set looked_at = set_at where workshop_id = $1 and number % 2 = 0", [workshopId]);
    const monthsLater = new Date(Date.parse(STARTED) + 90 * 86_400_000).toISOString();
    const later = await todaysBatches(test.db, workshopId, monthsLater);
    const even = Math.floor(MANY / 2);
    expect([later.standing, later.batches.length + later.more]).toEqual([expect.closeTo(even, -1), expect.closeTo(MANY - even, -1)]);
    expect(later.standing + later.batches.length + later.more).toBe(MANY);
    expect(later.batches.every((batch) => batch.lookedAt === null || batch.times !== null)).toBe(true);
  });
});
