import { randomUUID } from "node:crypto";
import { rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { type SQL, sql } from "drizzle-orm";
import { putDemo } from "../demo/load";
import { VIEWS } from "../demo/views";
import { type Database, openDatabase } from "../web/data/client";
import { recallOf, recallTotals } from "../web/features/sell/model";
import { provenGrid } from "../web/server/burn/proven";
import { curveOf, FACTORS, findingsOf } from "../web/server/findings/findings";
import { waxScoreboard } from "../web/server/findings/scoreboard";
import { lotTrace } from "../web/server/inventory/trace";
import { whereNow } from "../web/server/sales/orders";
import { recallBySql } from "../web/testing/recall-by-sql";
import { median } from "./bench-log";
import { passingHome } from "./processes";
import { serve } from "./serve";
import { FROZEN } from "./shots";

const YEARS = Number(process.env.HEARTH_YEARS ?? 10);
/** A page of ten years takes at most this many times as long as the demo's; findings at most this many times as long as plain SQL. */
const PAGE_RATIO = 2.5;
const SQL_RATIO = 3;
/** Pages of findings over everything: what they cost is held against plain SQL. */
const BOUND_TO_SQL = new Set(["findings", "scoreboard"]);
/** Each page is opened so often, of the small workshop and the large in turn; the first two warm connections and caches. */
const OPENINGS = 11;
const WARMING = 2;

const ms = (value: number) => `${value.toFixed(1)} ms`;
const verdict = (ratio: number, most: number) => `ratio ${ratio.toFixed(2)} (at most ${most})${ratio > most ? "  ABOVE" : ""}`;

async function timed(times: number, run: () => Promise<unknown>): Promise<number> {
  const took: number[] = [];
  for (let n = 0; n < times + WARMING; n++) {
    const began = performance.now();
    await run();
    if (n >= WARMING) took.push(performance.now() - began);
  }
  return median(took);
}

async function open(url: string, workshop: string, path: string): Promise<{ took: number; bytes: number }> {
  const began = performance.now();
  const answer = await fetch(path.startsWith("/workshops") ? `${url}${path}` : `${url}/w/${workshop}${path === "/" ? "" : path}`);
  const text = await answer.text();
  if (!answer.ok) throw new Error(`${path} answered ${answer.status}.`);
  return { took: performance.now() - began, bytes: text.length };
}

/** Opens every view in both workshops in turn, and returns how much longer each takes in the large one, the worst first. */
export async function walkPages(url: string, small: string, large: string, more: readonly (readonly [name: string, small: string, large: string])[] = []) {
  const pages = [...Object.entries(VIEWS).map(([name, path]) => [name, path, path] as const), ...more];
  const found: { name: string; small: number; large: number; ratio: number; bytes: number; bytesRatio: number }[] = [];
  for (const [name, smallPath, largePath] of pages) {
    const took: [number[], number[]] = [[], []];
    const bytes: [number, number] = [0, 0];
    for (let n = 0; n < OPENINGS; n++)
      for (const [index, workshop, path] of [
        [0, small, smallPath],
        [1, large, largePath],
      ] as const) {
        const opened = await open(url, workshop, path);
        bytes[index] = opened.bytes;
        if (n >= WARMING) took[index].push(opened.took);
      }
    const [a, b] = [median(took[0]), median(took[1])];
    found.push({ name, small: a, large: b, ratio: b / a, bytes: bytes[1], bytesRatio: bytes[1] / bytes[0] });
  }
  return found.sort((a, b) => b.ratio - a.ratio);
}

/** The lot of wax and the lot of labels that most batches drew on, by plain SQL. */
async function widestLots(db: Database, workshopId: string): Promise<{ id: string; kind: string }[]> {
  const { rows } = await db.execute<{ id: string; kind: string }>(sql`
    select distinct on (kind) id::text, kind from lot where workshop_id = ${workshopId} and kind in ('wax', 'pack') and not withdrawn
    and received_on < (select max(received_on) - 200 from lot where workshop_id = ${workshopId})
    order by kind, amount desc, received_on desc`);
  return rows;
}

const count = async (db: Database, what: SQL): Promise<number> => (await db.execute<{ n: number }>(sql`select (${what})::int n`)).rows[0]?.n ?? 0;

/** What ten years cost: every page beside the demo's, findings beside the plain aggregate, and whether a recall is complete. */
export async function benchYears(): Promise<void> {
  const home = passingHome("years");
  const clockFile = join(home, "clock");
  writeFileSync(clockFile, FROZEN);
  const served = await serve({ home, port: 4_850, demo: true, ownDatabase: true, clockFile });
  const { db, pool } = openDatabase(served.databaseUrl);
  try {
    const [small, large] = [randomUUID(), randomUUID()];
    await putDemo(db, { id: small, name: "A shed" }, new Date(FROZEN), true);
    const began = Date.now();
    await putDemo(db, { id: large, name: `${YEARS} years` }, new Date(FROZEN), { years: YEARS, onYear: (year) => console.log(`Year ${year} of ${YEARS}`) });
    console.log(`${YEARS} years generated in ${Math.round((Date.now() - began) / 1_000)} s`);
    await db.execute(sql`analyze`);
    const of = (table: string, workshop = large) => count(db, sql`select count(*) from ${sql.identifier(table)} where workshop_id = ${workshop}`);
    console.log(`${await of("batch")} batches, ${await of("batch_event")} entries, ${await of("sale_order")} orders, ${await of("lot")} lots`);

    const [lots, smallLots] = [await widestLots(db, large), await widestLots(db, small)];
    const lotPages = lots.flatMap(({ id, kind }) => {
      const other = smallLots.find((lot) => lot.kind === kind) ?? smallLots[0];
      return other
        ? (["/sell/recall", "/findings/trace"] as const).map((path) => [`${path} of a ${kind} lot`, `${path}?lot=${other.id}`, `${path}?lot=${id}`] as const)
        : [];
    });
    console.log("\nEvery page, in the demo and with the years:");
    for (const page of await walkPages(served.url, small, large, lotPages))
      console.log(
        `${page.name.padEnd(34)} ${ms(page.small).padStart(9)} ${ms(page.large).padStart(9)}  ${BOUND_TO_SQL.has(page.name) ? `ratio ${page.ratio.toFixed(2)} (bound to plain SQL, below)` : verdict(page.ratio, PAGE_RATIO)}; ${Math.round(page.bytes / 1_000)} kB, ${page.bytesRatio.toFixed(1)} times the demo's`,
      );

    console.log("\nRecalls, by the program and by plain SQL:");
    for (const { id, kind } of lots) {
      const batches = (await lotTrace(db, large, id, "UTC"))?.batches ?? [];
      const ids = batches.map((batch) => batch.id);
      const totals = recallTotals(batches, recallOf(batches, await whereNow(db, large, ids)));
      const plain = await recallBySql(pool, large, id);
      const isSame = totals.batches === plain.batches && totals.jars === plain.jars && totals.orders === plain.orders;
      console.log(
        `a ${kind} lot: ${totals.batches} batches, ${totals.jars} jars, ${totals.orders} orders; ${plain.batches}, ${plain.jars}, ${plain.orders}${isSame ? "" : "  DIFFERENT"}`,
      );
    }

    // The same numbers by hand: one plain aggregate for each thing that is compared.
    const aggregate = (value: SQL | string) => sql`
      select ${value}, count(*), sum(o.jars), sum(least(o.jars, coalesce(f.jars, 0)))
      from outcome o left join outcome_flaw f on f.workshop_id = o.workshop_id and f.batch_id = o.batch_id and f.product = o.product and f.defect = 'rough_top'
      where o.workshop_id = ${large} and o.looked group by 1`;
    const byHand = sql.join(
      FACTORS.map((factor) => aggregate(factor.of as SQL)),
      sql` union all `,
    );
    const bare = await timed(15, () => db.execute(byHand));
    const single = await timed(15, () => db.execute(aggregate(sql`o.pour_c`)));
    const found = await timed(15, () => findingsOf(db, large, "rough_top"));
    const curve = await timed(15, () => curveOf(db, large, "rough_top", "pour_c"));
    console.log(
      `\nfindings of one flaw by ${FACTORS.length} factors: ${ms(found)}; plain aggregates of the same rows: ${ms(bare)}; ${verdict(found / bare, SQL_RATIO)}`,
    );
    const perWax = await timed(15, () =>
      db.execute(sql`
        select o.wax, count(distinct o.batch_id), sum(o.jars), avg(o.pour_c), avg(o.add_c), sum(least(o.jars, coalesce(f.jars, 0)))
        from outcome o left join outcome_flaw f on f.workshop_id = o.workshop_id and f.batch_id = o.batch_id and f.product = o.product
        where o.workshop_id = ${large} group by 1`),
    );
    // The scores by wax by hand: cold ones of batches by age, hot ones of burns by room, as the scoreboard shows them.
    const perScore = await timed(15, () =>
      db.execute(sql`
        select wax, of, count(*), avg(score) from (
          select o.wax, case when (s ->> 'at')::timestamptz - o.poured_at < interval '7 days' then 'young' else 'old' end of, (s ->> 'score')::float8 score
          from outcome o cross join lateral jsonb_array_elements(o.smells) s where o.workshop_id = ${large}
          union all
          select o.wax, r ->> 'room', (r ->> 'score')::float8 from trial t cross join lateral jsonb_array_elements(t.state -> 'ratings') r
          join burn_outcome o on o.workshop_id = t.workshop_id and o.trial_id = t.id and o.test_candle = r ->> 'testCandle' where t.workshop_id = ${large}
        ) scores group by 1, 2`),
    );
    const board = await timed(15, () => waxScoreboard(db, { id: large, rooms: "" }));
    const burned = await timed(15, () =>
      db.execute(sql`
        select p.id, p.name, v.spec, o.* from product p join formula_version v on v.workshop_id = p.workshop_id and v.formula_id = p.formula_id
        left join burn_outcome o on o.workshop_id = p.workshop_id and o.container_id = p.container_id and o.wick_id = p.wick_id where p.workshop_id = ${large}`),
    );
    const grid = await timed(15, () => provenGrid(db, large));
    console.log(
      `the scoreboard of waxes: ${ms(board)}; plain aggregates of flaws and scores by wax: ${ms(perWax + perScore)}; ${verdict(board / (perWax + perScore), SQL_RATIO)}`,
    );
    console.log(`what is proven: ${ms(grid)}; the same rows by plain SQL: ${ms(burned)}; ${verdict(grid / burned, SQL_RATIO)}`);
    console.log(`its curve by the pour temperature: ${ms(curve)}; the plain aggregate: ${ms(single)}; ${verdict(curve / single, SQL_RATIO)}`);
  } finally {
    await pool.end();
    await served.stop();
    rmSync(home, { recursive: true, force: true });
  }
}
