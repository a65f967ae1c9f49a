import { randomUUID } from "node:crypto";
import { rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { type SQL, sql } from "drizzle-orm";
import { putDemo } from "../demo/load";
import { pastOfYears } from "../demo/past";
import { type Database, openDatabase } from "../web/data/client";
import { curveOf, FACTORS, findingsOf } from "../web/server/findings/findings";
import { lotTrace } from "../web/server/inventory/trace";
import { median } from "./bench-log";
import { passingHome } from "./processes";
import { serve } from "./serve";
import { FROZEN } from "./shots";

const YEARS = Number(process.env.HEARTH_YEARS ?? 10);
const PAGES = ["/", "/rack", "/inspect", "/records", "/findings/charts", "/findings/trace?q=market"];

async function timed(times: number, run: () => Promise<unknown>): Promise<number> {
  const took: number[] = [];
  for (let n = 0; n < times + 3; n++) {
    const began = performance.now();
    await run();
    // The first ones warm connections and caches.
    if (n >= 3) took.push(performance.now() - began);
  }
  return median(took);
}
const ms = (value: number) => `${value.toFixed(1)} ms`;

const page = (url: string, path: string, workshop: string) => async () => {
  const answer = await fetch(`${url}/w/${workshop}${path === "/" ? "" : path}`);
  await answer.text();
  if (!answer.ok) throw new Error(`${path} answered ${answer.status}.`);
};

const count = async (db: Database, what: SQL): Promise<number> => {
  const { rows } = await db.execute<{ n: number }>(sql`select (${what})::int n`);
  return rows[0]?.n ?? 0;
};

/** What ten years of a busy workshop cost: pages beside the demo's, findings beside the bare aggregate, a lot's jars beside one indexed query. */
export async function benchFindings(): Promise<void> {
  const home = passingHome("findings");
  const clockFile = join(home, "clock");
  writeFileSync(clockFile, FROZEN);
  const served = await serve({ home, port: 4_850, demo: true, ownDatabase: true, clockFile });
  const { db, pool } = openDatabase(served.databaseUrl);
  try {
    const [small, large] = [randomUUID(), randomUUID()];
    await putDemo(db, { id: small, name: "A shed" }, new Date(FROZEN), true);
    const began = Date.now();
    await putDemo(db, { id: large, name: `${YEARS} years` }, new Date(FROZEN), pastOfYears(YEARS));
    console.log(`${YEARS} years made up in ${Math.round((Date.now() - began) / 1_000)} s`);
    await db.execute(sql`analyze`);
    const [made, jars, entries] = [
      await count(db, sql`select count(*) from batch where workshop_id = ${large}`),
      await count(db, sql`select sum(jars) from outcome where workshop_id = ${large}`),
      await count(db, sql`select count(*) from batch_event where workshop_id = ${large}`),
    ];
    console.log(`${made} batches, ${jars} jars, ${entries} entries`);

    const { rows: newest } = await db.execute<{ id: string }>(
      sql`select id::text from batch where workshop_id = ${large} and stage = 'closed' order by started_at desc limit 1`,
    );
    const { rows: other } = await db.execute<{ id: string }>(
      sql`select id::text from batch where workshop_id = ${small} and stage = 'closed' order by started_at desc limit 1`,
    );
    for (const path of [...PAGES, "/records/[one]", "/rack/[one]"]) {
      const pair = [
        [small, other[0]?.id],
        [large, newest[0]?.id],
      ] as const;
      const took: number[] = [];
      for (const [workshop, id] of pair) took.push(await timed(15, page(served.url, path.replace("[one]", id ?? ""), workshop)));
      console.log(
        `${path.padEnd(28)} ${ms(took[0] as number)} in the demo, ${ms(took[1] as number)} with ${YEARS} years; ratio ${((took[1] as number) / (took[0] as number)).toFixed(2)} (at most 2.5)`,
      );
    }

    // The same numbers by hand: one plain aggregate for each thing that is compared.
    const byHand = sql.join(
      FACTORS.map(
        (factor) => sql`select ${factor.of}, count(*), sum(o.jars), sum(least(o.jars, coalesce(f.jars, 0)))
        from outcome o left join outcome_flaw f on f.workshop_id = o.workshop_id and f.batch_id = o.batch_id and f.product = o.product and f.defect = 'rough_top'
        where o.workshop_id = ${large} and o.looked group by 1`,
      ),
      sql` union all `,
    );
    const bare = await timed(25, () => db.execute(byHand));
    const single = await timed(25, () =>
      db.execute(sql`
        select o.pour_c, count(*), sum(o.jars), sum(least(o.jars, coalesce(f.jars, 0)))
        from outcome o left join outcome_flaw f on f.workshop_id = o.workshop_id and f.batch_id = o.batch_id and f.product = o.product and f.defect = 'rough_top'
        where o.workshop_id = ${large} and o.looked group by 1`),
    );
    const found = await timed(25, () => findingsOf(db, large, "rough_top"));
    const curve = await timed(25, () => curveOf(db, large, "rough_top", "pour_c"));
    console.log(`findings of one flaw by ${FACTORS.length} factors: ${ms(found)}; plain aggregates of the same rows by the same: ${ms(bare)}`);
    console.log(`ratio ${(found / bare).toFixed(2)} (at most 3)`);
    console.log(`its curve against the pour temperature: ${ms(curve)}; the plain aggregate of the same rows: ${ms(single)}`);
    console.log(`ratio ${(curve / single).toFixed(2)} (at most 3)`);

    const { rows: lot } = await db.execute<{ id: string; material: string }>(
      sql`select id::text, material_id::text material from lot where workshop_id = ${large} and kind = 'wax' order by received_on limit 1`,
    );
    const item = lot[0];
    if (item) {
      const trace = await timed(15, () => lotTrace(db, large, item.id, "UTC"));
      const direct = await timed(15, () =>
        db.execute(
          sql`select b.*, u.amount from stock_use u join batch b on b.workshop_id = u.workshop_id and b.id = u.batch_id where u.workshop_id = ${large} and u.material_id = ${item.material} order by b.started_at desc limit 400`,
        ),
      );
      console.log(`from a lot to its jars: ${ms(trace)}; the same batches by one indexed query: ${ms(direct)}`);
      console.log(`ratio ${(trace / direct).toFixed(2)} (at most 3)`);
    }
  } finally {
    await pool.end();
    await served.stop();
    rmSync(home, { recursive: true, force: true });
  }
}
