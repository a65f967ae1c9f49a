import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { answerHazard, HAZARD_CLASSES, type HazardRequest, PRESET_SHEETS, randomFrom } from "@hearth/core";
import { sql } from "drizzle-orm";
import { demoId } from "../demo/workshop";
import { openDatabase } from "../web/data/client";
import { labelPdf } from "../web/server/paper/labels";
import { salesBetween } from "../web/server/sales/sales";
import { median } from "./bench-log";
import { passingHome } from "./processes";
import { serve } from "./serve";
import { FROZEN } from "./shots";

async function timed(many: number, run: () => unknown): Promise<number> {
  const took: number[] = [];
  for (let n = 0; n < many; n++) {
    const began = performance.now();
    await run();
    // The first ones warm it.
    if (many === 1 || n >= many / 4) took.push(performance.now() - began);
  }
  return median(took);
}

/** A sheet of sixty labels beside one of them. */
async function benchLabels(): Promise<void> {
  const [ready] = PRESET_SHEETS;
  if (!ready) return;
  const blocks = [
    { is: "safety" as const, signs: ["unattended", "children", "fuel", "distance"] as const },
    ...["Never leave a burning candle unattended. Keep burning candles away from children and pets.", "Trim the wick to 5 mm before each lighting."].map(
      (text) => ({
        is: "text" as const,
        text,
      }),
    ),
  ];
  // Sixty on one sheet: small ones.
  const sheet = { ...ready.sheet, rows: 12, columns: 5, width: 38_000, height: 22_000, gapAcross: 2_000, left: 6_000, top: 10_000 };
  const print = (count: number) => timed(16, () => labelPdf(blocks, sheet, { title: "labels", count, from: 0, test: false }));
  const [value, sixty] = [await print(1), await print(60)];
  console.log(`one label as PDF: ${value.toFixed(1)} ms; a sheet of 60: ${sixty.toFixed(1)} ms`);
  console.log(`ratio ${(sixty / value).toFixed(2)} (at most 5)`);
}

/** The hazard of a blend of six oils with forty ingredients each, beside the bare sums of its shares. */
async function benchHazard(): Promise<void> {
  const random = randomFrom(7);
  const request: HazardRequest = {
    parts: Array.from({ length: 6 }, (_, oil) => ({
      percent: 1.2,
      ingredients: Array.from({ length: 40 }, (__, n) => ({
        name: `oil ${oil} ingredient ${n}`,
        percent: random() * 4,
        classes: Array.from({ length: 3 }, () => HAZARD_CLASSES[Math.floor(random() * HAZARD_CLASSES.length)] as string),
        m: 1,
      })),
    })),
  };
  const classes = [...HAZARD_CLASSES];
  /** Returns what no reckoning can do without: each share of each class added up. */
  const bare = () => {
    const sums = new Map<string, number>(classes.map((name) => [name, 0]));
    for (const part of request.parts)
      for (const ingredient of part.ingredients)
        for (const name of ingredient.classes) sums.set(name, (sums.get(name) ?? 0) + (part.percent * ingredient.percent) / 100);
    return sums;
  };
  const EACH = 200;
  const often = (run: () => unknown) =>
    timed(24, () => {
      for (let n = 0; n < EACH; n++) run();
    });
  const [sums, label] = [await often(bare), await often(() => answerHazard(request))];
  console.log(`bare sums of 240 ingredients: ${((sums / EACH) * 1e3).toFixed(1)} µs; the label: ${((label / EACH) * 1e3).toFixed(1)} µs`);
  console.log(`ratio ${(label / sums).toFixed(2)} (at most 20)`);
}

/** Ten years of sales by thing, beside the plain aggregate over the same rows. */
async function benchSales(): Promise<void> {
  const home = passingHome("sell");
  const clockFile = join(home, "clock");
  writeFileSync(clockFile, FROZEN);
  const served = await serve({ home, port: 4_857, demo: true, ownDatabase: true, clockFile });
  const { db, pool } = openDatabase(served.databaseUrl);
  try {
    const workshopId = demoId(0, 1);
    const from = new Date(Date.parse(FROZEN) - 10 * 365 * 86_400_000).toISOString();
    const [YEARS, ORDERS, LINES] = [10, 600, 6];
    await db.execute(sql`
      insert into pack_run (workshop_id, id, sellable_id, name, packs, gone, at, poured_at, cost_each)
      select ${workshopId}, gen_random_uuid(), ('0190c0de-0026-7000-8000-' || lpad(to_hex(1 + n % 8), 12, '0'))::uuid, 'thing ' || n % 8, 40, 40, ${from}::timestamptz + n * interval '1 day', ${from}::timestamptz, 300 + n % 90
      from generate_series(1, ${YEARS * 365}) n`);
    const plan = JSON.stringify({ format: 1, what: "market", name: "a market", whom: "", wantedOn: null, lines: [] });
    await db.execute(sql`
      insert into sale_order (workshop_id, id, number, what, name, wanted_on, stage, plan, facts, started_at, last_at)
      select ${workshopId}, gen_random_uuid(), 1000 + n, case when n % 3 = 0 then 'market' else 'order' end, 'order ' || n, null, 'closed', ${plan}::jsonb, '{"format":1}'::jsonb, ${from}::timestamptz, ${from}::timestamptz
      from generate_series(1, ${YEARS * ORDERS}) n`);
    await db.execute(sql`
      insert into sale_goods (workshop_id, order_id, pack_run_id, sellable_id, name, what, at, out, sold, given, second, back, money, cost)
      select o.workshop_id, o.id, p.id, p.sellable_id, p.name, o.what, ${from}::timestamptz + (o.number - 1000) * interval '14 hours', 6, 4, 0, 1, 1, 4200, 1500
      from sale_order o cross join generate_series(1, ${LINES}) k
        join (select *, row_number() over (order by at) as n from pack_run where name like 'thing %') p on p.n = 1 + (o.number * 7 + k * 601) % ${YEARS * 365}
      where o.workshop_id = ${workshopId} and o.number > 1000`);
    await db.execute(sql`analyze`);
    const to = FROZEN;
    const plain = () =>
      db.execute(
        sql`select sellable_id, sum(sold), sum(money) from sale_goods where workshop_id = ${workshopId} and at >= ${from} and at < ${to} group by sellable_id`,
      );
    const rows = Number((await db.execute<{ n: string }>(sql`select count(*) n from sale_goods where workshop_id = ${workshopId}`)).rows[0]?.n);
    // One after the other in turn, so that what else the machine does meanwhile falls on both.
    const took: [number, number][] = [];
    for (let n = 0; n < 24; n++) {
      const pair: [number, number] = [await timed(1, plain), await timed(1, () => salesBetween(db, workshopId, from, to))];
      if (n >= 6) took.push(pair);
    }
    const [aggregate, sales] = [median(took.map(([value]) => value)), median(took.map(([, other]) => other))];
    console.log(`${rows} rows of ten years by plain SQL: ${aggregate.toFixed(1)} ms; with cost, margin and what sold out: ${sales.toFixed(1)} ms`);
    console.log(`ratio ${(sales / aggregate).toFixed(2)} (at most 3)`);
  } finally {
    await pool.end();
    await served.stop();
  }
}

/** What selling costs: labels, hazard, and sales over ten years. */
export async function benchSell(): Promise<void> {
  await benchLabels();
  await benchHazard();
  await benchSales();
}
