import type { ThrowScore } from "@hearth/core";
import { type SQL, sql } from "drizzle-orm";
import type { Database } from "@/data/client";
import { ALL_TIME, type Period, within } from "@/server/http/period";

/** What was really in a burned candle `o`: the waxes of its batch, with their shares, else as its trial names them. Goes with WAX_OF_BATCH. */
export const WAX_OF_BURN = sql`coalesce(made.wax, o.wax)`;
/** Joins a burned candle `o` to what its batch says of its wax. */
export const WAX_OF_BATCH = sql`left join lateral (select wax from outcome where workshop_id = o.workshop_id and batch_id = o.batch_id order by product limit 1) made on true`;
/** The wicks of a burned candle `o`, with how many there are where it is more than one. */
export const WICKS_OF_BURN = sql`(case when o.wicks > 1 then o.wicks || ' × ' else '' end) || o.wick_name`;

/** Which scores are read: of one throw, of one batch, of batches poured within a period; all of them where nothing is named. */
interface ScoreChoice {
  of?: "cold" | "hot";
  batchId?: string;
  period?: Period;
}

/**
 * Returns the query of a workshop's scores, one row each: `score`, `throw`, `wax`, `oil`, `load` in percent of the wax, `wick`, `age` in days, `scorer`, `batch`
 * (or the test candle of a trial without one), `room`, `at`. Cold ones are of batches, hot and cold ones of burn trials; those of a trial whose codes are not
 * revealed yet are left out.
 */
export function scoreRows(workshopId: string, { of, batchId, period = ALL_TIME }: ScoreChoice = {}): SQL {
  const ofBatch = (column: SQL) => (batchId ? sql`and ${column} = ${batchId}::uuid` : sql``);
  return sql`
    select * from (
      select s.score, 'cold' as throw, o.wax, o.fragrance as oil, o.load::float8 as load, '' as wick,
        extract(epoch from s.at - o.poured_at)::float8 / 86400 as age, s."personId" as scorer, o.batch_id::text as batch, null as room, s.at, o.poured_at as poured
      from (select distinct on (batch_id) batch_id, wax, fragrance, load, poured_at, smells from outcome
        where workshop_id = ${workshopId} and smells <> '[]' ${ofBatch(sql`batch_id`)} order by batch_id, product) o
        cross join lateral jsonb_to_recordset(o.smells) s(at timestamptz, "personId" text, score float8)
      union all
      select r.score, r.throw, ${WAX_OF_BURN}, o.scent, o.load_ppm::float8 / 10000, o.wick_name,
        extract(epoch from r.at - b.poured_at)::float8 / 86400, r.scorer, coalesce(b.id::text, t.id::text || o.test_candle), r.room, r.at, b.poured_at
      from burn_outcome o join trial t on t.workshop_id = o.workshop_id and t.id = o.trial_id
        cross join lateral jsonb_to_recordset(t.state -> 'ratings') r("testCandle" text, at timestamptz, throw text, scorer text, room text, score float8)
        left join batch b on b.workshop_id = o.workshop_id and b.id = o.batch_id
        ${WAX_OF_BATCH}
      where o.workshop_id = ${workshopId} ${ofBatch(sql`o.batch_id`)} and r."testCandle" = o.test_candle and t.state ->> 'codesRevealedAt' is not null
    ) scores where ${of ? sql`throw = ${of}` : sql`true`} and ${within(period, sql`coalesce(poured, at)`)}`;
}

/** Returns the scores of a workshop, newest first. */
export async function throwScores(db: Database, workshopId: string, choice: ScoreChoice = {}): Promise<ThrowScore[]> {
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
  }>(sql`${scoreRows(workshopId, choice)} order by at desc`);
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
