import { randomUUID } from "node:crypto";
import autocannon from "autocannon";
import { sql } from "drizzle-orm";
import { putDemo } from "../../demo/load";
import { openDatabase } from "../../web/data/client";
import { copyWorkshop } from "../../web/testing/copy-workshop";
import { freePort, passingHome } from "../processes";
import { serve } from "../serve";

const WORKSHOPS = Number(process.env.HEARTH_WORKSHOPS ?? 500);
const BATCHES = 200;
const CLIENTS = 8;
const SECONDS = 20;
const PAGES = ["", "/bench", "/rack", "/shelf", "/records", "/findings"];

/** Five hundred workshops of two hundred batches on one server, beside one such workshop: how long pages take. */
export async function many(): Promise<number> {
  process.env.HEARTH_LOG = "error";
  const served = await serve({ home: passingHome("many"), port: await freePort(), ownDatabase: true });
  const { db, pool } = openDatabase(served.databaseUrl, { statement_timeout: 0 });
  try {
    const first = randomUUID();
    await putDemo(db, { id: first, name: "One of many" }, new Date(), { many: BATCHES - 15, days: 120, times: 1 });
    const { rows } = await db.execute<{ batches: number; entries: number }>(
      sql`select (select count(*)::int from batch) as batches, (select count(*)::int from batch_event) as entries`,
    );
    await db.execute(sql`analyze`);
    const measure = async (ids: readonly string[]): Promise<number> => {
      const out = await autocannon({
        url: served.url,
        connections: CLIENTS,
        duration: SECONDS,
        requests: Array.from({ length: 600 }, (_, n) => ({ path: `/w/${ids[(n * 7919) % ids.length]}${PAGES[n % PAGES.length]}` })),
      } as autocannon.Options);
      if (out.errors + out.timeouts + out.non2xx > 0) throw new Error(`${out.errors + out.timeouts + out.non2xx} requests failed.`);
      const histogram = out.latency as unknown as { p95?: number; p97_5: number };
      return histogram.p95 ?? histogram.p97_5;
    };
    await measure([first]);
    const value = await measure([first]);
    const ids = [first];
    const began = Date.now();
    while (ids.length < WORKSHOPS) {
      const id = randomUUID();
      await copyWorkshop(pool, first, id);
      ids.push(id);
    }
    await db.execute(sql`analyze`);
    const { rows: size } = await db.execute<{ size: string; bytes: string }>(
      sql`select pg_size_pretty(pg_database_size(current_database())) as size, pg_database_size(current_database()) as bytes`,
    );
    console.log(
      `${ids.length} workshops of ${rows[0]?.batches} batches and ${rows[0]?.entries} entries, made in ${Math.round((Date.now() - began) / 1_000)} s: ${size[0]?.size}, ${(Number(size[0]?.bytes) / ids.length / 1_048_576).toFixed(1)} MB each`,
    );
    await measure(ids);
    const all = await measure(ids);
    console.log(
      `97.5th percentile of pages under ${CLIENTS} clients: ${value} ms with one workshop, ${all} ms among ${ids.length}; ratio ${(all / value).toFixed(2)} (at most 1.5)`,
    );
    return all / value <= 1.5 ? 0 : 1;
  } finally {
    await pool.end();
    await served.stop();
  }
}
