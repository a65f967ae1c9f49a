import { type ORDER, stillOut } from "@hearth/core";
import { eq, sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { formulas } from "../../web/data/tables/formula";
import { people } from "../../web/data/tables/workshop";
import { recallOf, recallTotals } from "../../web/features/sell/model";
import { lotTrace } from "../../web/server/inventory/trace";
import { whereNow } from "../../web/server/sales/orders";
import { type TestDatabase, testDatabase } from "../../web/testing/database";
import { recallBySql } from "../../web/testing/recall-by-sql";
import { putDemo } from "../load";
import { demoId } from "../workshop";
import { yearsScenario } from "./scenario";

const NOW = new Date("2026-03-14T14:20:00.000Z");
const SHED = { id: "0190c0de-aaaa-7000-8000-000000000009", name: "Two years" };
let test: TestDatabase;
const years: number[] = [];
beforeAll(async () => {
  // Everything in it is counted, so it has a database of its own.
  test = await testDatabase("hearth_test_years");
  await putDemo(test.db, SHED, NOW, { years: 2, batchesAYear: 120, onYear: (year) => years.push(year) });
}, 120_000);
afterAll(() => test.pool.end());

const count = async (what: string): Promise<number> => (await test.owner.query<{ n: number }>(`select count(*)::int n from ${what}`)).rows[0]?.n ?? 0;

describe("years behind the demo", () => {
  it("are told as they are made, and hold what a workshop of that age has", async () => {
    expect(years).toEqual([1, 2]);
    const scenario = yearsScenario(2);
    expect(await test.db.$count(formulas, eq(formulas.workshopId, SHED.id))).toBe(scenario.formulas.length);
    expect(scenario.formulas.length).toBeGreaterThanOrEqual(40);
    expect(scenario.formulas.some((formula) => formula.archived)).toBe(true);
    expect(scenario.products.length).toBeGreaterThanOrEqual(30);
    // The demo's own six orders and two trials come after those of the years.
    expect(await count("sale_order where stage = 'closed' and what = 'market'")).toBeGreaterThan(40);
    expect(await count("sale_order where stage = 'closed' and what = 'order'")).toBeGreaterThan(50);
    expect(await count("trial where stage = 'closed'")).toBe(2 * 10 + 1);
    expect(await count("lot")).toBeGreaterThan(100);
    expect(await count("supplier_sheet")).toBeGreaterThan(40);
    expect(await count("note")).toBeGreaterThan(60);
    expect((await test.db.select().from(people)).filter((person) => person.archived)).toHaveLength(3);
  });

  it("were made by people who were there, of formulas and lots that there were", async () => {
    // Whoever left is in no entry of the last month; no version was poured before it was written.
    expect(
      await count(
        `batch_event e join person p on p.workshop_id = e.workshop_id and p.id = e.person_id where p.archived and e.happened_at > '${NOW.toISOString()}'::timestamptz - interval '30 days'`,
      ),
    ).toBe(0);
    expect(
      await count(
        "batch b join formula_version v on v.workshop_id = b.workshop_id and v.id = b.formula_version_id join formula f on f.workshop_id = v.workshop_id and f.id = v.formula_id where v.created_at > b.started_at and f.id not in (select id from formula order by id limit 6)",
      ),
    ).toBe(0);
    // At every draw as much had come as was drawn until then.
    expect(
      await count(
        `(select material_id, at, sum(amount) over (partition by material_id order by at, event_id) drawn from stock_use
           where batch_id::text like '${demoId(0x18, 0).slice(0, 13)}%') u
         where drawn > (select coalesce(sum(amount), 0) from lot where lot.material_id = u.material_id and lot.received_on <= u.at::date)`,
      ),
    ).toBe(0);
  });

  it("sold what they packed: every order adds up, and what of a packing is gone follows from the orders", async () => {
    const { rows } = await test.owner.query<{ state: ReturnType<typeof ORDER.of>["state"]; open: boolean }>(
      "select state, stage = 'open' as open from sale_order",
    );
    for (const { state, open } of rows) {
      expect(state.unplaced).toEqual({});
      if (!open) for (const packs of state.finishedGoods) expect(stillOut(packs)).toBe(0);
    }
    expect(
      await count(
        'pack_run r where gone <> (select coalesce(sum("out" - back), 0) from sale_goods g where g.workshop_id = r.workshop_id and g.pack_run_id = r.id) or gone > packs',
      ),
    ).toBe(0);
    // What is in the packs left its batches, and no more.
    expect(
      await count(
        `packed_piece p where pieces <> (select sum((e.payload ->> 'jars')::int) from batch_event e
         where e.workshop_id = p.workshop_id and e.batch_id = p.batch_id and e.kind = 'packed' and (e.payload ->> 'packRun')::uuid = p.pack_run_id and e.payload ->> 'product' = p.product)`,
      ),
    ).toBe(0);
    const known = await test.db.execute<{ share: number }>(sql`select avg((cost_each is not null)::int)::float as share from pack_run`);
    expect(known.rows[0]?.share).toBe(1);
  });

  it("are recalled to the jar as plain SQL counts them, whichever lot it is", async () => {
    const { rows } = await test.owner.query<{ id: string }>("select id from lot where not withdrawn order by md5(id::text) limit 30");
    const { rows: largest } = await test.owner.query<{ id: string }>("select id from lot where kind in ('wax', 'pack') order by amount desc, id limit 10");
    let reached = 0;
    for (const { id } of [...rows, ...largest]) {
      const batches = (await lotTrace(test.db, SHED.id, id, "UTC"))?.batches ?? [];
      const list = recallOf(
        batches,
        await whereNow(
          test.db,
          SHED.id,
          batches.map((batch) => batch.id),
        ),
      );
      const { batches: many, jars, orders } = recallTotals(batches, list);
      const drawn = batches.reduce((sum, batch) => sum + (batch.amount ?? 0), 0);
      expect({ batches: many, jars, orders, drawn }).toEqual(await recallBySql(test.owner, SHED.id, id));
      reached += orders;
    }
    expect(reached).toBeGreaterThan(0);
  });
});
