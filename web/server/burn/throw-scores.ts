import type { ThrowScore } from "@hearth/core";
import { sql } from "drizzle-orm";
import type { Database } from "@/data/client";
import { ALL_TIME, type Period, within } from "@/server/http/period";

/** What was really in a burned candle `o`: the waxes of its batch, with their shares, else as its trial names them. Goes with WAX_OF_BATCH. */
export const WAX_OF_BURN = sql`coalesce(made.wax, o.wax)`;
/** Joins a burned candle `o` to what its batch says of its wax. */
export const WAX_OF_BATCH = sql`left join lateral (select wax from outcome where workshop_id = o.workshop_id and batch_id = o.batch_id order by product limit 1) made on true`;
/** The wicks of a burned candle `o`, with how many there are where it is more than one. */
export const WICKS_OF_BURN = sql`(case when o.wicks > 1 then o.wicks || ' × ' else '' end) || o.wick_name`;

/**
 * Returns the scores of a workshop, cold ones of batches and hot and cold ones of burn trials, newest first; those of one throw or of one batch
 * where it is named, given within a period. Scores of a trial whose codes are not revealed yet are left out.
 */
export async function throwScores(
  db: Database,
  workshopId: string,
  { of = null, batchId = null, period = ALL_TIME }: { of?: "cold" | "hot" | null; batchId?: string | null; period?: Period } = {},
): Promise<ThrowScore[]> {
  const { rows } = await db.execute<{
    score: number;
    throw: "cold" | "hot";
    wax: string | null;
    oil: string | null;
    load: number | null;
    wick: string | null;
    age: number | null;
    scorer: string | null;
    batch: string | null;
    room: string | null;
  }>(sql`
    select * from (
      select (s ->> 'score')::float8 as score, 'cold' as throw, o.wax, o.fragrance as oil, o.load::float8 as load, '' as wick,
        extract(epoch from (s ->> 'at')::timestamptz - o.poured_at)::float8 / 86400 as age, s ->> 'personId' as scorer, o.batch_id::text as batch, null as room, (s ->> 'at')::timestamptz as at, o.poured_at as poured
      from (select distinct on (batch_id) batch_id, wax, fragrance, load, poured_at, smells from outcome
        where workshop_id = ${workshopId} and smells <> '[]' and (${batchId}::uuid is null or batch_id = ${batchId}::uuid) order by batch_id, product) o
        cross join lateral jsonb_array_elements(o.smells) s
      union all
      select (r ->> 'score')::float8, r ->> 'throw', ${WAX_OF_BURN}, o.scent, o.load_ppm::float8 / 10000, o.wick_name,
        extract(epoch from (r ->> 'at')::timestamptz - b.poured_at)::float8 / 86400, r ->> 'scorer', coalesce(b.id::text, t.id::text || o.test_candle), r ->> 'room', (r ->> 'at')::timestamptz, b.poured_at
      from trial t cross join lateral jsonb_array_elements(t.state -> 'ratings') r
        join burn_outcome o on o.workshop_id = t.workshop_id and o.trial_id = t.id and o.test_candle = r ->> 'testCandle'
        left join batch b on b.workshop_id = o.workshop_id and b.id = o.batch_id
        ${WAX_OF_BATCH}
      where t.workshop_id = ${workshopId} and t.state ->> 'codesRevealedAt' is not null and (${batchId}::uuid is null or b.id = ${batchId}::uuid)
    ) scores where (${of}::text is null or throw = ${of}) and ${within(period, sql`coalesce(poured, at)`)} order by at desc`);
  return rows.map((row) => ({
    score: Number(row.score),
    throw: row.throw,
    wax: row.wax ?? "",
    oil: row.oil ?? "",
    load: row.load,
    wick: row.wick ?? "",
    ageDays: row.age,
    scorer: row.scorer,
    batch: row.batch,
    room: row.room,
  }));
}
